import { sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { number, one } from '../database/read.ts';

/** The workspace with its number, under which its words are indexed. */
export async function workspaceOf(db: Db, id: string): Promise<{ id: string; number: number }> {
  const found = await one(db, { number }, sql`select number from workspaces where id = ${id}`);
  return { id, number: found!.number };
}
