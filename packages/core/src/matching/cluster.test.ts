import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { anySource } from '../testing/index.ts';
import { compare, matchAll } from './index.ts';
import { distance, nearly } from './near.ts';
import { romanOf } from './counts.ts';

const article: SourceRecord = {
  type: 'article-journal',
  title: 'Sediment starvation behind permanently closed tidal barriers',
  author: [
    { family: 'Vance', given: 'Solveig' },
    { family: 'Ito', given: 'Ren' },
  ],
  'container-title': 'Coastal Processes',
  volume: '41',
  issue: '3',
  page: '311-328',
  issued: { 'date-parts': [[2011]] },
};
const clusters = (...records: SourceRecord[]): number[] => [...matchAll(records).clusterOf];
const together = (a: SourceRecord, b: SourceRecord): boolean => new Set(clusters(a, b)).size === 1;

describe('one work', () => {
  test.each<[string, Partial<SourceRecord>]>([
    ['in capitals, with initials and no stops', { title: article.title!.toUpperCase(), author: [{ family: 'VANCE', given: 'S' }, { family: 'ITO', given: 'R' }] }], // prettier-ignore
    ['with typing faults', { title: 'Sedimnet starvation behind permanently closd tidal barriers' }],
    ['with names the wrong way round', { author: [{ family: 'Solveig', given: 'Vance' }, { family: 'Ren', given: 'Ito' }] }], // prettier-ignore
    ['with the first author alone', { author: [{ family: 'Vance', given: 'S.' }, { literal: 'et al.' }] }],
    ['with its journal abbreviated and the last page shortened', { 'container-title': 'Coast. Proc.', page: '311-28' }],
    ['with the journal in initials', { 'container-title': 'CP' }],
    ['with entities, tags and mangled letters', { title: '<i>Sediment</i> starvation behind permanently closed tidal barriers &#8211; cafÃ©'.replace(' &#8211; cafÃ©', '') }], // prettier-ignore
    ['a year later in print', { issued: { 'date-parts': [[2012]] } }],
    ['of a kind nobody said', { type: 'document', volume: '41(3)' }],
    ['with hardly anything but title and first author', { 'container-title': undefined, volume: undefined, issue: undefined, page: undefined, author: [{ family: 'Vance' }] } as never], // prettier-ignore
  ])('%s is one', (_, more) => {
    expect(together(article, { ...article, ...more })).toBe(true);
  });
});

describe('what looks alike and is not', () => {
  const with_ = (more: Partial<SourceRecord>, of = article): SourceRecord => ({ ...of, ...more });
  const elsewhere = { page: '401-420', volume: '42', issued: { 'date-parts': [[2012]] } } as Partial<SourceRecord>;
  const book: SourceRecord = { type: 'book', title: 'Who closes the gate', author: [{ family: 'Okonjo', given: 'Marit' }], publisher: 'Tern Press', edition: '2', issued: { 'date-parts': [[2010]] } }; // prettier-ignore
  test.each<[string, SourceRecord, SourceRecord]>([
    ['parts I and II', with_({ title: `${article.title}: Part I` }), with_({ title: `${article.title}: Part II`, ...elsewhere })], // prettier-ignore
    ['an erratum', article, with_({ title: `Erratum: ${article.title}`, ...elsewhere })],
    ['a mistyped erratum', article, with_({ title: `Corrigednum: ${article.title}`, ...elsewhere })],
    ['a reply by others', article, with_({ title: `Reply to “${article.title}”`, author: [{ family: 'Quill' }], ...elsewhere })], // prettier-ignore
    ['two editions', book, with_({ edition: '3', issued: { 'date-parts': [[2016]] } }, book)],
    ['two volumes of a set', with_({ volume: '1' }, book), with_({ volume: '2' }, book)],
    ['yearly reports', { type: 'report', title: 'Annual gauge report 1988', author: [{ literal: 'Estuary Board' }] }, { type: 'report', title: 'Annual gauge report 1989', author: [{ literal: 'Estuary Board' }] }], // prettier-ignore
    ['the same parties in another year', { type: 'legal_case', title: 'Okonjo v Port of Northmere', 'container-title': 'Est R', volume: '2', page: '11', issued: { 'date-parts': [[1987]] } }, { type: 'legal_case', title: 'Okonjo v Port of Northmere', 'container-title': 'Est R', volume: '3', page: '70', issued: { 'date-parts': [[1989]] } }], // prettier-ignore
    ['letters of one correspondent', { type: 'personal_communication', title: 'Letter to the Commissioners', author: [{ family: 'Vance' }], issued: { 'date-parts': [[1872, 3, 1]] } }, { type: 'personal_communication', title: 'Letter to the Commissioners', author: [{ family: 'Vance' }], issued: { 'date-parts': [[1872, 3, 9]] } }], // prettier-ignore
    ['chapters of one book', { type: 'chapter', title: 'Gates of the north', 'container-title': 'Tides', ISBN: '9783161484100', page: '1-20', author: [{ family: 'Vance' }] }, { type: 'chapter', title: 'Silt and its uses', 'container-title': 'Tides', ISBN: '9783161484100', page: '21-40', author: [{ family: 'Vance' }] }], // prettier-ignore
    ['two introductions', with_({ title: 'Introduction' }), with_({ title: 'Introduction', 'container-title': 'Harbour History', author: [{ family: 'Quill' }], ...elsewhere })], // prettier-ignore
    ['a review of a book', book, { type: 'review-book', title: 'Who closes the gate', author: [{ family: 'Quill' }], 'container-title': 'Harbour History', issued: { 'date-parts': [[2011]] } }], // prettier-ignore
  ])('%s are two', (_, a, b) => {
    expect(together(a, b)).toBe(false);
  });

  test('a cluster is never made over a record that fits two that contradict each other', () => {
    const one = { ...book, edition: '2' };
    const other = { ...book, edition: '3', issued: { 'date-parts': [[2016]] } } as SourceRecord;
    const { edition: _, issued: __, ...unsaid } = book;
    const [a, b, c] = clusters(one, unsaid as SourceRecord, other);
    expect(a === b && b === c).toBe(false);
  });
});

test('in whatever order records come, the same are found together', () => {
  const set = [article, { ...article, title: article.title!.toUpperCase() }, { ...article, title: `${article.title}, part II`, page: '1-9' }]; // prettier-ignore
  fc.assert(
    fc.property(fc.shuffledSubarray(set, { minLength: 3 }), (order) => {
      const found = clusters(...order);
      expect(found[order.indexOf(set[0]!)]).toBe(found[order.indexOf(set[1]!)]);
      expect(found[order.indexOf(set[2]!)]).not.toBe(found[order.indexOf(set[0]!)]);
    }),
  );
});

test('any two records are compared alike from both sides, and any with itself is no other work', () => {
  fc.assert(
    fc.property(anySource, anySource, ({ record: a }, { record: b }) => {
      expect(compare(a, b).probability).toBeCloseTo(compare(b, a).probability, 9);
    }),
  );
});

// The distance of Damerau and Levenshtein, restricted: the textbook's "CA" to "ABC" is 3 in it (common knowledge).
test('one slip makes no other word, and digits are never slips', () => {
  expect([distance('ca', 'abc', 9), distance('barrier', 'barreir', 9), distance('silt', 'salt', 9)]).toEqual([3, 1, 1]);
  expect([nearly('sediment', 'sedimnet'), nearly('gate', 'gat'), nearly('1987', '1988'), nearly('cat', 'bat')]).toEqual(
    [true, true, false, false],
  );
});

test.each([
  ['iv', 4],
  ['xix', 19],
  ['xliv', 44],
  ['cc', 200],
  ['iiii', 0],
  ['gate', 0],
  ['', 0],
])('%s is %d', (text, n) => {
  expect(romanOf(text)).toBe(n);
});
