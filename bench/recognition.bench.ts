/**
 * How much of a page is recognised: letters of the demo's world, set and pictured as a scanner would, clean, poor, and laid wrong; as
 * the application reads them, beside Tesseract alone on the same picture. Letters that are right, by edit distance.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { letters, lettersPdf, pictured, POOR, type Fault } from '@pandecta/demo/scans';
import { recogniseScan } from '@pandecta/server/files/scans/read';
import { table } from './measure.ts';
import { startBench } from './server.ts';

const EACH = 6;
/** None of those the demo shows. */
const SEED = 4711;

const KINDS: Record<string, Fault & { upside?: true }> = {
  'clean, 300 dots an inch': { turn: 0, specks: 0, faded: 0, resolution: 300 },
  'clean, 150': { turn: 0, specks: 0, faded: 0, resolution: 150 },
  'askew by 2.4 degrees': POOR[0]!,
  faded: POOR[1]!,
  speckled: POOR[2]!,
  'askew by 6 degrees': { turn: 6, specks: 0, faded: 0.2, resolution: 150 },
  'on its head': { turn: 180, specks: 0, faded: 0, resolution: 150 },
};

/** Levenshtein's distance, a row at a time. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i += 1) {
    const next = [i];
    for (let k = 1; k <= b.length; k += 1)
      next[k] = Math.min(row[k]! + 1, next[k - 1]! + 1, row[k - 1]! + (a[i - 1] === b[k - 1] ? 0 : 1));
    row = next;
  }
  return row[b.length]!;
}
const plain = (text: string): string => text.replace(/\s+/g, ' ').trim();

const bench = await startBench('recognition');
const { services } = bench.app;
const folder = mkdtempSync(join(tmpdir(), 'pandecta-bench-recognition-'));
const lines: (string | number)[][] = [];
for (const [name, fault] of Object.entries(KINDS)) {
  let [ours, theirs, of, seconds] = [0, 0, 0, 0];
  for (const letter of letters(EACH, SEED)) {
    const set = join(folder, 'set.pdf');
    writeFileSync(set, await lettersPdf([letter]));
    const truth = plain(execFileSync('pdftotext', ['-layout', set, '-']).toString());
    const path = join(folder, 'scan.pdf');
    writeFileSync(path, await pictured(await lettersPdf([letter]), fault));
    execFileSync('pdftoppm', ['-r', '200', '-gray', '-png', '-singlefile', path, join(folder, 'scan')]);
    const env = { ...process.env, OMP_THREAD_LIMIT: '1' };
    const alone = execFileSync('tesseract', [join(folder, 'scan.png'), '-', '-l', 'eng'], { env, stdio: 'pipe' });
    const begun = performance.now();
    const what = { languages: ['eng'], says: async () => {} };
    const read = await recogniseScan(services, bench.workspace, { name: 'scan.pdf', path, pages: 1 }, what);
    seconds += (performance.now() - begun) / 1000;
    const found = read
      ? await services.db.execute(sql`select text from pages where workspace_id = ${bench.workspace.id} and file_id = ${read.fileId}`) // prettier-ignore
      : { rows: [] };
    ours += distance(plain(String(found.rows[0]?.text ?? '')), truth);
    theirs += distance(plain(alone.toString()), truth);
    of += truth.length;
  }
  const right = (wrong: number): string => `${Math.max(0, 100 * (1 - wrong / of)).toFixed(1)} %`;
  lines.push([name, String(EACH), right(ours), right(theirs), (seconds / EACH).toFixed(1)]);
}
table(
  'Letters recognised rightly',
  ['pages', 'how many', 'as Pandecta reads them', 'Tesseract alone', 'seconds a page'],
  lines,
);
rmSync(folder, { recursive: true });
await bench.close();
process.exit(0);
