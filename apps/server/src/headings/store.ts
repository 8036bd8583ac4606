/** Headings as a member sees them. */
import { sql, type SQL } from 'drizzle-orm';
import type { HeadingInfo } from '@pandecta/contract';
import type { Entry } from '@pandecta/core/changes';
import type { Heading } from '@pandecta/core/headings';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { entriesOf, entryOf } from '../lists/store.ts';
import { Refusal } from '../errors.ts';

export type HeadingValue = Entry & Heading;

export async function headingsOf(db: Db, viewer: Actor): Promise<HeadingInfo[]> {
  const found = await entriesOf<HeadingValue>(db, viewer, 'heading');
  return found.map(({ id, value: { owner: _, ...heading } }) => ({ ...heading, id }));
}

export async function findHeading(db: Db, viewer: Actor, id: string): Promise<HeadingValue> {
  const found = await entryOf<HeadingValue>(db, viewer, 'heading', id);
  if (!found) throw new Refusal('no_such_heading');
  return found;
}

/** A query `h (id, counts)`: each heading, and the one it counts as. */
export const countedHeadings = (workspaceId: string | SQL): SQL =>
  sql`select id, coalesce((value->>'into')::uuid, id) as counts from entries where workspace_id = ${workspaceId} and list = 'heading'`;
