/** What others did since, and how a person is told whose work theirs would have taken back. */
import { sql } from 'drizzle-orm';
import type { Conflict, Subject } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { number, one, orNull, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import { nameOfActor } from '../access/people.ts';
import type { Actor } from '../access/principal.ts';

/** Who changed a thing last: "Ines Vance", or "You", in another window. */
async function lastToChange(tx: Db, { workspaceId, userId }: Actor, { kind, id }: Subject): Promise<string> {
  const found = await one(
    tx,
    { id: text(), name: text() },
    sql`select c.actor_id as id, ${nameOfActor} as name from change_subjects cs
      join changes c on c.workspace_id = cs.workspace_id and c.id = cs.change_id left join users u on u.id = c.actor_id
      where cs.workspace_id = ${workspaceId} and cs.kind = ${kind} and cs.subject_id = ${id} order by c.id desc limit 1`,
  );
  if (!found) return 'Someone else';
  return found.id === userId ? 'You, in another window,' : found.name;
}

const movedIn = ({ moved }: Conflict): string => moved.map((m) => m.what).join(' and ');

/** The conflict of an edit someone is making, in words of their case, with both values. */
export async function refuseStale(tx: Db, actor: Actor, conflict: Conflict): Promise<Refusal> {
  const by = await lastToChange(tx, actor, conflict.subject);
  const refusal = new Refusal('stale_edit', by, movedIn(conflict));
  refusal.more = {
    conflict: {
      by,
      subject: conflict.subject,
      moved: conflict.moved.map(({ what, field, after, now }) => ({ what, field, yours: after, theirs: now })),
    },
  };
  return refusal;
}

/** The conflict of an undo. */
export async function refuseUndo(tx: Db, actor: Actor, conflict: Conflict): Promise<Refusal> {
  const by = await lastToChange(tx, actor, conflict.subject);
  return new Refusal('undo_conflict', `${by} changed ${movedIn(conflict)} since then.`);
}

/**
 * What others have done to things since a change, apart from what was undone.
 * @returns how many of the things that is, and the last sentence of it with its maker
 */
export async function workSince(
  tx: Db,
  { workspaceId, userId }: Actor,
  changeId: string,
  things: Subject[],
): Promise<{ count: number; last: string } | undefined> {
  if (!things.length) return undefined;
  const ids = things.map((t) => t.id);
  const found = await one(
    tx,
    { count: number, last: orNull(text()) },
    sql`select count(distinct cs.subject_id)::int as count, (array_agg(${nameOfActor} || ': “' || c.says || '”' order by c.id desc))[1] as last
      from changes c join change_subjects cs on cs.workspace_id = c.workspace_id and cs.change_id = c.id
      left join users u on u.id = c.actor_id
      where c.workspace_id = ${workspaceId} and c.id > ${changeId} and c.actor_id <> ${userId}
        and c.undone_by is null and c.undoes is null
        and cs.kind = ${things[0]!.kind} and cs.subject_id = any(${array(ids, 'uuid')})`,
  );
  return found?.last ? { count: found.count, last: found.last } : undefined;
}
