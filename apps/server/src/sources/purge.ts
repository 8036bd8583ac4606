/**
 * The bin's end: what waited there as many days as the workspace set, was set aside or taken back that long ago, is removed
 * for good; and what someone who empties the bin removes. What waits in the intake waits until someone decides.
 */
import { sql, type SQL } from 'drizzle-orm';
import { GOING } from '@pandecta/contract';
import { withoutTimeout, type Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import { PURGED } from '../records/purged.ts';
import { advance, note, numbersOf } from '../indexing/derive.ts';
import { notify } from '../news/notify.ts';
import type { Storage } from '../storage/storage.ts';
import { binDaysOf, DAYS_IN_BIN } from '../records/bin-days.ts';
import { sweepFiles } from '../files/sweep.ts';

/** What no one has any more after so many days; what was merged into a source that is gone counts from then. */
const AGED = sql`(presence not in ('live', 'intake', 'merged') or presence = 'merged' and not exists (
    select 1 from sources t where t.workspace_id = sources.workspace_id and t.id = sources.merged_into))
  and changed_at < now() - make_interval(days =>
    coalesce((select ${binDaysOf} from workspaces w where w.id = sources.workspace_id and presence = 'bin'), ${DAYS_IN_BIN}))`;

/**
 * @param which a condition on `sources`
 * @returns how many sources went, over all workspaces
 */
export async function purge(db: Db, storage: Storage, which: SQL = AGED): Promise<number> {
  const { count, contents } = await withoutTimeout(db, (tx) => purgeWithin(tx, which));
  await sweepFiles({ db, storage }, contents);
  return count;
}

/** @returns how many sources went, and the contents (SHA-256) of the files that went: to be swept after the transaction */
export async function purgeWithin(tx: Db, which: SQL): Promise<{ count: number; contents: string[] }> {
  const gone = await rows(
    tx,
    { workspace_id: text(), id: text() },
    sql`delete from sources where ${which} returning workspace_id, id`,
  );
  const altered: [workspaceId: string, numbers: number[]][] = [];
  for (const workspaceId of [...new Set(gone.map((g) => g.workspace_id))].sort()) {
    const ids = gone.filter((g) => g.workspace_id === workspaceId).map((g) => g.id);
    altered.push([workspaceId, await numbersOf(tx, workspaceId, ids)]);
  }
  const sources = table('u', { w: ['uuid', gone.map((g) => g.workspace_id)], s: ['uuid', gone.map((g) => g.id)] });
  await leaveToParts(tx, sources);
  for (const name of PURGED.all) {
    await tx.execute(
      sql`delete from ${sql.raw(name)} t using ${sources} where t.workspace_id = u.w and t.source_id = u.s`,
    );
  }
  await tx.execute(sql`delete from likely_pairs t using ${sources} where t.workspace_id = u.w and t.other_id = u.s`);
  await tx.execute(
    sql`delete from change_subjects t using ${sources} where t.workspace_id = u.w and t.kind = 'source' and t.subject_id = u.s`,
  );
  // A file no source holds any more, and that is not of an import going on, goes with its pages: at once with the last
  // source that held it, after some days where one let go of it, since that may be undone.
  const files = await rows(
    tx,
    { workspace_id: text(), id: text(), sha256: text() },
    sql`delete from files f where not exists (select 1 from source_files sf where sf.workspace_id = f.workspace_id and sf.file_id = f.id)
      and (f.released_at is null or f.released_at < now() - make_interval(days =>
        (select ${binDaysOf} from workspaces w where w.id = f.workspace_id)))
      and not exists (select 1 from jobs j where j.workspace_id = f.workspace_id and j.state = any(${array(GOING, 'text')}))
      returning f.workspace_id, f.id, f.sha256`,
  );
  const gonePages = table('u', {
    w: ['uuid', files.map((f) => f.workspace_id)],
    f: ['uuid', files.map((f) => f.id)],
  });
  for (const of of ['pages', 'pages_as_read', 'corrections', 'page_states', 'file_passwords'])
    await tx.execute(
      sql`delete from ${sql.raw(of)} t using ${gonePages} where t.workspace_id = u.w and t.file_id = u.f`,
    );
  await tx.execute(
    sql`delete from documents t using ${gonePages} where t.workspace_id = u.w and t.kind = 'page' and t.id = u.f`,
  );
  for (const [workspaceId, numbers] of altered) {
    await note(tx, workspaceId, (await advance(tx, workspaceId)).revision, numbers, false);
    await notify(tx, { workspace: workspaceId, touched: { kinds: { source: 'all' } } });
  }
  return { count: gone.length, contents: [...new Set(files.map((f) => f.sha256))] };
}

/**
 * What was merged into a source that goes can be taken apart again for a while: the marks in files it alone has are left
 * to it, and its days begin.
 */
async function leaveToParts(tx: Db, gone: SQL): Promise<void> {
  await tx.execute(sql`update marks m set source_id = p.id from ${gone}, sources p
    where m.workspace_id = u.w and m.source_id = u.s and p.workspace_id = u.w and p.merged_into = u.s
      and exists (select 1 from source_files f where f.workspace_id = u.w and f.source_id = p.id and f.file_id = m.file_id)
      and not exists (select 1 from source_files f where f.workspace_id = u.w and f.source_id = u.s and f.file_id = m.file_id)`);
  await tx.execute(
    sql`update sources p set changed_at = now() from ${gone} where p.workspace_id = u.w and p.merged_into = u.s`,
  );
}
