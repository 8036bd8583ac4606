/** Things that stand under one another: collections, folders, terms. None of them stands under itself, whoever moves what at once. */
import { sql, type SQL } from 'drizzle-orm';
import type { Db } from './connect.ts';
import { rows } from './read.ts';
import { Refusal } from '../errors.ts';

/**
 * Within the transaction that lets one stand under another, and under a lock: of two who do it at once the later sees what
 * the earlier did.
 * @param pairs a query of (id, up): what stands under what, before this or with it
 * @returns whether `id` is what it is to stand under, or above it
 */
export async function isCircle(
  tx: Db,
  workspaceId: string,
  what: string,
  pairs: SQL,
  id: string,
  into: string,
): Promise<boolean> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`${what} ${workspaceId}`}, 0))`);
  const found = await rows(
    tx,
    {},
    sql`with recursive pairs (id, up) as (${pairs}),
      above (id) as (select ${into}::uuid union select p.up from above a join pairs p on p.id = a.id where p.up is not null)
      select 1 from above where id = ${id}`,
  );
  return found.length > 0;
}

/** @throws Refusal where there would be a circle */
export async function refuseCircle(...asked: Parameters<typeof isCircle>): Promise<void> {
  if (await isCircle(...asked)) throw new Refusal('circular');
}
