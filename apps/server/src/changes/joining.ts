/** Consecutive edits of the same fields by one person are one entry of the history. */
import { and, desc, eq, sql } from 'drizzle-orm';
import { fromJson, joined, touches, type Change } from '@pandecta/core/changes';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { changes, changeSubjects } from './tables.ts';

/** An edit joins the one before it where no more than this lies between them. */
const WITHIN = sql`interval '5 minutes'`;
/** So many edits are one entry at most. */
const MOST = 200;

/**
 * Takes the edit this one continues out of the history: the last thing this person did, of the same fields of the same thing,
 * a moment ago, and nobody has touched that thing since.
 * @returns the two as one, with the ids of all it took in; undefined where it continues none
 */
export async function takeEarlier(
  tx: Db,
  { workspaceId, userId }: Actor,
  later: Change,
): Promise<{ change: Change; ids: string[] } | undefined> {
  const here = within(tx, workspaceId);
  const { id, change, joined: ids, undoes, undoneBy, kind } = changes;
  const isOpen = sql<boolean>`${undoes} is null and ${undoneBy} is null and ${kind} = ${later.do}
    and ${changes.at} > now() - ${WITHIN} and cardinality(${ids}) < ${MOST}`;
  const fields = { id, change, ids, isOpen };
  const last = await here.first(changes, fields, eq(changes.actorId, userId), { by: [desc(id)] });
  if (!last?.isOpen) return undefined;
  const both = joined(fromJson(last.change, { by: userId }), later);
  if (!both) return undefined;
  for (const { kind: of, id: subject } of touches(both)) {
    const since = and(
      eq(changeSubjects.kind, of),
      eq(changeSubjects.subjectId, subject),
      sql`${changeSubjects.changeId} > ${last.id}`,
    );
    if (await here.has(changeSubjects, since)) return undefined;
  }
  // One that is being undone at this moment is gone by then.
  const taken = await here.delete(changes, and(eq(id, last.id), sql`${undoneBy} is null`)).returning({ id });
  if (!taken.length) return undefined;
  await here.delete(changeSubjects, eq(changeSubjects.changeId, last.id));
  return { change: both, ids: [...last.ids, last.id] };
}
