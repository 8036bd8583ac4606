/** Saying how two sources stand to each other, and what stands around one. */
import { whoOf, withoutMarkup, yearOf, type SourceRecord } from '@pandecta/core/source';
import type { Changed, RelatedSource, RelationsOf, SayRelation } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import { findRecords } from '../records/store.ts';
import { relationsOf, saidOf, wholesOf } from './store.ts';

export async function findRelationsOf({ db }: Services, viewer: Actor, source: string): Promise<RelationsOf> {
  const found = await relationsOf(db, viewer.workspaceId, source);
  const wholes = await wholesOf(db, viewer, [...new Set([source, ...found.flatMap((f) => [f.from, f.to])])]);
  const here = wholes.get(source);
  if (!here) return { sources: [], relations: [] };
  // Where one of two went to the bin, nothing is to be seen of it; where the two became one, neither.
  const relations = found.flatMap((f) => {
    const [from, to] = [wholes.get(f.from)?.id, wholes.get(f.to)?.id];
    return from && to && from !== to ? [{ ...f, from, to, saidOf: { from: f.from, to: f.to } }] : [];
  });
  const named = new Map([...wholes.values()].map((each) => [each.id, each.record]));
  const around = new Set([here.id, ...relations.flatMap((r) => [r.from, r.to])]);
  return {
    sources: [...around].map((id) => related(id, named.get(id)!)),
    relations,
  };
}

/** A source as others name it. */
export const related = (id: string, record: SourceRecord): RelatedSource => ({
  id,
  title: withoutMarkup(record.title ?? record['title-short'] ?? 'Untitled'),
  kind: record.type,
  who: whoOf(record),
  year: yearOf(record.issued) ?? null,
});

/** @throws Refusal where one of the two is not there, or something else was said of them since */
export async function sayRelation(services: Services, actor: Actor, input: SayRelation): Promise<Changed> {
  const { from, to, as, note = '', page = '', present } = input;
  if (from === to) throw new Refusal('invalid', 'a source stands in no relation to itself');
  const there = await findRecords(services.db, actor.workspaceId, [from, to]);
  if (present && there.size < 2) throw new Refusal('no_such_source');
  const before = await saidOf(services.db, actor.workspaceId, from, to, as);
  const after = present ? { note: note.trim(), page: page.trim() } : null;
  return answer(await commit(services, actor, { do: 'relate', from, to, as, said: { before, after } }));
}
