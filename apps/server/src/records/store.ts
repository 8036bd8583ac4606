/** Records of sources: read by their ids, counted, and written when they are new. */
import { and, eq, ne, sql } from 'drizzle-orm';
import type { Presence } from '@pandecta/core/changes';
import type { SourceRecord } from '@pandecta/core/source';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { number, one } from '../database/read.ts';
import { oneOf } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { KeyedRecord } from './citation-keys.ts';
import { sources } from './tables.ts';

/** How many sources are live, wait, are set aside, or lie in the bin. */
export async function countPresence(db: Db, workspaceId: string, presence: Presence): Promise<number> {
  const found = await one(
    db,
    { n: number },
    sql`select count(*)::int as n from source_sort where workspace_id = ${workspaceId} and presence = ${presence}`,
  );
  return found!.n;
}

/** The records of those that are live, or of all that can be seen: in the bin and the intake too. */
export async function findRecords(
  db: Db,
  workspaceId: string,
  ids: string[],
  which: 'live' | 'seen' = 'live',
): Promise<Map<string, SourceRecord>> {
  const { id, record, presence } = sources;
  const there = which === 'live' ? eq(presence, 'live') : ne(presence, 'none');
  const found = await within(db, workspaceId).all(sources, { id, record }, and(oneOf(id, ids), there));
  return new Map(found.map((f) => [f.id, f.record]));
}

/**
 * Inserts new sources; their records already have citation keys. Those with the presence `none` become visible once a change
 * makes them live.
 */
export async function insertSources(
  tx: Db,
  actor: Actor,
  list: { id: string; record: KeyedRecord; provenance: object }[],
  as: { presence: 'none' | 'live' | 'intake'; importId: string | null },
): Promise<void> {
  const plain = list.map(({ id, record, provenance }) => ({ id, record, provenance }));
  await tx.execute(sql`
    insert into sources (workspace_id, id, record, provenance, presence, added_by, import_id)
    select ${actor.workspaceId}::uuid, r.id, r.record, r.provenance, ${as.presence}, ${actor.userId}::uuid, ${as.importId}::uuid
    from jsonb_to_recordset(${JSON.stringify(plain)}::jsonb) as r(id uuid, record jsonb, provenance jsonb)`);
}

/** In one order for all, so that no two wait for each other. */
export async function lockSources(tx: Db, workspaceId: string, ids: string[]): Promise<void> {
  await within(tx, workspaceId).all(sources, { id: sources.id }, oneOf(sources.id, ids), {
    by: [sources.id],
    lock: 'update',
  });
}
