/** The log of what is asked of the sources here, by members who want it: for the methods section, beside what was asked outside. */
import { and, desc, eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Ask, AskedLog, NoteAsked } from '@pandecta/contract';
import { members } from '../access/tables.ts';
import type { Db } from '../database/connect.ts';
import { json, number, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { nameOfActor } from '../access/people.ts';
import type { Actor } from '../access/principal.ts';
import { said } from '../searching/asked.ts';
import { askedHere } from './tables.ts';

const MOST_TOLD = 500;
/** Who asks the same again within so long looks at the same answer: it is one question. */
const SAME = sql`interval '1 hour'`;

export async function askedLog(db: Db, { workspaceId, userId }: Actor): Promise<AskedLog> {
  const [logs, asked] = await Promise.all([
    logsAsked(db, { workspaceId, userId }),
    rows(
      db,
      { id: text(), at: text(), by: text(), words: text(), ask: json<Ask>(), found: number },
      sql`select a.id, a.at, ${nameOfActor} as by, a.words, a.ask, a.found from asked_here a left join users u on u.id = a.member
        where a.workspace_id = ${workspaceId} order by a.at desc, a.id desc limit ${MOST_TOLD}`,
    ),
  ]);
  return { logs, asked };
}

const logsAsked = async (db: Db, { workspaceId, userId }: Actor): Promise<boolean> =>
  (await within(db, workspaceId).first(members, { logs: members.logsAsked }, eq(members.userId, userId)))?.logs ??
  false;

export async function setLog(db: Db, actor: Actor, logs: boolean): Promise<void> {
  await within(db, actor.workspaceId).update(members, { logsAsked: logs }, eq(members.userId, actor.userId));
}

/** Notes a question; nothing where its member does not log. */
export async function noteAsked(db: Db, actor: Actor, { ask, words, found }: NoteAsked): Promise<void> {
  if (!(await logsAsked(db, actor))) return;
  const here = within(db, actor.workspaceId);
  const { id, member, at } = askedHere;
  const again = and(eq(member, actor.userId), eq(askedHere.words, words), sql`${at} > now() - ${SAME}`);
  const known = await here.first(askedHere, { id }, again, { by: [desc(at)] });
  if (known) await here.update(askedHere, { found }, eq(id, known.id));
  else await here.insert(askedHere, { id: uuidv7(), member: actor.userId, words, ask: said(ask), found });
}
