/** The entries of the workspace's short lists, as far as a member may see them. */
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import type { Entry, List } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { Actor } from '../access/principal.ts';
import { visibleTo } from '../subjects/registry.ts';
import { entries } from './tables.ts';

export interface Found<V extends Entry> {
  id: string;
  value: V;
}

/** Those of a list, by their names. */
export async function entriesOf<V extends Entry>(db: Db, actor: Actor, list: List, where?: SQL): Promise<Found<V>[]> {
  const found = await within(db, actor.workspaceId).all(
    entries,
    { id: entries.id, value: entries.value },
    and(visibleTo(actor, list, sql`${entries}`), where),
    { by: [sql`(${entries.value}->>'name') collate "pandecta"`, entries.id] },
  );
  return found as Found<V>[];
}

export async function entryOf<V extends Entry>(db: Db, actor: Actor, list: List, id: string): Promise<V | undefined> {
  return (await entriesOf<V>(db, actor, list, eq(entries.id, id)))[0]?.value;
}

/** The names of entries of a list, by their ids: as a facet of such ids tells its values. */
export const namesOfEntries =
  (list: List) =>
  async (db: Db, workspaceId: string, keys: string[]): Promise<Map<string, string>> => {
    const name = sql<string>`${entries.value}->>'name'`;
    const those = and(eq(entries.list, list), inArray(entries.id, keys));
    const found = await within(db, workspaceId).all(entries, { id: entries.id, name }, those);
    return new Map(found.map((f) => [f.id, f.name]));
  };

/** One of this name, whatever its case: a member's own before everyone's. */
export async function entryNamed<V extends Entry>(
  db: Db,
  actor: Actor,
  list: List,
  name: string,
): Promise<Found<V> | undefined> {
  const found = await entriesOf<V>(db, actor, list, sql`lower(${entries.value}->>'name') = lower(${name.trim()})`);
  return found.find((f) => f.value.owner) ?? found[0];
}
