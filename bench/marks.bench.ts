/** Marks across sources: 10,000 of them searched, filtered and sorted through the HTTP API, beside the list of sources in the same run. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { Chance } from '@pandecta/demo/random';
import { reserveCitationKeys } from '@pandecta/server/records/citation-keys';
import { writeFirstSenses } from '@pandecta/server/marks/senses';
import { insertSources } from '@pandecta/server/records/store';
import { derive } from '@pandecta/server/indexing/derive';
import { quantile, synthetic, table } from './measure.ts';
import { startBench } from './server.ts';

const [SOURCES, MARKS, RUNS] = [400, 10_000, 200];
const bench = await startBench('marks');
const { services } = bench.app;
const { db } = services;
const actor = { workspaceId: bench.workspace.id, userId: bench.userId };
const have = Number((await db.execute(sql`select count(*) as n from marks where workspace_id = ${actor.workspaceId}`)).rows[0]!.n); // prettier-ignore
const { senses } = (await (await bench.get('/senses')).json()) as { senses: { id: string }[] };
if (!senses.length) senses.push(...(await writeFirstSenses(db, actor.workspaceId)).map((id) => ({ id })));
if (have < MARKS) {
  const made = synthetic(SOURCES, 60, 77).map((s) => ({ id: uuidv7(), record: s.record, provenance: {} }));
  const list = await reserveCitationKeys(db, actor.workspaceId, made);
  await db.transaction(async (t) => {
    const tx = t as unknown as typeof db;
    await insertSources(tx, actor, list, { presence: 'live', importId: null });
    await derive(tx, actor.workspaceId, { records: list.map((l) => l.id) });
  });
  const chance = new Chance(5);
  const words = synthetic(MARKS, 40, 78).map((s) => s.record.abstract ?? '');
  const of = list.map((l) => ({ source: l.id, file: uuidv7() }));
  for (const { source, file } of of) {
    await db.execute(sql`insert into files (workspace_id, id, sha256, name, bytes, media_type, state, pages)
      values (${actor.workspaceId}, ${file}, ${file}, 'bench.pdf', 1, 'application/pdf', 'text', 40)`);
    await db.execute(
      sql`insert into source_files (workspace_id, source_id, file_id) values (${actor.workspaceId}, ${source}, ${file})`,
    );
  }
  for (const exact of words) {
    const { source, file } = chance.pick(of);
    const y0 = chance.int(40, 700);
    const quote = JSON.stringify({ exact, prefix: '', suffix: '' });
    const rects = JSON.stringify([{ x0: 60, y0, x1: 400, y1: y0 + 12 }]);
    await db.execute(sql`insert into marks (workspace_id, id, source_id, file_id, page, sense_id, shape, quote, rects, gloss, made_by)
      values (${actor.workspaceId}, ${uuidv7()}, ${source}, ${file}, ${chance.int(1, 40)}, ${chance.pick(senses).id},
        ${chance.pick(['highlight', 'highlight', 'underline', 'region'])}, ${quote}::jsonb, ${rects}::jsonb,
        ${chance.odds(0.4) ? exact.slice(0, 80) : ''}, ${actor.userId})`);
  }
  await services.followers.settle();
  await db.execute(sql`analyze`);
}

const ASKED: Record<string, object> = {
  'all, by source and page': {},
  'all, newest first': { sort: 'newest' },
  'all, by sense, the last 50': { sort: 'sense', from: MARKS - 50 },
  'one word': { words: 'sediment' },
  'one sense and one shape': { senses: [senses[0]!.id], shapes: ['underline'] },
  'of the sources a question finds, with a gloss': { sources: { q: 'barrier' }, glossed: true, sort: 'newest' },
};
async function times(work: () => Promise<Response>): Promise<number[]> {
  const out: number[] = [];
  for (let i = 0; i < RUNS; i += 1) {
    const begun = performance.now();
    const reply = await work();
    await reply.text();
    if (!reply.ok) throw new Error(String(reply.status));
    out.push(performance.now() - begun);
  }
  return out;
}
const lines: (string | number)[][] = [];
for (const [name, body] of Object.entries(ASKED)) {
  const all = await times(() => bench.post('/marks/list', body));
  lines.push([name, quantile(all, 0.5), quantile(all, 0.95)]);
}
const reference = await times(() => bench.get('/sources?count=50'));
lines.push([`reference: the list of the ${SOURCES} sources`, quantile(reference, 0.5), quantile(reference, 0.95)]);
table(`${MARKS} marks across ${SOURCES} sources, milliseconds (${RUNS} times each)`, ['asked', 'median', 'p95'], lines);
await bench.close();
process.exit(0);
