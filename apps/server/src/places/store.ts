/** Collections, where they stand, and how many sources they hold. */
import { sql } from 'drizzle-orm';
import type { CollectionNode, Placement, PlacesReply } from '@pandecta/contract';
import { one, rows, type Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';

export async function findPlaces(db: Db, workspaceId: string): Promise<PlacesReply> {
  const w = sql`${workspaceId}::uuid`;
  const [collections, placements, sums] = await Promise.all([
    rows<CollectionNode>(
      db,
      sql`
      with live as materialized (select source_id from source_sort where workspace_id = ${w} and presence = 'live'),
      held as materialized (select cs.collection_id, cs.source_id from collection_sources cs where cs.workspace_id = ${w} and cs.source_id in (select source_id from live)),
      counted as (select a.ancestor_id, count(distinct h.source_id)::int as n from held h
        join collection_ancestors a on a.workspace_id = ${w} and a.collection_id = h.collection_id group by 1),
      own as (select collection_id, count(*)::int as n from held group by 1)
      select c.id, c.name, coalesce(n.n, 0) as count, coalesce(o.n, 0) as own from collections c
      left join counted n on n.ancestor_id = c.id left join own o on o.collection_id = c.id
      where c.workspace_id = ${w} and c.present order by c.name collate "pandecta"`,
    ),
    rows<Placement>(
      db,
      sql`select p.id, p.collection_id as collection, p.parent_id as parent from placements p
      join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and c.present where p.workspace_id = ${w} and p.present`,
    ),
    one<{ live: number; bin: number; loose: number }>(
      db,
      sql`
      select count(*) filter (where m.presence = 'live')::int as live, count(*) filter (where m.presence = 'bin')::int as bin,
        count(*) filter (where m.presence = 'live' and not exists (select 1 from collection_sources cs
          join collection_ancestors a on a.workspace_id = ${w} and a.collection_id = cs.collection_id and a.ancestor_id = cs.collection_id
          where cs.workspace_id = ${w} and cs.source_id = m.source_id))::int as loose
      from source_sort m where m.workspace_id = ${w}`,
    ),
  ]);
  return { collections, placements, loose: sums!.loose, bin: sums!.bin, total: sums!.live };
}

/** The paths by which each collection is reached: "Licensing › Chapter 2". */
export async function pathsOf(db: Db, workspaceId: string): Promise<Map<string, string[]>> {
  const found = await rows<{ id: string; path: string }>(
    db,
    sql`
    with recursive placed as (
      select p.collection_id, p.parent_id, c.name from placements p join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and c.present
      where p.workspace_id = ${workspaceId} and p.present),
    walk as (
      select collection_id, name as path, array[collection_id] as seen from placed where parent_id is null
      union all select p.collection_id, w.path || ' › ' || p.name, w.seen || p.collection_id from placed p join walk w on w.seen[cardinality(w.seen)] = p.parent_id
      where p.collection_id <> all(w.seen))
    select collection_id as id, path from walk order by path`,
  );
  const out = new Map<string, string[]>();
  for (const f of found) out.set(f.id, [...(out.get(f.id) ?? []), f.path]);
  return out;
}

export async function findCollection(db: Db, workspaceId: string, id: string): Promise<{ id: string; name: string }> {
  const found = await one<{ id: string; name: string }>(
    db,
    sql`select id, name from collections where workspace_id = ${workspaceId} and id = ${id} and present`,
  );
  if (!found) throw new Refusal('no_such_collection');
  return found;
}

export async function placementsOf(
  db: Db,
  workspaceId: string,
  collection: string,
): Promise<{ id: string; parent: string | null }[]> {
  return rows(
    db,
    sql`select id, parent_id as parent from placements where workspace_id = ${workspaceId} and collection_id = ${collection} and present order by id`,
  );
}

export async function isBelow(db: Db, workspaceId: string, collection: string, ancestor: string): Promise<boolean> {
  return Boolean(
    await one(
      db,
      sql`select 1 from collection_ancestors where workspace_id = ${workspaceId} and collection_id = ${collection} and ancestor_id = ${ancestor}`,
    ),
  );
}

/** How many other collections hold each of the sources, at most and at least. */
export async function otherPlaces(
  db: Db,
  workspaceId: string,
  sources: string[],
  collection: string,
): Promise<number[]> {
  const found = await rows<{ n: number }>(
    db,
    sql`
    select (select count(*)::int from collection_sources cs join collections c on c.workspace_id = cs.workspace_id and c.id = cs.collection_id and c.present
      where cs.workspace_id = ${workspaceId} and cs.source_id = u.id and cs.collection_id <> ${collection}) as n
    from unnest(${sql.param(sources)}::uuid[]) as u(id)`,
  );
  return found.map((f) => f.n);
}
