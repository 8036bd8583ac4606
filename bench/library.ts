/** A large library for measurements: made once in the bench's database and kept. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { lookOverBehind } from '@pandecta/server/check/behind';
import { derive } from '@pandecta/server/indexing/derive';
import { reserveCitationKeys } from '@pandecta/server/records/citation-keys';
import { insertSources } from '@pandecta/server/records/store';
import { ensureTags } from '@pandecta/server/tags/store';
import type { Db } from '@pandecta/server/database/connect';
import { Chance } from '@pandecta/demo/random';
import { formatNumber } from '@pandecta/core/wording';
import { synthetic } from './measure.ts';
import type { Bench } from './server.ts';

export async function ensureLibrary(bench: Bench, count: number): Promise<void> {
  const { services } = bench.app;
  const { db } = services;
  const actor = { workspaceId: bench.workspace.id, userId: bench.userId };
  const have = Number(
    (await db.execute(sql`select count(*) as n from sources where workspace_id = ${actor.workspaceId}`)).rows[0]!.n,
  );
  const tags = [
    ...(await ensureTags(db, actor.workspaceId, ['used', 'check again', 'adverse', 'primary'], false)).values(),
  ];
  const chance = new Chance(3);
  for (let done = have; done < count; done += 5000) {
    const made = synthetic(5000, 120, 1000 + done).map((s) => ({ id: uuidv7(), record: s.record, provenance: {} }));
    const list = await reserveCitationKeys(db, actor.workspaceId, made);
    await db.transaction(async (t) => {
      const tx = t as unknown as Db;
      await tx.execute(sql`set local statement_timeout = 0`);
      await insertSources(tx, actor, list, { presence: 'live', importId: null });
      const ids = list.map((l) => l.id);
      const tagged = ids.filter(() => chance.odds(0.4)).map((id) => [id, chance.pick(tags)] as const);
      await tx.execute(sql`insert into source_tags (workspace_id, source_id, tag_id) select ${actor.workspaceId}::uuid, u.s, u.t
        from unnest(${sql.param(tagged.map((x) => x[0]))}::uuid[], ${sql.param(tagged.map((x) => x[1]))}::uuid[]) as u(s, t)`);
      await derive(tx, actor.workspaceId, { records: ids });
    });
    await services.followers.settle();
    process.stderr.write(`\r${formatNumber(done + 5000)} sources `);
  }
  // An older library may be written anew by the indexer, and looked over.
  await lookOverBehind(db);
  await services.followers.settle();
  const client = await services.database.pool.connect();
  await client.query('set statement_timeout = 0');
  await client.query('vacuum analyze');
  client.release(true);
}
