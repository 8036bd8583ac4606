/** What was stored before proofing looked records over as they are written is looked over by and by. */
import { sql } from 'drizzle-orm';
import { json, rows, text } from '../database/read.ts';
import { withoutTimeout, type Db } from '../database/connect.ts';
import type { SourceRecord } from '@pandecta/core/source';
import { derive, rulesFinding, toldByRecord } from '../indexing/derive.ts';

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
    { workspace: text(), id: text(), record: json<SourceRecord>() },
    sql`select s.workspace_id as workspace, s.id, s.record from source_sort ss join sources s on s.workspace_id = ss.workspace_id and s.id = ss.source_id
      where ss.findings is null and ss.workspace_id = (select workspace_id from source_sort where findings is null limit 1)
      order by s.id limit ${SHARE} for no key update of s`,
  );
  if (!behind.length) return 0;
  const workspaceId = behind[0]!.workspace;
  const found = behind.map((b) => ({ id: b.id, findings: rulesFinding(b.record), told: toldByRecord(b.record) }));
  await tx.execute(sql`update source_sort ss set findings = x.findings, told = x.told
    from jsonb_to_recordset(${JSON.stringify(found)}::jsonb) as x(id uuid, findings text[], told text[])
    where ss.workspace_id = ${workspaceId} and ss.source_id = x.id`);
  await derive(tx, workspaceId, { facets: behind.map((b) => b.id) });
  return behind.length;
}
