/**
 * How right printed references are read: entries of bibliographies one names (PANDECTA_BENCH_BIB, with commas between), printed by
 * citeproc in styles of four manners and read back; F1 by field, clean and with two letters swapped. The styles are the reference:
 * what they print is what can be read.
 */
import { readFileSync } from 'node:fs';
import { Citer } from '@pandecta/core/citing';
import { readBibtex } from '@pandecta/core/formats';
import { readReference } from '@pandecta/core/references';
import { withoutMarkup, type Name, type SourceRecord } from '@pandecta/core/source';
import { localeXml, styleRules, STYLES_FOLDER } from '@pandecta/debian/styles';
import { Chance } from '@pandecta/demo/random';
import { table } from './measure.ts';

const STYLES = ['apa', 'ieee', 'chicago-note-bibliography', 'oscola'];
const KINDS = ['article-journal', 'book', 'chapter', 'paper-conference', 'thesis', 'report'];
const COUNT = 500;
const files = (process.env.PANDECTA_BENCH_BIB ?? '').split(',').filter(Boolean);
if (!files.length) throw new Error('PANDECTA_BENCH_BIB names no file of BibTeX');

const chance = new Chance(7);
/** Of an entry, what a bibliography prints; a book's pages are how many it has. */
const printed = (r: SourceRecord): SourceRecord => {
  const whole = ['book', 'thesis', 'report'].includes(r.type);
  const left = ['note', 'abstract', 'custom', 'URL', 'accessed', 'ISSN', 'ISBN', ...(whole ? ['page'] : [])];
  return Object.fromEntries(Object.entries(r).filter(([f]) => !left.includes(f))) as unknown as SourceRecord;
};
const sample = files.flatMap((f) => {
  const all = readBibtex(readFileSync(f, 'utf8'))
    .sources.map((s) => s.record)
    .filter((r) => r.title && r.author?.length && r.author.length < 6 && r.issued?.['date-parts'])
    .filter((r) => KINDS.includes(r.type) && !/\?\?/.test(JSON.stringify(r)));
  return chance.some(all, Math.min(all.length, Math.ceil(COUNT / files.length))).map(printed);
});

const fold = (t: string): string =>
  withoutMarkup(t)
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
const letters = (t: string): string => [...t].sort().join('');
const names = (list: Name[] | undefined): string[] =>
  (list ?? []).map((n) => [n['non-dropping-particle'], n.family ?? n.literal].filter(Boolean).join(' '));
const some = (v: string | undefined): string[] => (v ? [v] : []);
const FIELDS: Record<string, (r: SourceRecord) => string[]> = {
  authors: (r) => names(r.author),
  year: (r) => some(r.issued?.['date-parts'] && String(r.issued['date-parts'][0]![0])),
  title: (r) => some(r.title),
  container: (r) => some(r['container-title']),
  volume: (r) => some(r.volume),
  issue: (r) => some(r.issue),
  pages: (r) => some(r.page?.split(/[-–]/)[0]),
};

function swapped(text: string): string {
  let out = text;
  for (let k = 0; k < 2; k += 1) {
    const at = chance.int(1, out.length - 3);
    if (/\p{L}{2}/u.test(out.slice(at, at + 2))) out = out.slice(0, at) + out[at + 1] + out[at] + out.slice(at + 2);
  }
  return out;
}

const f1 = ([right, wrong, missed]: number[]): number => (2 * right!) / (2 * right! + wrong! + missed!);
for (const noisy of [false, true]) {
  const lines: (string | number)[][] = [];
  for (const style of STYLES) {
    const { xml, language } = styleRules(STYLES_FOLDER, style);
    const citer = new Citer(xml, (l) => localeXml(STYLES_FOLDER, l), language);
    const counts = Object.fromEntries(Object.keys(FIELDS).map((f) => [f, [0, 0, 0]]));
    for (const [i, record] of sample.entries()) {
      const clean = citer
        .bibliography([{ id: String(i), record }])
        .entries[0]?.text.replace(/^\[\d+\]\s*|^\d+\.\s*/, '');
      if (!clean || clean.length < 20) continue;
      const read = readReference(noisy ? swapped(clean) : clean).record;
      for (const [field, of] of Object.entries(FIELDS)) {
        const shown = ` ${fold(clean)} `;
        const want = of(record)
          .map(fold)
          .filter((w) => w && shown.includes(` ${w} `));
        const have = of(read).map(fold).filter(Boolean);
        const same = (a: string, b: string): boolean => a === b || (noisy && letters(a) === letters(b));
        const right = want.filter((w) => have.some((h) => same(w, h))).length;
        const count = counts[field]!;
        count[0]! += right;
        count[1]! += have.filter((h) => !want.some((w) => same(w, h))).length;
        count[2]! += want.length - right;
      }
    }
    const all = Object.values(counts).reduce((a, b) => a.map((x, i) => x + b[i]!), [0, 0, 0]);
    lines.push([style, ...Object.values(counts).map((c) => f1(c).toFixed(3)), f1(all).toFixed(3)]);
  }
  table(
    `${sample.length} entries${noisy ? ', two letters swapped' : ''}: F1`,
    ['style', ...Object.keys(FIELDS), 'all'],
    lines,
  );
}
