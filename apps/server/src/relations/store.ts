/** How sources stand to each other, as people said it. What was said of one that became part of another holds for that. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Relation, Said } from '@pandecta/core/changes';
import type { SourceRecord } from '@pandecta/core/source';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { json, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { partsOf } from '../database/merged.ts';
import { inBounds } from '../subjects/registry.ts';
import { relations } from './tables.ts';

export interface FoundRelation extends Said {
  from: string;
  to: string;
  as: Relation;
}

/** The relations of a source, by the ids they were said of; and among those it stands to. */
export async function relationsOf(db: Db, workspaceId: string, source: string): Promise<FoundRelation[]> {
  const w = sql`${workspaceId}::uuid`;
  return rows(
    db,
    { from: text(), to: text(), as: text<Relation>(), note: text(), page: text() },
    sql`with own as (${partsOf(w, sql`select ${source}::uuid`)} select id from parts),
      mine as (select r.* from relations r where r.workspace_id = ${w} and (r.from_id in (select id from own) or r.to_id in (select id from own))),
      near as (select from_id as id from mine union select to_id from mine)
      select r.from_id as "from", r.to_id as "to", r."as", r.note, r.page from relations r
      where r.workspace_id = ${w} and r.from_id in (select id from near) and r.to_id in (select id from near) order by r.at, r.from_id, r.to_id`,
  );
}

/** The live sources these became part of, or are, with their records: those that may be seen. */
export async function wholesOf(
  db: Db,
  viewer: Actor,
  ids: string[],
): Promise<Map<string, { id: string; record: SourceRecord }>> {
  const found = await rows(
    db,
    { of: text(), id: text(), record: json<SourceRecord>() },
    sql`with recursive chain (of, id) as (
        select id, id from unnest(${array(ids, 'uuid')}) id
        union select c.of, s.merged_into from chain c join sources s on s.workspace_id = ${viewer.workspaceId} and s.id = c.id and s.merged_into is not null)
      select c.of, s.id, s.record from chain c join sources s on s.workspace_id = ${viewer.workspaceId} and s.id = c.id and s.presence = 'live' and ${inBounds(viewer, sql`s.id`)}`,
  );
  return new Map(found.map(({ of, id, record }) => [of, { id, record }]));
}

/** What is said of two sources in this way and direction; null where nothing is. */
export async function saidOf(
  db: Db,
  workspaceId: string,
  from: string,
  to: string,
  as: Relation,
): Promise<Said | null> {
  const { fromId, toId, note, page } = relations;
  const one = and(eq(fromId, from), eq(toId, to), eq(relations.as, as));
  return (await within(db, workspaceId).first(relations, { note, page }, one)) ?? null;
}

/** All that is said in one way among these. */
export async function saidAmong(db: Db, workspaceId: string, ids: string[], as: Relation): Promise<FoundRelation[]> {
  const { fromId, toId, note, page } = relations;
  const among = and(inArray(fromId, ids), inArray(toId, ids), eq(relations.as, as));
  const found = await within(db, workspaceId).all(relations, { from: fromId, to: toId, note, page }, among);
  return found.map((f) => ({ ...f, as }));
}
