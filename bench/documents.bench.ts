/** Thousands of small PDFs in one go: how fast, how much memory, and how fast the pages answer meanwhile, beside an idle server. */
import { createWriteStream, openAsBlob, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { ZipFile } from 'yazl';
import { quantile, synthetic, table } from './measure.ts';
import { startBench } from './server.ts';

const COUNT = Number(process.env.PANDECTA_BENCH_FILES ?? 5000);
const ASK_EVERY_MS = 100;
const path = join(tmpdir(), 'pandecta-bench-documents.zip');

const zip = new ZipFile();
for (const [i, { record }] of synthetic(COUNT, 60).entries()) {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  for (let n = 0; n < 2; n += 1) {
    const page = doc.addPage([420, 595]);
    page.drawText(n ? `Leaf ${n + 1} of document ${i}` : record.title!, {
      x: 40,
      y: 520,
      size: n ? 11 : 16,
      font,
      maxWidth: 340,
    });
    page.drawText((record.abstract ?? record.title!).repeat(4), { x: 40, y: 430, size: 10, font, maxWidth: 340 });
  }
  zip.addBuffer(Buffer.from(await doc.save()), `${i}.pdf`);
}
zip.end();
await pipeline(zip.outputStream, createWriteStream(path));

const bench = await startBench('documents');
const ask = async (): Promise<number> => {
  const start = performance.now();
  await (await bench.get('/sources?count=50')).text();
  return performance.now() - start;
};
const idle: number[] = [];
for (let i = 0; i < 100; i += 1) idle.push(await ask());

const form = new FormData();
form.append('through', 'straight');
form.append('file', await openAsBlob(path), 'documents.zip');
const begun = performance.now();
const { jobId } = (await (await bench.post('/imports', form)).json()) as { jobId: string };
const busy: number[] = [];
const memory: [done: number, mb: number][] = [];
for (let state = '', done = 0; state !== 'done';) {
  busy.push(await ask());
  await new Promise((r) => setTimeout(r, ASK_EVERY_MS));
  const { jobs } = (await (await bench.get('/jobs')).json()) as {
    jobs: { id: string; state: string; says: string; done: number; total: number }[];
  };
  const job = jobs.find((j) => j.id === jobId)!;
  if (job.state === 'failed') throw new Error(job.says);
  ({ state } = job);
  if (/^Reading/.test(job.says)) ({ done } = job);
  const share = Math.floor((done * 5) / COUNT);
  if (share >= memory.length) memory.push([done, process.memoryUsage().rss / 1024 ** 2]);
}
const seconds = (performance.now() - begun) / 1000;
memory.push([COUNT, process.memoryUsage().rss / 1024 ** 2]);

table('Documents', ['files', 'seconds', 'files/s'], [[COUNT, seconds, COUNT / seconds]]);
table(
  'The list of sources, ms',
  ['', 'median', 'p95'],
  [
    ['idle', quantile(idle, 0.5), quantile(idle, 0.95)],
    ['while gathering', quantile(busy, 0.5), quantile(busy, 0.95)],
  ],
);
table('Memory of the server', ['files read', 'MB'], memory);
rmSync(path);
await bench.close();
