/** PDF pages a second with the place of every word: into the database, beside pdftotext -bbox alone. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import pMap from 'p-map';
import { SOURCES } from '@pandecta/demo/sources';
import { typeset } from '@pandecta/demo/typeset';
import { readPdf } from '@pandecta/server/files/read-pdf';
import { FILES_AT_ONCE } from '@pandecta/server/gathering/prepare/index';
import { median, table } from './measure.ts';
import { startBench } from './server.ts';

const bench = await startBench('text');
const { db, workers } = bench.app.services;
const folder = process.env.PANDECTA_DATA!;
const paths: string[] = [];
let pages = 0;
for (const [i, s] of SOURCES.filter((x) => x.pages && x.record.type === 'article-journal')
  .slice(0, 12)
  .entries()) {
  const n = 40 + i * 5;
  pages += n;
  const path = join(folder, `${i}.pdf`);
  writeFileSync(path, await typeset(s.record, s.theme, n, i, true));
  paths.push(path);
}
const theirs = await median(3, () => paths.forEach((p) => execFileSync('pdftotext', ['-bbox', p, '/dev/null'])));
const layout = await median(3, () => paths.forEach((p) => execFileSync('pdftotext', ['-bbox-layout', p, '/dev/null'])));
let turn = 0;
const ours = await median(3, async () => {
  turn += 1;
  await pMap(
    paths,
    (path, i) =>
      readPdf(
        { db, workers },
        bench.workspace,
        { name: `${i}.pdf`, sha256: `${turn}-${i}-${process.pid}`, bytes: 1, path },
        async () => {},
      ),
    { concurrency: FILES_AT_ONCE },
  );
});
await db.execute(sql`delete from pages where workspace_id = ${bench.workspace.id}`);
table(
  `Text of ${paths.length} PDFs, ${pages} pages: pages a second (medians of 3)`,
  ['what', 'pages/s', 'ratio'],
  [
    ['pdftotext -bbox, to nowhere', pages / theirs, '1'],
    ['pdftotext -bbox-layout, to nowhere', pages / layout, (theirs / layout).toFixed(2)],
    ['into the database, words indexed', pages / ours, (theirs / ours).toFixed(2)],
  ],
);
await bench.close();
process.exit(0);
