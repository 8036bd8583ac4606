/** Works that look alike and are not: pairs of sound records, by family. */
import type { SourceRecord } from '@pandecta/core/source';
import type { Chance } from '@pandecta/demo/random';

export type Family = (
  r: SourceRecord,
  c: Chance,
  pool: readonly SourceRecord[],
) => [SourceRecord, SourceRecord] | undefined;

const yearOf = (r: SourceRecord): number => r.issued?.['date-parts']?.[0]?.[0] ?? 1990;
const inYear = (r: SourceRecord, y: number): SourceRecord => ({ ...r, issued: { 'date-parts': [[y]] } });
const bare = (r: SourceRecord): SourceRecord => {
  const out = { ...r };
  for (const f of ['DOI', 'ISBN', 'PMID', 'URL', 'ISSN'] as const) delete out[f];
  return out;
};
const page = (n: number): string => `${n}-${n + 12}`;
const shift = (r: SourceRecord, c: Chance): SourceRecord => ({ ...bare(r), page: page(100 + c.int(0, 800 - 1)) });
const isArticle = (r: SourceRecord): boolean => r.type === 'article-journal' && Boolean(r['container-title']);

/** A name of its own for each, so that no two pairs are of one work. */
const placeOf = (r: SourceRecord): string => (r.title ?? '').split(' ').filter((w) => w.length > 3).slice(0, 2).join(' '); // prettier-ignore

/** Families the weights are fitted on. */
export const SEEN: Record<string, Family> = {
  parts: (r, c) => {
    const [a, b] = c.pick([['I', 'II'], ['1', '2'], ['II', 'III'], ['one', 'two']]); // prettier-ignore
    const lead = c.pick([': Part ', ', part ', '. ']);
    return [
      { ...bare(r), title: `${r.title}${lead}${a}` },
      { ...shift(r, c), title: `${r.title}${lead}${b}` },
    ];
  },
  partAndWhole: (r, c) => [bare(r), { ...shift(r, c), title: `${r.title}, part II` }],
  yearly: (r, c) => {
    const y = 1950 + c.int(0, 60 - 1);
    const of = (n: number): SourceRecord => ({ ...inYear(bare(r), n + 1), type: 'report', title: `Annual report of the ${placeOf(r)} survey ${n}`, author: [{ literal: `${placeOf(r)} Estuary Board` }] }); // prettier-ignore
    return [of(y), of(y + 1 + c.int(0, 3 - 1))];
  },
  edition: (r, c) =>
    r.type !== 'book' ? undefined : [{ ...bare(r), edition: '2' }, { ...inYear(bare(r), yearOf(r) + 3 + c.int(0, (6) - 1)), edition: '3' }], // prettier-ignore
  chapters: (r, c, pool) => {
    const other = c.pick(pool);
    const whole = {
      type: 'chapter' as const,
      'container-title': c.pick(pool).title!,
      ISBN: '9783161484100',
      publisher: 'Reed',
    };
    return [
      { ...inYear({ ...whole, title: r.title!, page: page(10) }, yearOf(r)), ...(r.author && { author: r.author }) },
      {
        ...inYear({ ...whole, title: other.title!, page: page(60) }, yearOf(r)),
        ...(r.author && c.odds(0.5) && { author: r.author }),
      },
    ];
  },
  erratum: (r, c) => [r, { ...inYear(shift(r, c), yearOf(r) + c.int(0, (2) - 1)), title: `${c.pick(['Erratum', 'Correction to', 'Corrigendum'])}: ${r.title}` }], // prettier-ignore
  review: (r, c, pool) =>
    r.type !== 'book' ? undefined : [r, { ...inYear(bare(r), yearOf(r) + 1), type: 'review-book', 'container-title': 'Harbour History', volume: '12', page: page(40 + c.int(0, (300) - 1)), ...(c.pick(pool).author && { author: c.pick(pool).author! }) }], // prettier-ignore
  generic: (r, c, pool) => {
    const title = c.pick([
      'Introduction',
      'Editorial',
      'Preface',
      'Book reviews',
      'Letters',
      'Conclusion',
      'Discussion',
    ]);
    const other = c.pick(pool);
    return [
      { ...shift(r, c), title },
      { ...shift(other, c), title },
    ];
  },
  sameTitle: (r, c, pool) => {
    const other = c.pick(pool);
    return other.author && r.author
      ? [r, { ...shift(other, c), volume: String(c.int(1, 90)), title: r.title! }]
      : undefined;
  },
  sibling: (r, c, pool) => {
    const words = (r.title ?? '').split(' ');
    if (words.length < 5 || !isArticle(r)) return undefined;
    const theirs = (c.pick(pool).title ?? '').split(' ');
    const half = Math.ceil(words.length / 2);
    return [r, { ...shift(r, c), title: [...words.slice(0, half), ...theirs.slice(0, Math.max(3, words.length - half))].join(' ') }]; // prettier-ignore
  },
  cases: (r, c) => {
    const of = (y: number, v: number): SourceRecord => ({ type: 'legal_case', title: `${placeOf(r)} v Port of Northmere`, 'container-title': 'Estuary Reports', volume: String(v), page: String(c.int(0, (900) - 1) + 1), issued: { 'date-parts': [[y]] } }); // prettier-ignore
    const y = yearOf(r);
    return [of(y, 3), of(y + 1 + c.int(0, 3 - 1), 4)];
  },
  samePersonYear: (r, c, pool) => {
    const other = c.pick(pool);
    return r.author
      ? [
          r,
          {
            ...shift(other, c),
            volume: String(c.int(1, 90)),
            author: r.author,
            issued: r.issued ?? { 'date-parts': [[1990]] },
          },
        ]
      : undefined;
  },
};

/** Families held out whole. */
export const UNSEEN: Record<string, Family> = {
  reply: (r, c, pool) =>
    isArticle(r) ? [r, { ...inYear(shift(r, c), yearOf(r) + 1), title: `${c.pick(['Reply to', 'Comment on', 'A response to'])} “${r.title}”`, ...(c.pick(pool).author && { author: c.pick(pool).author! }) }] : undefined, // prettier-ignore
  volumes: (r) =>
    r.type !== 'book'
      ? undefined
      : [
          { ...r, volume: '1' },
          { ...r, volume: '2' },
        ],
  proceedings: (r, c) => {
    const n = 3 + c.int(0, 20 - 1);
    const of = (k: number): SourceRecord => ({ type: 'book', title: `Proceedings of the ${k}th Conference on ${(r.title ?? '').split(' ').slice(0, 4).join(' ')}`, issued: { 'date-parts': [[1970 + k]] }, publisher: 'Reed' }); // prettier-ignore
    return [of(n), of(n + 1)];
  },
  letters: (r, c) => {
    const of = (m: number, d: number): SourceRecord => ({ type: 'personal_communication', title: `Letter to the Commissioners of ${placeOf(r)}`, ...(r.author && { author: r.author.slice(0, 1) }), issued: { 'date-parts': [[1872, m, d]] } }); // prettier-ignore
    const m = 1 + c.int(0, 10 - 1);
    return [of(m, 3), of(m + 1, 3 + c.int(0, 20 - 1))];
  },
  posts: (r, c) => {
    const of = (k: number): SourceRecord => ({ type: 'post-weblog', title: `${(r.title ?? '').split(' ').slice(0, 5).join(' ')} (${k})`, ...(r.author && { author: r.author }), 'container-title': 'Tide Notes', issued: { 'date-parts': [[2019, k, 2]] } }); // prettier-ignore
    const k = 1 + c.int(0, 8 - 1);
    return [of(k), of(k + 1)];
  },
  reports: (r, c) => {
    const of = (k: number): SourceRecord => ({ ...inYear(bare(r), yearOf(r)), type: 'report', genre: 'Technical report', number: `TR-${k}`, title: `${r.title} ${1900 + (k % 100)}` }); // prettier-ignore
    const k = 20 + c.int(0, 70 - 1);
    return [of(k), of(k + 1)];
  },
  supplement: (r, c) => (isArticle(r) ? [r, { ...shift(r, c), title: `Supplement to ${r.title}` }] : undefined),
  namesakes: (r, c, pool) => {
    const other = c.pick(pool);
    const who = r.author?.[0];
    if (!who?.family || !who.given || !r.title || !isArticle(r)) return undefined;
    const words = r.title.split(' ');
    const theirs = (other.title ?? '').split(' ');
    return [r, { ...shift(other, c), author: [{ family: who.family, given: c.pick(['Zachary', 'Yvonne', 'Xenia']) }], title: [...words.slice(0, 3), ...theirs].join(' '), issued: r.issued ?? { 'date-parts': [[1990]] } }]; // prettier-ignore
  },
};
