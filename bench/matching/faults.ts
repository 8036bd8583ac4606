/** What happens to a record on its way from catalogue to catalogue: the faults the weights are fitted on. */
import type { Name, SourceRecord } from '@pandecta/core/source';
import type { Chance } from '@pandecta/demo/random';

type Fault = (r: SourceRecord, c: Chance) => SourceRecord;
const on =
  (field: keyof SourceRecord, make: (text: string, c: Chance) => string): Fault =>
  (r, c) =>
    typeof r[field] === 'string' ? { ...r, [field]: make(r[field] as string, c) } : r;
const without =
  (...fields: string[]): Fault =>
  (r) =>
    Object.fromEntries(Object.entries(r).filter(([f]) => !fields.includes(f))) as SourceRecord;
const names =
  (make: (list: Name[], c: Chance) => Name[]): Fault =>
  (r, c) => {
    const field = r.author ? 'author' : 'editor';
    return r[field]?.length ? { ...r, [field]: make(r[field], c) } : r;
  };

export function slip(text: string, c: Chance): string {
  const places = [...text.matchAll(/\p{L}/gu)].map((m) => m.index);
  if (places.length < 6) return text;
  const at = c.pick(places);
  const letter = 'etaoinshrdlu'[c.int(0, 12 - 1)]!;
  switch (c.int(0, 4 - 1)) {
    case 0:
      return text.slice(0, at) + text.slice(at + 1);
    case 1:
      return text.slice(0, at) + letter + text.slice(at);
    case 2:
      return text.slice(0, at) + letter + text.slice(at + 1);
    default:
      return text.slice(0, at) + (text[at + 1] ?? '') + text[at]! + text.slice(at + 2);
  }
}
const initials = (n: Name): Name =>
  n.given ? { ...n, given: n.given.replace(/(\p{L})[\p{L}'’]*\.?/gu, '$1.').replace(/\.-/g, '.-') } : n;

export const FAULTS: Record<string, Fault> = {
  capitals: on('title', (t) => t.toUpperCase()),
  small: on('title', (t) => t.toLowerCase()),
  subtitle: on('title', (t) => t.split(/[:?]\s/)[0]!),
  slip: on('title', slip),
  slips: on('title', (t, c) => slip(slip(t, c), c)),
  word: on('title', (t, c) => {
    const words = t.split(' ');
    return words.length > 4 ? words.toSpliced(c.int(0, words.length - 1), 1).join(' ') : t;
  }),
  punctuation: on('title', (t) => t.replace(/[^\p{L}\p{N}\s]/gu, ' ').replace(/\s+/g, ' ')),
  entity: on('title', (t) => t.replace(/\band\b/, '&amp;').replace(/[éèüöä]/g, (x) => `&#${x.codePointAt(0)};`)),
  accents: (r) => JSON.parse(JSON.stringify(r).normalize('NFD').replace(/\p{M}/gu, '')) as SourceRecord,
  mangled: on('title', (t) => Buffer.from(t, 'utf8').toString('latin1')),
  latex: on('title', (t) => t.replace(/[éüö]/g, (x) => ({ é: "{\\'e}", ü: '{\\"u}', ö: '{\\"o}' })[x]!)),
  initials: names((l) => l.map(initials)),
  firstInitial: names((l) => l.map((n) => (n.given ? { ...n, given: n.given[0]! } : n))),
  etAl: names((l) => (l.length > 1 ? [l[0]!, { literal: 'et al.' }] : l)),
  firstAlone: names((l) => l.slice(0, 1)),
  swapped: names((l) => l.map((n) => (n.given && n.family ? { family: n.given, given: n.family } : n))),
  familySlip: names((l, c) => l.map((n, i) => (i === 0 && n.family ? { ...n, family: slip(n.family, c) } : n))),
  noPeople: without('author', 'editor'),
  noYear: without('issued'),
  yearOff: (r, c) => {
    const y = r.issued?.['date-parts']?.[0]?.[0];
    return y ? { ...r, issued: { 'date-parts': [[y + (c.odds(0.7) ? 1 : -1)]] } } : r;
  },
  noContainer: without('container-title'),
  short: on(
    'container-title',
    (t) =>
    t.split(' ').filter((w) => !/^(?:of|the|and|for|in|on)$/i.test(w)).map((w) => (w.length > 6 ? `${w.slice(0, 4)}.` : w)).join(' '), // prettier-ignore
  ),
  noPlace: without('volume', 'issue', 'page'),
  noPages: without('page'),
  noVolume: without('volume', 'issue'),
  firstPage: on('page', (t) => t.split(/[-–]/)[0]!),
  shortPages: on('page', (t) => {
    const [a, b] = t.split(/[-–]+/);
    return a && b && a.length === b.length && a[0] === b[0] && a.length > 1 ? `${a}-${b.slice(1)}` : t;
  }),
  noIds: without('DOI', 'ISBN', 'ISSN', 'PMID', 'URL'),
  noDoi: without('DOI'),
  noPublisher: without('publisher', 'publisher-place'),
  document: (r) => ({ ...r, type: 'document' }),
  article: (r) => (r.type === 'book' || r.type === 'report' ? { ...r, type: 'document' } : r),
};

export function spoil(record: SourceRecord, c: Chance, most: number): SourceRecord {
  let r = record;
  const kinds = Object.values(FAULTS);
  for (let i = c.int(0, most + 1 - 1); i > 0; i -= 1) r = c.pick(kinds)(r, c);
  return r.title ? r : { ...r, title: record.title! };
}
