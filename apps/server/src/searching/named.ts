/** Facets by their ids: what they are, and what a person calls them. */
import { sql } from 'drizzle-orm';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { number, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { facetKinds, type FacetKind } from '../indexing/facet.ts';
import { visibleIds } from '../subjects/visible.ts';

export interface Named {
  /** As it is kept: of a facet that is each member's own, the member is part of it. */
  type: string;
  key: string;
  name: string;
}

/** @returns those of which the viewer may see what they name, by their ids */
export async function namedFacets(db: Db, viewer: Actor, ids: number[]): Promise<Map<number, Named>> {
  const { workspaceId } = viewer;
  const found = await rows(
    db,
    { id: number, type: text(), key: text() },
    sql`select id, type, key from facets where workspace_id = ${workspaceId} and id = any(${array(ids, 'int')})`,
  );
  const out = new Map<number, Named>(found.map((f) => [f.id, { type: f.type, key: f.key, name: f.key }]));
  await Promise.all(
    facetKinds().map(async ({ type, own, names, subject }) => {
      const of = found.filter((f) => f.type === type || (own && f.type.startsWith(`${type} `)));
      if (!of.length) return;
      const keys = [...new Set(of.map((f) => f.key))];
      const named = await names?.(db, workspaceId, keys);
      const isSeen = await seenAmong(db, viewer, subject, keys);
      for (const f of of)
        if (!isSeen(f.key)) out.delete(f.id);
        else out.get(f.id)!.name = named?.get(f.key) ?? f.key;
    }),
  );
  return out;
}

/** Tells which values of a facet may be seen: sources in the bounds may bear what stands outside of them too. */
export async function seenAmong(
  db: Db,
  viewer: Actor,
  subject: FacetKind['subject'],
  keys: string[],
): Promise<(key: string) => boolean> {
  if (!viewer.bounds || !subject) return () => true;
  const seen = new Set(await visibleIds(db, viewer, subject, keys));
  return (key) => seen.has(key);
}

/**
 * Values that are kept for all and for one member are one to them, and no source bears both: added up by their keys, with
 * the place each of those given has among them.
 */
export function asOne<V extends { key: string; count: number }>(
  given: readonly V[],
): { values: V[]; places: number[] } {
  const values: V[] = [];
  const at = new Map<string, number>();
  const places = given.map((v) => {
    const place = at.get(v.key) ?? values.push({ ...v, count: 0 }) - 1;
    at.set(v.key, place);
    values[place]!.count += v.count;
    return place;
  });
  return { values, places };
}
