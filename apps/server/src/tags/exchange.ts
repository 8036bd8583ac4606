/** The vocabulary from and to other programs; and subject terms that become tags. */
import { v7 as uuidv7 } from 'uuid';
import type { BroughtVocabulary, Changed, VocabularyQuery } from '@pandecta/contract';
import type { Change, Term } from '@pandecta/core/changes';
import { writeSkos, writeVocabularyTable, type Concept } from '@pandecta/core/vocabulary';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import { TookTooMuch } from '../workers/pool.ts';
import { isUnder, tagName, taggedWith, termsOf } from './store.ts';

export async function vocabularyFile(
  { db }: Services,
  { workspaceId }: Actor,
  { format, subject = false }: VocabularyQuery,
): Promise<string> {
  const concepts = [...(await termsOf(db, workspaceId))]
    .filter(([, t]) => t.subject === subject)
    .map(([id, { name, says, heading, broader }]): Concept => ({ id, name, says, heading, broader }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en'));
  return format === 'skos' ? writeSkos(concepts) : writeVocabularyTable(concepts);
}

/**
 * What is new is added; of what is known, what nobody said yet is filled in, and all else stays.
 * @throws Refusal where the text is no vocabulary
 */
export async function bringVocabulary(
  services: Services,
  actor: Actor,
  text: string,
  subject: boolean,
): Promise<BroughtVocabulary> {
  const read = await services.workers.run('readVocabulary', text).catch((error: unknown) => {
    const why =
      error instanceof TookTooMuch ? 'reading it exceeds the limit of time or memory' : (error as Error).message;
    throw new Refusal('invalid', `the vocabulary cannot be read: ${why}`);
  });
  if (!read.concepts.length) throw new Refusal('invalid', 'the vocabulary cannot be read: it holds no words');
  const known = await termsOf(services.db, actor.workspaceId);
  const messages = [...read.messages];
  const ids = new Map([...known].filter(([, t]) => t.subject === subject).map(([id, t]) => [t.name.toLowerCase(), id]));
  /** The terms as they are to be, by their ids; and by what the vocabulary calls them. */
  const terms = new Map<string, Term>();
  const called = new Map<string, string>();
  for (const c of read.concepts) {
    const name = tagName(c.name);
    const id = ids.get(name.toLowerCase()) ?? uuidv7();
    ids.set(name.toLowerCase(), id);
    called.set(c.id, id);
    const now = terms.get(id) ?? known.get(id) ?? { name, subject, says: '', heading: '', broader: null };
    terms.set(id, { ...now, says: now.says || c.says.slice(0, 1000), heading: now.heading || c.heading.slice(0, 200) });
  }
  const broaderOf = (id: string): string | null | undefined => (terms.get(id) ?? known.get(id))?.broader;
  for (const c of read.concepts) {
    const id = called.get(c.id)!;
    const term = terms.get(id)!;
    const broader = c.broader && called.get(c.broader);
    if (!c.broader || term.broader) continue;
    if (!broader) messages.push(`“${c.name}” is narrower than something that is not in the vocabulary`);
    else if (isUnder(broader, id, broaderOf)) messages.push(`“${c.name}” would stand under itself`);
    else terms.set(id, { ...term, broader });
  }
  const changes: Change[] = [...terms].flatMap(([tag, after]): Change[] => {
    const before = known.get(tag) ?? null;
    const isSame = before && JSON.stringify(before) === JSON.stringify({ ...before, ...after });
    return isSame ? [] : [{ do: 'term', tag, term: { before, after } }];
  });
  const fresh = [...terms.keys()].filter((id) => !known.has(id)).length;
  const what = subject ? 'subject terms' : 'tags';
  const says = `Brought in a vocabulary: ${fresh} new ${what}, ${changes.length - fresh} completed, ${terms.size - changes.length} known as they are`;
  if (!changes.length) return { changeId: null, says, messages };
  return { ...answer(await commit(services, actor, { do: 'all', says, changes })), messages };
}

/** @throws Refusal where one of them is no subject term */
export async function termsToTags(services: Services, actor: Actor, terms: string[], keep: boolean): Promise<Changed> {
  const { db } = services;
  const known = await termsOf(db, actor.workspaceId);
  const tags = new Map([...known].filter(([, t]) => !t.subject).map(([id, t]) => [t.name.toLowerCase(), id]));
  const bearing = await taggedWith(db, actor.workspaceId, [...new Set(terms)]);
  const changes: Change[] = [];
  for (const id of new Set(terms)) {
    const term = known.get(id);
    if (!term?.subject) throw new Refusal('no_such_tag');
    const { name, says } = term;
    const sources = bearing.get(id)!;
    const tag = tags.get(name.toLowerCase());
    const becomes = tag ?? uuidv7();
    if (!tag) {
      const after: Term = { name, subject: false, says, heading: '', broader: null };
      changes.push({ do: 'term', tag: becomes, term: { before: null, after } });
      tags.set(name.toLowerCase(), becomes);
    }
    const present = { do: 'tag', tag: becomes, name, subject: false, sources, present: true } as const;
    if (sources.length) changes.push(present);
    if (keep) continue;
    if (sources.length) changes.push({ do: 'tag', tag: id, name, subject: true, sources, present: false });
    changes.push({ do: 'term', tag: id, term: { before: term, after: null } });
  }
  const n = new Set(terms).size === 1 ? 'a subject term' : `${new Set(terms).size} subject terms`;
  const says = keep ? `Made tags of ${n}, and kept the terms` : `Made tags of ${n}`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}
