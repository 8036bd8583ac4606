import edtf from 'edtf';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  dateShort,
  dateTrouble,
  dateToEdtf,
  findKinds,
  isFieldValue,
  lastDayOf,
  likeThis,
  nameInverted,
  nameSpoken,
  namesShort,
  parseDate,
  parseName,
  partOf,
  partsOfKind,
  readingsOf,
  variablesOf,
  withoutMarkup,
  yearOf,
  type SourceRecord,
} from './index.ts';

describe('dates', () => {
  // The first rows are examples of ISO 8601-2 (EDTF), levels 0 and 1, as the Library of Congress publishes them.
  test.each([
    ['1985-04-12', [[1985, 4, 12]]],
    ['1985-04', [[1985, 4]]],
    ['1985', [[1985]]],
    ['1964/2008', [[1964], [2008]]],
    [
      '2004-06/2006-08',
      [
        [2004, 6],
        [2006, 8],
      ],
    ],
    ['1984?', [[1984]]],
    ['2004-06~', [[2004, 6]]],
    [
      '1984-06-02?/2004-08-08~',
      [
        [1984, 6, 2],
        [2004, 8, 8],
      ],
    ],
    ['1985-04-12/..', [[1985, 4, 12], [0]]],
    ['1985/', [[1985], [0]]],
    // EDTF counts a year 0, CSL does not: -0044 is 45 BC (the BibLaTeX manual, 2.3.8, has -0876 as 877 BC).
    ['-0044-03-15', [[-45, 3, 15]]],
    ['0000', [[-1]]],
    ['44 BC', [[-44]]],
    ['44 B.C.E.', [[-44]]],
    ['18 Feb 1872', [[1872, 2, 18]]],
    ['February 18, 1872', [[1872, 2, 18]]],
    ['Feb. 1872', [[1872, 2]]],
    ['1871–1874', [[1871], [1874]]],
    ['1871-1874', [[1871], [1874]]],
    ['c. 1870', [[1870]]],
    ['20140302', [[2014, 3, 2]]],
    ['2014/3/2', [[2014, 3, 2]]],
  ])('%s', (text, parts) => expect(parseDate(text)?.['date-parts']).toEqual(parts));

  test('a season is kept as one, an impossible or unreadable date as it was typed', () => {
    expect(parseDate('2001-21')).toEqual({ 'date-parts': [[2001]], season: 1 });
    expect(parseDate('autumn 1872')).toEqual({ 'date-parts': [[1872]], season: 3 });
    expect(parseDate('2014-02-30')).toEqual({ literal: '2014-02-30' });
    expect(parseDate('in the year of the flood')).toEqual({ literal: 'in the year of the flood' });
  });

  test('what is written as EDTF, the edtf package reads as the same date, and so do we', () => {
    const day = fc.tuple(
      fc.integer({ min: 1000, max: 2100 }),
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 1, max: 28 }),
    );
    expect((edtf(dateToEdtf({ 'date-parts': [[-877]] })) as { values: number[] }).values).toEqual([-876]);
    expect(parseDate(dateToEdtf({ 'date-parts': [[1999, 4], [0]] }))).toEqual({ 'date-parts': [[1999, 4], [0]] });
    fc.assert(
      fc.property(day, fc.integer({ min: 1, max: 3 }), fc.boolean(), (parts, precision, circa) => {
        const date = { 'date-parts': [parts.slice(0, precision)], ...(circa ? { circa: true } : {}) };
        const text = dateToEdtf(date);
        const theirs = edtf(text) as { values: number[] };
        // The package counts months from 0.
        expect(theirs.values.map((v, i) => (i === 1 ? v + 1 : v))).toEqual(date['date-parts'][0]);
        expect(parseDate(text)).toEqual(date);
      }),
    );
  });

  test('as people read them', () => {
    expect(dateShort({ 'date-parts': [[1872, 2, 18]] })).toBe('18 Feb 1872');
    expect(dateShort({ 'date-parts': [[1871], [1874]], circa: true })).toBe('c. 1871–1874');
    expect(dateShort({ 'date-parts': [[-44, 3, 15]] })).toBe('15 Mar 44 BC');
    expect(dateShort({ 'date-parts': [[1999], [0]] })).toBe('1999–');
    expect(yearOf({ literal: 'spring of 1872' })).toBe(1872);
  });
});

describe('names', () => {
  test.each([
    ['Okonjo, Marit', { family: 'Okonjo', given: 'Marit' }],
    ['Wilhelmina van der Zande', { given: 'Wilhelmina', 'non-dropping-particle': 'van der', family: 'Zande' }],
    ['de Groot, Renske', { 'non-dropping-particle': 'de', family: 'Groot', given: 'Renske' }],
    ['Ottery, Amos, Jr.', { family: 'Ottery', given: 'Amos', suffix: 'Jr.' }],
    ['Amos Ottery III', { given: 'Amos', family: 'Ottery', suffix: 'III' }],
    ['{Harbour Commission}', { literal: 'Harbour Commission' }],
    ['Plato', { family: 'Plato' }],
  ])('%s', (text, name) => expect(parseName(text)).toEqual(name));

  test('in a list and in speech', () => {
    const name = parseName('van der Zande, Wilhelmina');
    expect([nameInverted(name), nameSpoken(name)]).toEqual(['van der Zande, Wilhelmina', 'Wilhelmina van der Zande']);
    expect(namesShort(['A', 'B', 'C', 'D'].map((family) => ({ family })))).toBe('A and 3 others');
  });
});

test('kinds are found by name, beginning and stamp; each offers its own fields', () => {
  expect(['case', 'Ar', 'journal article', 'article-journal', 'book', 'zzz'].map(findKinds)).toEqual([
    ['legal_case'],
    ['article-journal'],
    ['article-journal'],
    ['article-journal'],
    ['book'],
    [],
  ]);
  expect(findKinds('article')).toEqual(expect.arrayContaining(['article', 'article-journal', 'article-newspaper']));
  expect(variablesOf('legal_case')).toContain('authority');
  expect(variablesOf('article-journal')).not.toContain('authority');
});

test('a field takes only values of its shape', () => {
  expect(isFieldValue('author', [{ family: 'X' }])).toBe(true);
  for (const [field, value] of [
    ['author', 'X'],
    ['author', [{ familie: 'X' }]],
    ['issued', { 'date-parts': [['x']] }],
    ['type', 'tome'],
    ['unheard-of', 'x'],
    ['title', 3],
  ] as const)
    expect(isFieldValue(field, value)).toBe(false);
});

test('markup is left out where plain text is wanted, and angle brackets that are text stay', () => {
  expect(withoutMarkup('<i>Salicornia</i>, H<sub>2</sub>O, <span class="nocase">de</span> <sc>ad</sc>')).toBe(
    'Salicornia, H2O, de ad',
  );
  expect(withoutMarkup('if x < y and z > y, then <indeed>')).toBe('if x < y and z > y, then <indeed>');
});

describe('a new record made of one that is here', () => {
  const book: SourceRecord = {
    type: 'book',
    title: 'Saltmarsh ecology',
    author: [{ family: 'Ito', given: 'Kenzo' }],
    editor: [{ family: 'Vance', given: 'Ines' }],
    publisher: 'Withy University Press',
    issued: { 'date-parts': [[2001]] },
    ISBN: '9780152038656',
    DOI: '10.5555/ecology',
    page: '400',
    custom: { ris: [] },
  };

  test('like it has all that may be the same, and nothing that belongs to that work alone', () => {
    const { title, ISBN, DOI, custom, ...rest } = book;
    expect([title, ISBN, DOI, custom].every(Boolean)).toBe(true);
    expect(likeThis(book)).toEqual({ ...rest, title: 'Like: Saltmarsh ecology' });
  });

  test('that is a part of it stands in it, and has its publisher, date and number', () => {
    expect(partOf(book, 'chapter')).toEqual({
      type: 'chapter',
      title: 'Part of: Saltmarsh ecology',
      'container-title': 'Saltmarsh ecology',
      'container-author': book.author,
      editor: book.editor,
      publisher: book.publisher,
      issued: book.issued,
      ISBN: book.ISBN,
    });
    const letter = partOf(
      { type: 'collection', title: 'Papers of the Harbour Board', archive: 'County Archive' },
      'personal_communication',
    );
    expect(letter).toMatchObject({ archive_collection: 'Papers of the Harbour Board', archive: 'County Archive' });
    expect(partsOfKind('book')[0]).toBe('chapter');
  });
});

test.each([
  ['2027-03-31', '2027-03-31'],
  ['2027-02', '2027-02-28'],
  ['2028', '2028-12-31'],
  ['2026-11-01/2027-01-15', '2027-01-15'],
  ['until further notice', undefined],
])('the last day of %s is %s', (text, day) => expect(lastDayOf(parseDate(text))).toBe(day));

describe('dates that are asked about', () => {
  test.each([
    ['1871/72', [[1871], [1872]], [], ''],
    ['1903/04', [[1903, 4]], ['1903-04', '1903/1904'], ''],
    ['yesterday', undefined, ['2026-11-30'], 'Not read as a date'],
    ['31 Feb 2020', undefined, [], 'February 2020 has 29 days'],
    ['2021-02-29', undefined, [], 'February 2021 has 28 days'],
    ['sometime in 1872', undefined, [], 'Not read as a date; it counts as 1872'],
    ['n.d.', undefined, [], ''],
    ['forthcoming', undefined, [], ''],
  ])('%s', (text, parts, readings, trouble) => {
    expect(parseDate(text)?.['date-parts']).toEqual(parts);
    expect(readingsOf(text, '2026-12-01')).toEqual(readings);
    expect(dateTrouble(text)).toBe(trouble);
  });

  test('what was read is in no trouble, whatever it is', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), (text) => {
        if (parseDate(text)?.['date-parts']) expect(dateTrouble(text)).toBe('');
      }),
    );
  });

  test('both ends of two years in one sort by the first', () => {
    expect(yearOf(parseDate('1871/72'))).toBe(1871);
  });
});
