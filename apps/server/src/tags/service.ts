/** The workspace's vocabulary: renaming, describing, merging and removing tags and subject terms. */
import type { Changed, EditTerm, Vocabulary } from '@pandecta/contract';
import { countSources, type Change, type Term } from '@pandecta/core/changes';
import { alike } from '@pandecta/core/vocabulary';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import { findTerms, isUnder, tagName, taggedWith, termsOf } from './store.ts';

export async function vocabulary({ db }: Services, actor: Actor): Promise<Vocabulary> {
  const terms = await findTerms(db, actor);
  const groups = [true, false].flatMap((subject) => alike(terms.filter((t) => t.subject === subject)));
  return { terms, alike: groups.map((g) => ({ ids: g.map((t) => t.id) })) };
}

export async function editTerm(services: Services, actor: Actor, tag: string, input: EditTerm): Promise<Changed> {
  const terms = await termsOf(services.db, actor.workspaceId);
  const before = find(terms, tag);
  const after: Term = {
    name: input.name === undefined ? before.name : tagName(input.name),
    subject: input.subject ?? before.subject,
    says: input.says?.trim() ?? before.says,
    heading: input.heading?.trim() ?? before.heading,
    broader: input.broader === undefined ? before.broader : input.broader,
  };
  if (!after.name) throw new Refusal('invalid', 'a tag needs a name');
  refuseTaken(terms, tag, after);
  refuseCircle(terms, tag, after);
  return answer(await commit(services, actor, { do: 'term', tag, term: { before, after } }));
}

/** @throws Refusal where one of them is not there, or there is no other */
export async function mergeTerms(services: Services, actor: Actor, into: string, terms: string[]): Promise<Changed> {
  const known = await termsOf(services.db, actor.workspaceId);
  const target = find(known, into);
  const others = [...new Set(terms)].filter((id) => id !== into);
  const bearing = await taggedWith(services.db, actor.workspaceId, [into, ...others]);
  const changes: Change[] = [];
  for (const tag of others) {
    const before = find(known, tag);
    const sources = bearing.get(tag)!;
    changes.push(
      { do: 'tag', tag: into, name: target.name, subject: target.subject, sources, present: true },
      { do: 'tag', tag, name: before.name, subject: before.subject, sources, present: false },
      { do: 'term', tag, term: { before, after: null } },
    );
  }
  if (!changes.length) throw new Refusal('invalid', 'a tag is merged with another');
  const n = new Set([...bearing.values()].flat()).size;
  const what = target.subject ? 'subject term' : 'tag';
  const says = `Merged ${others.length === 1 ? `another ${what}` : `${others.length} ${what}s`} into “${target.name}”, which ${countSources(n)} now ${n === 1 ? 'bears' : 'bear'}`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}

export async function removeTerm(services: Services, actor: Actor, tag: string): Promise<Changed> {
  const before = find(await termsOf(services.db, actor.workspaceId), tag);
  const sources = (await taggedWith(services.db, actor.workspaceId, [tag])).get(tag)!;
  const what = before.subject ? 'subject term' : 'tag';
  const says = `Removed the ${what} “${before.name}”${sources.length ? ` from ${countSources(sources.length)}, which ${sources.length === 1 ? 'stays' : 'stay'}` : ''}`;
  const { name, subject } = before;
  const changes: Change[] = [
    { do: 'tag', tag, name, subject, sources, present: false },
    { do: 'term', tag, term: { before, after: null } },
  ];
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}

function find(terms: Map<string, Term>, tag: string): Term {
  const found = terms.get(tag);
  if (!found) throw new Refusal('no_such_tag');
  return found;
}

function refuseTaken(terms: Map<string, Term>, tag: string, { name, subject }: Term): void {
  for (const [id, other] of terms)
    if (id !== tag && other.subject === subject && other.name.toLowerCase() === name.toLowerCase())
      throw new Refusal('invalid', `there is “${other.name}” already: merge the two instead`);
}

/** @throws Refusal where a term is to stand under itself, under one below it, or under one of another sort */
function refuseCircle(terms: Map<string, Term>, tag: string, { broader, subject }: Term): void {
  if (!broader) return;
  if (find(terms, broader).subject !== subject)
    throw new Refusal('invalid', 'a tag stands under a tag, a subject term under a subject term');
  if (isUnder(broader, tag, (id) => terms.get(id)?.broader))
    throw new Refusal('invalid', 'a term cannot stand under itself');
}
