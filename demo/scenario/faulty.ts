/** What the inquiry has twice, what only looks so, and records with the faults such records have. */
import type { Name, SourceRecord } from '@pandecta/core/source';
import { WIDER } from './wider.ts';

const initials = (names: Name[] = []): Name[] =>
  names.map((n) => (n.given ? { ...n, given: n.given.replace(/(\p{L})[\p{L}’]*/gu, '$1.') } : n));
const swapped = (names: Name[] = []): Name[] =>
  names.map((n) => (n.given && n.family ? { family: n.given, given: n.family } : n));
const short = (journal = ''): string =>
  journal.replace(/\b(?:of|and|the)\b\s?/g, '').replace(/(\p{L}{4})\p{L}{2,}/gu, '$1.');
const of = (records: readonly { record: SourceRecord }[], n: number): SourceRecord => {
  const {
    abstract: _a,
    DOI: _d,
    ISBN: _i,
    'citation-key': _k,
    custom: _c,
    ...rest
  } = records[n % records.length]!.record;
  return rest as SourceRecord;
};
const articles = WIDER.filter((s) => s.record.type === 'article-journal' && s.record.volume);
const books = WIDER.filter((s) => s.record.type === 'book');
const title = (r: SourceRecord): string => r.title ?? '';
const year = (r: SourceRecord): number => r.issued?.['date-parts']?.[0]?.[0] ?? 2000;
const inYear = (r: SourceRecord, y: number): SourceRecord => ({ ...r, issued: { 'date-parts': [[y]] } });

const [a, b, c, d, e, f, g, h] = [3, 14, 25, 36, 47, 58, 69, 80].map((n) => of(articles, n)) as [
  SourceRecord,
  SourceRecord,
  SourceRecord,
  SourceRecord,
  SourceRecord,
  SourceRecord,
  SourceRecord,
  SourceRecord, // prettier-ignore
];
const [book, other] = [of(books, 2), of(books, 7)];

/** Copies of works that are here, each spoilt in another way. */
export const COPIES: SourceRecord[] = [
  { ...a, title: title(a).toUpperCase(), author: initials(a.author) },
  { ...a, 'container-title': short(a['container-title']), page: (a.page ?? '').split('-')[0] || '1' },
  { ...b, title: title(b).replace(/(\p{L}{3})(\p{L})(\p{L})/u, '$1$3$2'), author: initials(b.author) },
  { ...inYear(c, year(c) + 1), author: [...(c.author ?? []).slice(0, 1), { literal: 'et al.' }] },
  { type: 'document', title: title(d), author: d.author ?? [] },
  { ...e, author: swapped(e.author) },
  {
    ...f,
    title: title(f).replace(/ at /, ' &amp; round ').replace(' &amp; round ', ' at '),
    'container-title': short(f['container-title']),
  },
  { ...book, title: title(book).toLowerCase(), author: initials(book.author) },
];

/** What looks like something that is here, and is another work. */
export const LOOK_ALIKES: SourceRecord[] = [
  { ...inYear(g, year(g) + 1), title: `${title(g)}, part II`, page: '401-419' },
  { ...inYear(h, year(h) + 1), title: `Erratum: ${title(h)}`, page: '88' },
  { ...inYear(other, year(other) + 6), edition: '2' },
  ...[1988, 1989].map((y): SourceRecord => ({
    type: 'report',
    title: `Annual gauge report ${y}`,
    author: [{ literal: 'Barrier Board of Sallow' }],
    publisher: 'Barrier Board of Sallow',
    'publisher-place': 'Sallow',
    issued: { 'date-parts': [[y + 1]] },
  })),
];

const base: SourceRecord = {
  type: 'article-journal',
  title: 'Notes on a regulated creek',
  author: [{ family: 'Saltholm', given: 'Bendix' }],
  'container-title': 'Estuary and Marsh',
  volume: '31',
  issue: '2',
  page: '101-119',
  issued: { 'date-parts': [[1998]] },
};

/** Each stands somewhere of its own. */
const place = (n: number): Partial<SourceRecord> => ({ volume: String(30 + n), page: `${n * 7 + 1}-${n * 7 + 19}` });

/** Each with one fault, of those proofing knows. */
export const FAULTY: SourceRecord[] = [
  { ...base, ...place(1), title: 'SILT AND SLUICES OF THE LOWER CREEK' },
  {
    ...base,
    ...place(2),
    title: 'THE HARBOUR COMMISSION AND THE FISHERMEN OF 1871',
    author: [{ family: 'FERROW', given: 'Ada' }],
  },
  { ...base, ...place(3), title: 'Marsh grasses of the outer bank', page: 'pp. 55-71' },
  { ...base, ...place(4), title: 'Wading birds and the closed gate', volume: '31(4)', issue: undefined as never },
  { ...base, ...place(5), title: 'Water levels &amp; their record' },
  { ...base, ...place(6), title: 'CrÃ©ole boats in the harbour books' },
  { ...base, ...place(7), title: 'Tide tables..  and what they leave out' },
  { ...base, ...place(8), title: 'On the keeping of gauges', page: '119-101' },
  { ...base, ...place(9), title: 'Gates that nobody shuts', author: [{ literal: 'Runa Halvard; Jonas Penhallow' }] },
  { ...base, ...place(10), title: 'A pilot’s view of the bar', author: [{ literal: 'Tregenza, Piers' }] },
  { ...base, ...place(11), title: 'Forecasts for the upper reach', issued: { 'date-parts': [[2062]] } },
  { ...base, ...place(12), title: 'Saltings in the long dry summer', DOI: 'https://doi.org/10.5555/em.1998.77' },
  { ...base, ...place(13), title: 'Brackish pools after breach', ISSN: '2434-5611' },
  { ...base, ...place(14), title: 'Soundings after the dredging', author: [{ family: 'J. R.', given: 'Halvard' }] },
  { ...base, ...place(15), title: 'The „promise“ of 1872 and what became of it' },
  {
    ...base,
    ...place(16),
    title: 'Die Gezeiten und der Schlick im Vorland',
    author: [{ family: 'Zande', given: 'Jan van der' }],
  },
  { ...base, ...place(17), title: 'Приливы у нижних ворот', DOI: '10.5555' },
  { ...base, ...place(18), title: 'RETRACTED: Recovery of the eelgrass beds' },
  { ...base, ...place(19), title: 'Ledgers of the ferry at low water', DOI: '10.5555/em.2006.133' },
  {
    ...base,
    ...place(20),
    title: 'What the gauges of the ferry tell',
    author: [{ family: 'Sálthólm', given: 'Bendix' }],
  },
  {
    type: 'book',
    title: 'The Keeper’s Handbook of Gates and Tides',
    author: [{ family: 'Board', given: 'Barrier Board of the Drainage' }],
    publisher: 'Sallow: Quillback Press',
    edition: 'Third edition',
    issued: { 'date-parts': [[1931]] },
  },
  {
    type: 'webpage',
    title: 'Closure times this week',
    URL: 'https://barrier.sallow.example/closures',
    'container-title': 'Barrier Board of Sallow',
  },
  {
    type: 'legal_case',
    title: 'Tidal Gates Act 1931',
    'container-title': 'Estuary Reports',
    page: '12, 19',
    authority: 'Court of Appeal',
    issued: { 'date-parts': [[1931]] },
  },
].map((r) => Object.fromEntries(Object.entries(r).filter(([, v]) => v !== undefined)) as SourceRecord);
