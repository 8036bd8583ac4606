/** Files that come in shares: each is noted under an id that only who sent it can name, until the gathering of all begins. */
import { and, eq, inArray, type SQL } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import type { FileInput } from './inputs.ts';
import { uploads } from './tables.ts';

export async function keepUploads(db: Db, { workspaceId, userId }: Actor, inputs: FileInput[]): Promise<string[]> {
  const made = inputs.map((input) => ({ id: uuidv7(), userId, input }));
  await within(db, workspaceId).insert(uploads, ...made);
  return made.map((m) => m.id);
}

/**
 * In the order they are named.
 * @throws Refusal where one is not there, or someone else sent it
 */
export async function findUploads(db: Db, actor: Actor, ids: string[]): Promise<FileInput[]> {
  const { id, input } = uploads;
  const found = await within(db, actor.workspaceId).all(uploads, { id, input }, mine(actor, ids));
  const byId = new Map(found.map((u) => [u.id, u.input as FileInput]));
  return ids.map((one) => byId.get(one) ?? refuse());
}

/** In the transaction that begins their gathering: of two who begin it at once one is told that they are not there. */
export async function spendUploads(tx: Db, actor: Actor, ids: string[]): Promise<void> {
  const gone = await within(tx, actor.workspaceId).delete(uploads, mine(actor, ids)).returning({ id: uploads.id });
  if (gone.length !== new Set(ids).size) refuse();
}

const mine = ({ userId }: Actor, ids: string[]): SQL | undefined =>
  and(eq(uploads.userId, userId), inArray(uploads.id, ids));

function refuse(): never {
  throw new Refusal('invalid', 'one of the files was not sent, or more than a day ago; send them again');
}
