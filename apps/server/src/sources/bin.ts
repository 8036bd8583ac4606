/** The bin: what is in it, how long it waits there, and emptying it at once. */
import { eq, sql } from 'drizzle-orm';
import type { BinState, Changed } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { idsOf, type Db } from '../database/connect.ts';
import { number, one } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../http/authorise.ts';
import { notify } from '../live/notify.ts';
import type { Services } from '../services.ts';
import { binDaysOf, purge } from './purge.ts';
import { sources } from './tables.ts';

/** How many days sources wait in the bin of a workspace. */
export async function binDays(db: Db, workspaceId: string): Promise<number> {
  const found = await one(
    db,
    { days: number },
    sql`select ${binDaysOf} as days from workspaces w where w.id = ${workspaceId}`,
  );
  return found!.days;
}

export async function setBinDays(db: Db, { workspaceId }: Actor, days: number): Promise<Changed> {
  await db.execute(
    sql`update workspaces set settings = settings || ${JSON.stringify({ binDays: days })}::jsonb where id = ${workspaceId}`,
  );
  await notify(db, { workspace: workspaceId, touched: { kinds: { source: 'all' } } });
  return { changeId: null, says: `What is in the bin waits there ${days} days` };
}

export async function binState(db: Db, { workspaceId }: Actor): Promise<BinState> {
  const found = await one(
    db,
    { sources: number, files: number, marks: number },
    sql`with b as (select id from sources where workspace_id = ${workspaceId} and presence = 'bin')
      select (select count(*)::int from b) as sources,
        (select count(distinct sf.file_id)::int from source_files sf join b on b.id = sf.source_id
          where sf.workspace_id = ${workspaceId} and not exists (select 1 from source_files o
            where o.workspace_id = ${workspaceId} and o.file_id = sf.file_id and o.source_id not in (select id from b))) as files,
        (select count(*)::int from marks m join b on b.id = m.source_id
          where m.workspace_id = ${workspaceId} and m.present) as marks`,
  );
  return { ...found!, days: await binDays(db, workspaceId) };
}

/**
 * All that is in the bin goes for good.
 * @param seen how many there were when the person decided
 * @throws Refusal where there are more by now: nobody saw those go
 */
export async function emptyBin(services: Services, actor: Actor, seen: number): Promise<Changed> {
  const { db, storage } = services;
  const { id, presence } = sources;
  const ids = idsOf(await within(db, actor.workspaceId).all(sources, { id }, eq(presence, 'bin')));
  if (ids.length > seen) throw new Refusal('bin_grew', String(ids.length));
  if (!ids.length) return { changeId: null, says: 'The bin is empty' };
  const committed = await commit(services, actor, { do: 'presence', sources: ids, from: 'bin', to: 'none' });
  if (!committed.jobId)
    await purge(
      db,
      storage,
      sql`workspace_id = ${actor.workspaceId} and presence = 'none' and id = any(${array(ids, 'uuid')})`,
    );
  // What is gone cannot be brought back: the line offers no undo.
  return { ...answer(committed), changeId: null };
}
