/**
 * How right proofing is, over bibliographies one names (PANDECTA_BENCH_BIB, with commas between): planted faults that are found,
 * false alarms on records that two tools print alike, sentence case beside pandoc's, mangled characters taken back; and how long it takes.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Citer, htmlToText } from '@pandecta/core/citing';
import { englishWords } from '@pandecta/core/english';
import { readBibtex, toCslItem } from '@pandecta/core/formats';
import { amongOf, inCase, isShouting, isTitleCase, mended, proof, sentenceCase, SURE, usesByKind, type Finding } from '@pandecta/core/proofing'; // prettier-ignore
import { repairEncoding } from '@pandecta/core/repair';
import type { SourceRecord } from '@pandecta/core/source';
import { localeXml, styleRules, STYLES_FOLDER } from '@pandecta/debian/styles';
import { Chance } from '@pandecta/demo/random';
import { formatNumber } from '@pandecta/core/wording';
import { table } from './measure.ts';
import { plant, PLANTS } from './proofing/plant.ts';
import { knownTitles, type KnownTitle } from './proofing/titles.ts';

const files = (process.env.PANDECTA_BENCH_BIB ?? '').split(',').filter(Boolean);
if (!files.length) throw new Error('PANDECTA_BENCH_BIB names files of BibTeX');
const STYLE = process.env.PANDECTA_BENCH_STYLE ?? 'chicago-author-date';
const show = process.env.SHOW;
const chance = new Chance(7);
const english = englishWords();
const texts = files.map((f) => readFileSync(f, 'utf8'));
const all = texts.flatMap((t) => readBibtex(t).sources.map((s) => s.record));
const { xml, language } = styleRules(STYLES_FOLDER, STYLE);
const citer = new Citer(xml, (l) => localeXml(STYLES_FOLDER, l), language);
const usesFor = usesByKind(citer);
const among = amongOf(all);
const look = (record: SourceRecord): Finding[] =>
  proof({ record, among, english, uses: usesFor(record.type), thisYear: 2026 });
const percent = (n: number, of: number): string => (of ? `${((100 * n) / of).toFixed(1)} %` : '–');

const valueOf = (r: SourceRecord, f: string): unknown => (r as unknown as Record<string, unknown>)[f] ?? null;
/** The same whatever the order of the parts of a name. */
const plainly = (v: unknown): string =>
  JSON.stringify(v, (_, x: unknown) =>
    x && typeof x === 'object' && !Array.isArray(x) ? Object.entries(x).sort() : x,
  ).toLowerCase();
/** Faults that bring words of their own: there is nothing to go back to. */
const ADDS = new Set(['body as person', 'suffix in the family name', 'particle in the given name', 'edition in words', 'entities left', 'LaTeX left', 'mangled characters', 'pinpoint as page', 'statute as case', 'parallel citation']); // prettier-ignore

// 1. Faults.
const SAMPLE = 60;
const lines: (string | number)[][] = [];
let [found, planted] = [0, 0];
for (const fault of Object.keys(PLANTS)) {
  let [hit, n, mends, right] = [0, 0, 0, 0];
  for (let tries = 0; tries < 4000 && n < SAMPLE; tries += 1) {
    const record = chance.pick(all);
    const made = plant(fault, record, chance);
    if (!made) continue;
    const before = new Set(look(record).map((f) => `${f.rule} ${f.field}`));
    if (made.fields.some((f) => [...before].some((b) => b.endsWith(` ${f}`)))) continue;
    n += 1;
    const after = look(made.record).filter((f) => made.fields.includes(f.field) && f.severity !== 'look');
    const sure = after.filter((f) => f.mend && f.sure >= SURE);
    if (sure.length && !ADDS.has(fault)) {
      mends += 1;
      // A mend gives back what stood there before.
      const fixed = mended({ record: made.record, among, english, uses: usesFor(made.record.type), thisYear: 2026 });
      const back = made.fields.every((f) => plainly(valueOf(fixed, f)) === plainly(valueOf(record, f)));
      if (back) right += 1;
      else if (show === 'mends')
        console.log(
          fault,
          ...made.fields.map((f) =>
            [valueOf(record, f), valueOf(made.record, f), valueOf(fixed, f)].map((v) => JSON.stringify(v)).join(' → '),
          ),
        );
    }
    if (after.length) hit += 1;
    else if (show === 'missed') console.log(fault, JSON.stringify(made.fields.map((f) => (made.record as never)[f])));
  }
  found += hit;
  planted += n;
  lines.push([fault, String(n), percent(hit, n), mends ? percent(right, mends) : '–']);
}
lines.push(['all', String(planted), percent(found, planted), '']);
table(`Planted faults found (${STYLE})`, ['fault', 'planted', 'found', 'mended as it was'], lines);

// 2. False alarms: on records pandoc prints as we do, nothing should look wrong.
const pool = chance.some(all, 600).map((r, i) => ({ ...r, id: `r${i}` }));
const items = pool.map((r) => toCslItem({ record: r, subjects: [] }, r.id));
const rules = join(mkdtempSync(join(tmpdir(), 'pandecta-')), 'style.csl');
writeFileSync(rules, xml);
const html = execFileSync('pandoc', ['-f', 'csljson', '-t', 'html', '--citeproc', `--csl=${rules}`], { input: JSON.stringify(items), maxBuffer: 1 << 28 }).toString(); // prettier-ignore
const theirs = new Map(
  [...html.matchAll(/<div id="ref-(r\d+)"[^>]*>([\s\S]*?)<\/div>/g)].map((m) => [m[1]!, plain(htmlToText(m[2]!))]),
);
function plain(text: string): string {
  return text
    .replace(/\s+/g, ' ')
    .replace(/[“”"‘’'\u00a0]/g, '')
    .trim();
}
const alike = pool.filter((r) => {
  const ours = citer.bibliography([{ id: r.id, record: r }]).entries[0];
  return ours && plain(ours.text) === theirs.get(r.id);
});
const alarms = alike.map((r) => look(r).filter((f) => f.severity !== 'look'));
const byRule = new Map<string, number>();
for (const [i, list] of alarms.entries())
  for (const f of list) {
    byRule.set(f.rule, (byRule.get(f.rule) ?? 0) + 1);
    if (show === 'alarms')
      console.log(
        f.rule,
        f.what,
        JSON.stringify(f.mend),
        JSON.stringify({ ...alike[i], abstract: undefined, custom: undefined, note: undefined }).slice(0, 400),
      );
  }
table(`Findings (wrong, looks wrong) on ${alike.length} of ${pool.length} records that pandoc prints alike`, ['rule', 'records', 'share'], [
  ...[...byRule].sort((a, b) => b[1] - a[1]).map(([rule, n]) => [rule, String(n), percent(n, alike.length)]),
  ['any', String(alarms.filter((a) => a.length).length), percent(alarms.filter((a) => a.length).length, alike.length)],
]); // prettier-ignore

// 3. Sentence case.
const WORDS = /[\p{L}\p{N}][\p{L}\p{N}'’.-]*/gu;
const known = texts.flatMap(knownTitles).filter((t) => !isTitleCase(t.right) && !isShouting(t.typed));
const share = (titles: KnownTitle[], to: (typed: string[]) => string[], from: (t: KnownTitle) => string): string => {
  let [right, words] = [0, 0];
  const done = to(titles.map(from));
  for (const [i, t] of titles.entries()) {
    const [a, b] = [[...(done[i] ?? '').matchAll(WORDS)], [...t.right.matchAll(WORDS)]];
    if (a.length !== b.length) continue;
    for (const [k, w] of b.entries()) {
      // What follows a colon is a matter of style.
      if (k > 0 && /[:?!.]\s*["“'‘(]*$/.test(t.right.slice(0, w.index))) continue;
      words += 1;
      if (a[k]![0] === w[0]) right += 1;
    }
  }
  return percent(right, words);
};
const byPandoc = (typed: string[]): string[] => {
  const bib = typed.map((t, i) => `@book{k${i}, title = {${t.replace(/[{}\\%#$&_~^]/g, ' ')}}}`).join('\n');
  const items = JSON.parse(execFileSync('pandoc', ['-f', 'bibtex', '-t', 'csljson'], { input: bib, maxBuffer: 1 << 28 }).toString()) as { id: string; title?: string }[]; // prettier-ignore
  const by = new Map(items.map((i) => [i.id, (i.title ?? '').replace(/<[^>]+>/g, '')]));
  return typed.map((_, i) => by.get(`k${i}`) ?? '');
};
const ours = (typed: string[]): string[] => typed.map((t) => sentenceCase(t, { english }));
table(`Words of ${known.length} titles in their right case`, ['titles', 'here', 'pandoc'], [
  ['as typed', share(known, ours, (t) => t.typed), share(known, byPandoc, (t) => t.typed)],
  ['set in title case', share(known, ours, (t) => inCase(t.right, 'title')), share(known, byPandoc, (t) => inCase(t.right, 'title'))],
  ['set in capitals', share(known, ours, (t) => t.right.toUpperCase()), share(known, byPandoc, (t) => t.right.toUpperCase())],
]); // prettier-ignore

// 4. Mangled characters: UTF-8 taken for another encoding, once and twice; and nothing sound harmed.
const accented = [...new Set(all.flatMap((r) => [r.title ?? '', ...(r.author ?? []).map((n) => n.family ?? '')]).filter((t) => /[^\x00-\x7f]/.test(t)))]; // prettier-ignore
const mangle = (text: string, as: string): string => new TextDecoder(as).decode(new TextEncoder().encode(text));
const kinds: [string, (t: string) => string][] = [
  ['windows-1252', (t) => mangle(t, 'windows-1252')],
  ['ISO 8859-1', (t) => Buffer.from(t, 'utf8').toString('latin1')],
  ['windows-1252 twice', (t) => mangle(mangle(t, 'windows-1252'), 'windows-1252')],
];
table(`Mangled texts taken back, of ${accented.length}`, ['taken for', 'taken back'], [
  ...kinds.map(([name, spoil]) => [name, percent(accented.filter((t) => repairEncoding(spoil(t)) === t).length, accented.length)]),
  ['sound: left as it is', percent(accented.filter((t) => repairEncoding(t) === t).length, accented.length)],
]); // prettier-ignore

// 5. Time.
const MANY = 100_000;
const many = Array.from({ length: MANY }, (_, i) => all[i % all.length]!);
const seconds = (work: () => unknown): number => {
  const start = performance.now();
  work();
  return (performance.now() - start) / 1000;
};
const reading = seconds(() => texts.forEach((t) => readBibtex(t))) * (MANY / all.length);
let n = 0;
const proofing = seconds(() => {
  const among = amongOf(many);
  for (const record of many) n += proof({ record, among, english, uses: usesFor(record.type), thisYear: 2026 }).length;
});
table(`Time of ${formatNumber(MANY)} records, in seconds`, ['work', 'seconds'], [
  ['reading them (BibTeX)', reading],
  ['proofing them', proofing],
  ['findings', n],
]); // prettier-ignore
