/** What was stored before proofing looked records over as they are written is looked over by and by. */
import { isNull, sql } from 'drizzle-orm';
import { text as textColumn, json, rows } from '../database/read.ts';
import { withoutTimeout, type Db } from '../database/connect.ts';
import { table } from '../database/sql.ts';
import type { SourceRecord } from '@pandecta/core/source';
import { derive, rulesFinding } from '../indexing/derive.ts';
import { sourceSort } from '../indexing/tables.ts';

const SHARE = 500;

/** @returns how many records were looked over */
export async function lookOverBehind(db: Db): Promise<number> {
  for (let all = 0; ;) {
    const n = await withoutTimeout(db, share);
    if (!n) return all;
    all += n;
  }
}

async function share(tx: Db): Promise<number> {
  const behind = await rows(
    tx,
    { workspace: textColumn(), id: textColumn(), record: json<SourceRecord>() },
    sql`select s.workspace_id as workspace, s.id, s.record from ${sourceSort} ss join sources s on s.workspace_id = ss.workspace_id and s.id = ss.source_id
      where ${isNull(sql`ss.findings`)} and ss.workspace_id = (select workspace_id from ${sourceSort} where findings is null limit 1)
      order by s.id limit ${SHARE} for no key update of s`,
  );
  if (!behind.length) return 0;
  const workspaceId = behind[0]!.workspace;
  const found = behind.flatMap((b) => {
    const rules = rulesFinding(b.record);
    return rules.length ? rules.map((rule) => [b.id, rule] as const) : [[b.id, ''] as const];
  });
  await tx.execute(sql`update source_sort ss set findings = x.rules
    from (select id, array_remove(array_agg(rule), '') as rules from ${table('u', { id: ['uuid', found.map((f) => f[0])], rule: ['text', found.map((f) => f[1])] })} group by id) x
    where ss.workspace_id = ${workspaceId} and ss.source_id = x.id`);
  await derive(tx, workspaceId, { facets: behind.map((b) => b.id) });
  return behind.length;
}
