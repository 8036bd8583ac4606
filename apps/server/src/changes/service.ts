/** Commits changes, undoes and redoes them, and tells the history. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { describe, invert, isEmpty, sourcesOf, type Change } from '@pandecta/core/source';
import type { HistoryEntry } from '@pandecta/contract';
import { array, codeOf, GAVE_UP, one, rows, type Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../http/authorise.ts';
import { derive, type Progress } from '../indexing/derive.ts';
import type { Services } from '../services.ts';
import { carryOut } from './carry-out.ts';

export interface Committed {
  changeId: string | null;
  change: Change;
  says: string;
}

/** Carries a change out in its own transaction and stores it; the indexer follows. */
export async function commit(
  { db, indexer }: Pick<Services, 'db' | 'indexer'>,
  actor: Actor,
  change: Change,
): Promise<Committed> {
  const committed = await onceMore(() => db.transaction((tx) => commitWithin(tx as unknown as Db, actor, change)));
  indexer.kick();
  return committed;
}

/** Of two writes that waited for each other the database gives one up: that one is done again. */
async function onceMore<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (codeOf(error) !== GAVE_UP.deadlock) throw error;
    return work();
  }
}

interface How {
  /** The change this one takes back. */
  undoes?: string;
  progress?: Progress;
}

/**
 * The same within a transaction of the caller's, who kicks the indexer after it. Deriving comes last: from then on no
 * other write of the workspace can end before this one.
 */
export async function commitWithin(
  tx: Db,
  { workspaceId, userId }: Actor,
  change: Change,
  { undoes, progress }: How = {},
): Promise<Committed> {
  const outcome = await carryOut(tx, workspaceId, change);
  if (isEmpty(outcome.change)) return { changeId: null, change: outcome.change, says: 'Nothing needed to change' };
  const says = describe(outcome.change);
  const changeId = uuidv7();
  await tx.execute(sql`insert into changes (workspace_id, id, actor_id, change, says, undoes)
    values (${workspaceId}, ${changeId}, ${userId}, ${JSON.stringify(outcome.change)}::jsonb, ${says}, ${undoes ?? null})`);
  await tx.execute(sql`insert into change_sources (workspace_id, source_id, change_id)
    select ${workspaceId}::uuid, id, ${changeId}::uuid from unnest(${array(sourcesOf(outcome.change), 'uuid')}) id`);
  await derive(tx, workspaceId, outcome.altered, progress);
  return { changeId, change: outcome.change, says };
}

interface Stored {
  id: string;
  change: Change;
  says: string;
  undoes: string | null;
  undone_by: string | null;
}

/** Undoes the named change, or the last of this person's that stands; undoing an undo does the thing again. */
export async function undo(
  { db, indexer }: Pick<Services, 'db' | 'indexer'>,
  actor: Actor,
  changeId?: string,
): Promise<Committed> {
  return takeBack(
    db,
    indexer,
    actor,
    async (tx) => {
      const found = changeId
        ? await stored(tx, actor, sql`id = ${changeId}`)
        : await stored(tx, actor, sql`actor_id = ${actor.userId} and undoes is null and undone_by is null`);
      if (!found) throw new Refusal(changeId ? 'no_such_change' : 'nothing_to_undo');
      if (found.undone_by) throw new Refusal('already_undone');
      return found;
    },
    'Undone: ',
  );
}

/** Does again what this person undid last, as long as they have done nothing else since. */
export async function redo({ db, indexer }: Pick<Services, 'db' | 'indexer'>, actor: Actor): Promise<Committed> {
  return takeBack(
    db,
    indexer,
    actor,
    async (tx) => {
      const last = await stored(tx, actor, sql`actor_id = ${actor.userId} and undone_by is null`);
      if (!last?.undoes) throw new Refusal('nothing_to_redo');
      return last;
    },
    'Done again: ',
  );
}

async function takeBack(
  db: Db,
  indexer: Services['indexer'],
  actor: Actor,
  find: (tx: Db) => Promise<Stored>,
  prefix: string,
): Promise<Committed> {
  const committed = await db.transaction(async (t) => {
    const tx = t as unknown as Db;
    const found = await find(tx);
    const committed = await commitWithin(tx, actor, invert(found.change), { undoes: found.id });
    const by = committed.changeId ?? found.id;
    await tx.execute(
      sql`update changes set undone_by = ${by} where workspace_id = ${actor.workspaceId} and id = ${found.id}`,
    );
    if (found.undoes) {
      // An undo was undone: the change it had undone stands again, and the redo itself is not a step of its own.
      await tx.execute(
        sql`update changes set undone_by = null where workspace_id = ${actor.workspaceId} and id = ${found.undoes}`,
      );
      await tx.execute(
        sql`update changes set undone_by = ${by} where workspace_id = ${actor.workspaceId} and id = ${by}`,
      );
      const original = await one<{ says: string }>(
        tx,
        sql`select says from changes where workspace_id = ${actor.workspaceId} and id = ${found.undoes}`,
      );
      return { ...committed, says: prefix + (original?.says ?? committed.says) };
    }
    return { ...committed, says: prefix + found.says };
  });
  indexer.kick();
  return committed;
}

async function stored(tx: Db, { workspaceId }: Actor, where: ReturnType<typeof sql>): Promise<Stored | undefined> {
  return one<Stored>(
    tx,
    sql`select id, change, says, undoes, undone_by from changes where workspace_id = ${workspaceId} and ${where} order by id desc limit 1 for update`,
  );
}

export async function historyOfSource(db: Db, workspaceId: string, sourceId: string): Promise<HistoryEntry[]> {
  return rows<HistoryEntry>(
    db,
    sql`
    select c.id, u.name as by, c.at, case when c.undoes is null then c.says else 'Undone: ' || coalesce(o.says, c.says) end as says,
      case when octet_length(c.change::text) > 20000 then jsonb_build_object('do', c.change->>'do') else c.change end as change,
      c.undone_by is not null and c.undone_by <> c.id as undone, c.undoes
    from change_sources cs join changes c on c.workspace_id = cs.workspace_id and c.id = cs.change_id
    join users u on u.id = c.actor_id
    left join changes o on o.workspace_id = c.workspace_id and o.id = c.undoes
    where cs.workspace_id = ${workspaceId} and cs.source_id = ${sourceId} order by c.id desc limit 200`,
  );
}

export async function historyOfWorkspace(db: Db, workspaceId: string): Promise<HistoryEntry[]> {
  return rows<HistoryEntry>(
    db,
    sql`
    select c.id, u.name as by, c.at, case when c.undoes is null then c.says else 'Undone: ' || c.says end as says,
      jsonb_build_object('do', c.change->>'do') as change, c.undone_by is not null and c.undone_by <> c.id as undone, c.undoes
    from changes c join users u on u.id = c.actor_id where c.workspace_id = ${workspaceId} order by c.id desc limit 100`,
  );
}
