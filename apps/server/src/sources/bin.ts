/** The bin: what is in it, how long it waits there, and emptying it at once. */
import { eq, sql } from 'drizzle-orm';
import type { BinState, Changed } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { formatNumber } from '@pandecta/core/wording';
import { commitWithin } from '../changes/commit.ts';
import { MOST_AT_ONCE } from '../changes/service.ts';
import { idsOf, transact, withoutTimeout, type Db } from '../database/connect.ts';
import { number, one } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { setSettings } from '../access/settings.ts';
import { sweepFiles } from '../files/sweep.ts';
import type { Progress } from '../indexing/derive.ts';
import { defineJob } from '../capability.ts';
import { doOnce, type Result } from '../queue/once.ts';
import { notify } from '../news/notify.ts';
import type { Services } from '../services.ts';
import { binDays } from '../records/bin-days.ts';
import { purgeWithin } from './purge.ts';
import { sources } from '../records/tables.ts';
import { visibleTo } from '../subjects/registry.ts';

export async function setBinDays(db: Db, { workspaceId }: Actor, days: number): Promise<Changed> {
  await setSettings(db, workspaceId, { binDays: days });
  await notify(db, { workspace: workspaceId, touched: { kinds: { source: 'all' } } });
  return { changeId: null, says: `Removed sources now stay in the bin for ${days} days` };
}

export async function binState(db: Db, viewer: Actor): Promise<BinState> {
  const { workspaceId } = viewer;
  const found = await one(
    db,
    { sources: number, files: number, marks: number },
    sql`with b as (select id from sources where workspace_id = ${workspaceId} and presence = 'bin')
      select (select count(*)::int from b) as sources,
        (select count(distinct sf.file_id)::int from source_files sf join b on b.id = sf.source_id
          where sf.workspace_id = ${workspaceId} and not exists (select 1 from source_files o
            where o.workspace_id = ${workspaceId} and o.file_id = sf.file_id and o.source_id not in (select id from b))) as files,
        (select count(*)::int from marks m join b on b.id = m.source_id
          where m.workspace_id = ${workspaceId} and ${visibleTo(viewer, 'mark', sql`m`)}) as marks`,
  );
  return { ...found!, days: await binDays(db, workspaceId) };
}

/**
 * All that is in the bin goes for good.
 * @param seen how many there were when the person decided
 * @throws Refusal where there are more by now: nobody saw those go
 */
export async function emptyBin(services: Services, actor: Actor, seen: number): Promise<Changed> {
  const { db, storage, jobs: queue } = services;
  const { id, presence } = sources;
  const ids = idsOf(await within(db, actor.workspaceId).all(sources, { id }, eq(presence, 'bin')));
  if (ids.length > seen) throw new Refusal('bin_grew', String(ids.length));
  if (!ids.length) return { changeId: null, says: 'The bin is empty' };
  if (ids.length > MOST_AT_ONCE) {
    const title = `Emptying the bin of ${countSources(ids.length)}`;
    const jobId = await queue.queue(emptyBinJob, actor, title, { sources: ids });
    return { changeId: null, says: `${title} takes a while; Jobs shows how far it is`, jobId };
  }
  const { says, contents } = await transact(db, (tx) => removeForGood(tx, actor, ids));
  await sweepFiles({ db, storage }, contents);
  // What is gone cannot be brought back: the line offers no undo.
  return { changeId: null, says };
}

/** The change that says so and the removal are one: there is no moment at which only one of them is true. */
async function removeForGood(
  tx: Db,
  actor: Actor,
  ids: string[],
  progress?: Progress,
): Promise<{ says: string; contents: string[] }> {
  const change = { do: 'presence', sources: ids, from: 'bin', to: 'none' } as const;
  const { changeId, says } = await commitWithin(tx, actor, change, { progress });
  if (!changeId) return { says: 'The bin is empty', contents: [] };
  const those = sql`workspace_id = ${actor.workspaceId} and presence = 'none' and id = any(${array(ids, 'uuid')})`;
  return { says, contents: (await purgeWithin(tx, those)).contents };
}

/** The emptying of a large bin. */
export const emptyBinJob = defineJob<{ sources: string[] }>({
  kind: 'empty-bin',
  nothing: 'nothing was removed',
  failed: 'Emptying the bin failed on the server; nothing was removed.',
  async work({ db, storage }, { workspaceId, jobId, userId, input }, progress) {
    let contents: string[] = [];
    const remove = async (tx: Db): Promise<Result> => {
      const removed = await removeForGood(tx, { workspaceId, userId }, input.sources, (n, of) =>
        progress(n, of, `${formatNumber(n)} of ${countSources(of)}`),
      );
      contents = removed.contents;
      return { changeId: null, says: removed.says };
    };
    const { says } = await doOnce(db, { workspaceId, jobId }, remove, withoutTimeout);
    await sweepFiles({ db, storage }, contents);
    return says;
  },
});
