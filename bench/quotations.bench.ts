/**
 * The check of quotations: stretches of 8 to 40 words cut from real documents, left as they are or altered in one of five ways,
 * each with what is right to say of it. Reference: a plain search for the characters on the page.
 *
 * unchanged: `yes`; hyphenated (a word parted by a hyphen and a line end): `yes`; two words left out: `nearly`; one word
 * replaced by another of the document: `nearly`; another page named: `no`, and the page is found where the words stand on one
 * page alone; another document: `no`.
 */
import { checkQuotation, type Checked } from '@pandecta/core/notes';
import { pdfPages } from '@pandecta/debian/poppler';
import { Chance } from '@pandecta/demo/random';
import { table } from './measure.ts';
import { folderOfDocuments, percent, realDocuments } from './reading/documents.ts';

const WANTED = Number(process.env.PANDECTA_BENCH_EACH ?? 2000);
const HALF = process.env.PANDECTA_BENCH_HALF ?? 'unseen';
const WAYS = ['unchanged', 'hyphenated', 'two words left out', 'a word replaced', 'another page', 'another document'] as const; // prettier-ignore
type Way = (typeof WAYS)[number];
const RIGHT: Record<Way, Checked['stands']> = { unchanged: 'yes', hyphenated: 'yes', 'two words left out': 'nearly', 'a word replaced': 'nearly', 'another page': 'no', 'another document': 'no' }; // prettier-ignore

const chance = new Chance(2026);
interface Read {
  path: string;
  pages: { number: number; text: string }[];
}
const documents: Read[] = [];
for (const { path, half } of realDocuments(folderOfDocuments())) {
  if (half !== HALF || documents.length >= 60) continue;
  const pages: Read['pages'] = [];
  try {
    for await (const { number, text } of pdfPages(path)) if (pages.push({ number, text }) >= 30) break;
  } catch {
    // A file that poppler does not read is no document.
    continue;
  }
  if (pages.filter((p) => p.text.split(/\s+/).length > 80).length >= 3) documents.push({ path, pages });
}
if (documents.length < 2) throw new Error('too few documents with text');

const bare = (word: string): string => word.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
const count = new Map<Way, { right: number; of: number; plain: number; called: number; wrong: string[] }>(WAYS.map((way) => [way, { right: 0, of: 0, plain: 0, called: 0, wrong: [] }])); // prettier-ignore
for (let n = 0; n < WANTED; n += 1) {
  const way = WAYS[n % WAYS.length]!;
  const doc = chance.pick(documents);
  const long = doc.pages.filter((p) => p.text.split(/\s+/).length > 80);
  const page = chance.pick(long);
  const words = page.text.split(/\s+/).filter(Boolean);
  const length = chance.int(8, 40);
  const from = chance.int(0, words.length - length - 1);
  const cut = words.slice(from, from + length);
  // A stretch of signs and numbers is no quotation.
  if (cut.filter((x) => /\p{L}{3}/u.test(x)).length < length * 0.6) {
    n -= 1;
    continue;
  }
  let quoted = cut;
  let { number } = page;
  let pages = doc.pages;
  if (way === 'hyphenated') {
    const at = cut.findIndex((x) => /^\p{L}{6,}$/u.test(x));
    if (at < 0) {
      n -= 1;
      continue;
    }
    quoted = cut.with(at, `${cut[at]!.slice(0, 3)}-\n${cut[at]!.slice(3)}`);
  } else if (way === 'two words left out') {
    const at = chance.int(2, length - 4);
    quoted = cut.filter((_, i) => i !== at && i !== at + 2);
    if (!bare(cut[at]!) && !bare(cut[at + 2]!)) continue;
  } else if (way === 'a word replaced') {
    const at = chance.int(1, length - 2);
    const other = words.find((x, i) => i !== from + at && bare(x) && bare(x) !== bare(cut[at]!));
    if (!other || !bare(cut[at]!)) continue;
    quoted = cut.with(at, other);
  } else if (way === 'another page') {
    const all = (text: string): string => text.split(/\s+/).map(bare).filter(Boolean).join(' '); // prettier-ignore
    const sought = all(cut.join(' '));
    // Headers and tables of contents stand on many: of what stands on the other page too it is no other.
    const others = doc.pages.filter((p) => Math.abs(p.number - page.number) > 1 && !all(p.text).includes(sought));
    if (!others.length) continue;
    number = chance.pick(others).number;
  } else if (way === 'another document') {
    const other = chance.pick(documents.filter((d) => d !== doc));
    [pages, number] = [other.pages, chance.pick(other.pages).number];
  }
  const text = quoted.join(' ');
  const { stands } = checkQuotation(text, pages, number);
  const tally = count.get(way)!;
  tally.of += 1;
  if (stands === RIGHT[way]) tally.right += 1;
  else tally.wrong.push(`${stands}: ${text.slice(0, 100)}`);
  if (stands === 'yes') tally.called += 1;
  const flat = (t: string): string => t.replace(/\s+/g, ' ');
  const found = flat(pages.find((p) => p.number === number)?.text ?? '').includes(flat(text));
  if (found === (RIGHT[way] === 'yes')) tally.plain += 1;
}
const lines = [...count].map(([way, t]) => [way, String(t.of), percent(t.right, t.of), String(t.called), percent(t.plain, t.of)]); // prettier-ignore
const all = [...count.values()].reduce((a, t) => ({ right: a.right + t.right, of: a.of + t.of }), { right: 0, of: 0 });
lines.push(['all', String(all.of), percent(all.right, all.of), '', '']);
table(`Quotations cut from ${documents.length} documents (${HALF} half)`, ['way', 'of', 'right', 'called right', 'plain search: there or not'], lines); // prettier-ignore
if (process.env.SHOW)
  for (const [way, { wrong }] of count) wrong.slice(0, 12).forEach((x) => console.log(`${way}: ${x}`));
