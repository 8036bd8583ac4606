/** What was done, to a source and in the workspace. What is another member's own is not in it. */
import { sql, type SQL } from 'drizzle-orm';
import type { AskActivity, HistoryEntry, TouchedByChange } from '@pandecta/contract';
import { seenBy, type Change } from '@pandecta/core/changes';
import { withoutMarkup } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { json, number, orNull, rows, text, truth } from '../database/read.ts';
import { literally } from '../database/sql.ts';
import { nameOfActor } from '../access/people.ts';
import type { Actor } from '../access/principal.ts';
import { changeVisible } from './visible.ts';

/** A change this large, in bytes as it is stored, is told of by its kind alone: to unpack it takes longer than to tell all others. */
const LARGE = 8_000;

/** A gathering of which all went to the intake is told to those who may gather: its title may be what it gathered. */
const gatheredUnseen = sql`exists (select 1 from imports i where i.workspace_id = c.workspace_id and i.change_id = coalesce(c.undoes, c.id)
  and (i.report->>'added')::int = 0 and (i.report->>'waiting')::int > 0)`;

export async function historyOfSource(db: Db, actor: Actor, sourceId: string): Promise<HistoryEntry[]> {
  const touching = sql`exists (select 1 from change_subjects cs where cs.workspace_id = c.workspace_id
    and cs.kind = 'source' and cs.subject_id = ${sourceId} and cs.change_id = c.id)`;
  const change = sql`case when pg_column_size(c.change) > ${LARGE} then jsonb_build_object('do', c.kind) else c.change end`;
  return history(db, actor, touching, { change, first: sql`null::uuid`, maySeeIntake: true }, 200);
}

/** So many at a time, the newest first. */
const ACTIVITY = 100;

export async function historyOfWorkspace(
  db: Db,
  actor: Actor,
  maySeeIntake: boolean,
  { by, words, before }: AskActivity = {},
): Promise<HistoryEntry[]> {
  const where = [
    by ? sql`c.actor_id = ${by}` : sql`true`,
    words?.trim() ? sql`coalesce(o.says, c.says) ilike ${`%${literally(words.trim())}%`}` : sql`true`,
    before ? sql`c.id < ${before}` : sql`true`,
    maySeeIntake ? sql`true` : sql`not ${gatheredUnseen}`,
  ];
  const change = sql`jsonb_build_object('do', c.kind)`;
  // One source is named, several are not; nor is any in what is each member's own.
  const first = sql`case when c.size = 1 and not coalesce(c.kinds && array['star', 'reading'], false) then
    (select cs.subject_id from change_subjects cs where cs.workspace_id = c.workspace_id and cs.change_id = c.id and cs.kind = 'source') end`;
  return history(db, actor, sql.join(where, sql` and `), { change, first, maySeeIntake }, ACTIVITY);
}

/** How many sources of a change are told by their titles. */
const TOLD = 50;

export async function touchedBy(
  db: Db,
  actor: Actor,
  changeId: string,
  maySeeIntake: boolean,
): Promise<Omit<TouchedByChange, 'stays'>> {
  const found = await rows(
    db,
    { id: text(), title: text(), count: number },
    sql`select s.id, coalesce(s.record->>'title', s.record->>'title-short', 'Untitled') as title, (count(*) over ())::int as count
      from changes c
      join change_subjects cs on cs.workspace_id = c.workspace_id and cs.change_id = c.id and cs.kind = 'source'
      join sources s on s.workspace_id = c.workspace_id and s.id = cs.subject_id and s.presence <> 'none'
        and (${maySeeIntake} or s.presence not in ('intake', 'aside'))
      where c.workspace_id = ${actor.workspaceId} and c.id = ${changeId} and ${changeVisible(actor, sql`c`)}
      order by 2, 1 limit ${TOLD}`,
  );
  return { sources: found.map(({ id, title }) => ({ id, title })), count: found[0]?.count ?? 0 };
}

async function history(
  db: Db,
  actor: Actor,
  where: SQL,
  { change, first, maySeeIntake }: { change: SQL; first: SQL; maySeeIntake: boolean },
  most: number,
): Promise<HistoryEntry[]> {
  const found = await rows(
    db,
    {
      id: text(),
      by: text(),
      byId: text(),
      at: text(),
      says: text(),
      change: json<Change>(),
      undone: truth,
      undoes: orNull(text()),
      onId: orNull(text()),
      onTitle: orNull(text()),
    },
    sql`
    select told.id, told.by, told."byId", told.at, told.says, told.change, told.undone, told.undoes, s.id as "onId", coalesce(s.record->>'title', s.record->>'title-short') as "onTitle" from (select c.id, ${nameOfActor} as by, c.actor_id as "byId", c.at, case when c.undoes is null then c.says else 'Undone: ' || coalesce(o.says, c.says) end as says,
      ${change} as change, ${first} as first, c.workspace_id, c.undone_by is not null and c.undone_by <> c.id as undone, c.undoes
    from changes c left join users u on u.id = c.actor_id
    left join changes o on o.workspace_id = c.workspace_id and o.id = c.undoes
    where c.workspace_id = ${actor.workspaceId} and ${where}
      and ${changeVisible(actor, sql`c`)}
    order by c.id desc limit ${most}) told
    left join sources s on s.workspace_id = told.workspace_id and s.id = told.first and s.presence <> 'none'
      and (${maySeeIntake} or s.presence not in ('intake', 'aside'))
    order by told.id desc`,
  );
  return found.map(({ onId, onTitle, ...entry }) => {
    const title = onTitle && withoutMarkup(onTitle);
    const isNamed = !title || entry.says.includes(title);
    return {
      ...entry,
      change: shown(entry.change, actor.userId),
      ...(onId && !isNamed && { on: { id: onId, title } }),
    };
  });
}

/** What is another member's own in it is left out. One told of by its kind alone has no parts. */
function shown(change: Change, member: string): Change {
  const whole = Object.keys(change).length > 1;
  return whole ? (seenBy(change, member) ?? ({ do: change.do } as Change)) : change;
}
