/**
 * Where a source stands that someone has in mind and asks for by what they remember of it. The questions are made of the
 * sources of the library by chance: words of a title, a name with a word, a run of the abstract.
 */
import { Chance } from '@pandecta/demo/random';
import type { SourceRecord } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import { ensureLibrary } from './library.ts';
import { table } from './measure.ts';
import { startBench } from './server.ts';

const COUNT = Number(process.env.BENCH_SOURCES ?? 100_000);
const ASKED = 200;
const FIRST = 10;
const bench = await startBench('library');
await ensureLibrary(bench, COUNT);
const chance = new Chance(11);

const wordsOf = (text: string): string[] => text.match(/[\p{L}\p{N}]{4,}/gu) ?? [];
function some(words: string[], n: number): string {
  const left = [...words];
  const out: string[] = [];
  while (out.length < n && left.length) out.push(left.splice(chance.int(0, left.length - 1), 1)[0]!);
  return out.join(' ');
}
function run(words: string[], n: number): string {
  const from = chance.int(0, Math.max(0, words.length - n));
  return words.slice(from, from + n).join(' ');
}

const WAYS: Record<string, (r: SourceRecord) => string | undefined> = {
  'four words of the title, in any order': (r) => some(wordsOf(r.title ?? ''), 4),
  'a phrase of three words of the title': (r) => `"${run((r.title ?? '').split(/\s+/), 3)}"`,
  'a name and two words of the title': (r) =>
    r.author?.[0]?.family && `${r.author[0].family} ${some(wordsOf(r.title ?? ''), 2)}`,
  'a run of eight words of the abstract': (r) => run(wordsOf(r.abstract ?? ''), 8) || undefined,
};

const lines: (string | number)[][] = [];
for (const [name, way] of Object.entries(WAYS)) {
  let [asked, first, best] = [0, 0, 0];
  for (let i = 0; i < ASKED * 3 && asked < ASKED; i += 1) {
    const at = chance.int(0, COUNT - 1);
    const { ids } = (await (await bench.get(`/ids?from=${at}&count=1&sort=added`)).json()) as { ids: string[] };
    const { record } = (await (await bench.get(`/sources/${ids[0]!}`)).json()) as { record: SourceRecord };
    const q = way(record);
    if (!q) continue;
    asked += 1;
    const { rows } = (await (await bench.get(`/sources?q=${encodeURIComponent(q)}&count=${FIRST}`)).json()) as {
      rows: { id: string }[];
    };
    const place = rows.findIndex((r) => r.id === ids[0]);
    if (place >= 0) first += 1;
    if (place === 0) best += 1;
  }
  lines.push([name, asked, `${((100 * first) / asked).toFixed(1)} %`, `${((100 * best) / asked).toFixed(1)} %`]);
}
table(
  `A source one has in mind, among ${formatNumber(COUNT)}`,
  ['asked by', 'questions', `among the first ${FIRST}`, 'first of all'],
  lines,
);
await bench.close();
process.exit(0);
