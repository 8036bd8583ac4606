/**
 * Examples of the CSL 1.0.2 specification (citationstyles.org, "Specification"; from memory where the wording is not
 * at hand), each through a style of a few lines.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { Citer } from './index.ts';

const locale = (l: string): string =>
  readFileSync(`/usr/share/citation-style-language/locales/locales-${l}.xml`, 'utf8');

/** A style whose bibliography holds the given layout. */
function style(layout: string, attributes = ''): string {
  return `<?xml version="1.0" encoding="utf-8"?>
<style xmlns="http://purl.org/net/xbiblio/csl" class="in-text" version="1.0" default-locale="en-US" ${attributes}>
  <info><title>Test</title><id>test</id><updated>2020-01-01T00:00:00+00:00</updated></info>
  <citation><layout><text variable="title"/></layout></citation>
  <bibliography><layout>${layout}</layout></bibliography>
</style>`;
}

const print = (xml: string, record: Partial<SourceRecord>): string =>
  new Citer(xml, locale).bibliography([{ id: 'a', record: { type: 'book', ...record } }]).entries[0]?.text.trim() ?? '';

const page = '<text variable="page"/>';

describe('page ranges (Appendix V)', () => {
  test.each([
    ['expanded', '42-45', '42–45'],
    ['expanded', '321-28', '321–328'],
    ['expanded', '2787-816', '2787–2816'],
    ['minimal', '42-45', '42–5'],
    ['minimal', '321-328', '321–8'],
    ['minimal', '2787-2816', '2787–816'],
    ['minimal-two', '42-45', '42–45'],
    ['minimal-two', '321-328', '321–28'],
    ['minimal-two', '2787-2816', '2787–816'],
    ['chicago', '3-10', '3–10'],
    ['chicago', '71-72', '71–72'],
    ['chicago', '100-104', '100–104'],
    ['chicago', '600-613', '600–613'],
    ['chicago', '1100-1123', '1100–1123'],
    ['chicago', '107-108', '107–8'],
    ['chicago', '505-517', '505–17'],
    ['chicago', '1002-1006', '1002–6'],
    ['chicago', '321-325', '321–25'],
    ['chicago', '415-532', '415–532'],
    ['chicago', '11564-11568', '11564–68'],
    ['chicago', '13792-13803', '13792–803'],
  ])('%s: %s is printed %s', (format, given, printed) => {
    expect(print(style(page, `page-range-format="${format}"`), { page: given })).toBe(printed);
  });
});

describe('names', () => {
  const vincent = { author: [{ family: 'Gogh', given: 'Vincent', 'non-dropping-particle': 'van' }] };
  const names = (attributes: string): string => `<names variable="author"><name ${attributes}/></names>`;

  test.each([
    ['never', 'van Gogh, Vincent'],
    ['display-and-sort', 'Gogh, Vincent van'],
  ])('with particles demoted %s: %s', (demote, printed) => {
    const xml = style(names('name-as-sort-order="all"'), `demote-non-dropping-particle="${demote}"`);
    expect(print(xml, vincent)).toBe(printed);
  });

  test('a dropping particle stands behind the given name, a suffix behind a comma', () => {
    const xml = style(names('name-as-sort-order="all"'));
    expect(print(xml, { author: [{ family: 'Humboldt', given: 'Alexander', 'dropping-particle': 'von' }] })).toBe(
      'Humboldt, Alexander von',
    );
    expect(print(xml, { author: [{ family: 'King', given: 'Martin Luther', suffix: 'Jr.' }] })).toBe(
      'King, Martin Luther, Jr.',
    );
  });

  const many = Array.from({ length: 10 }, (_, i) => ({ family: `N${i + 1}`, given: 'A' }));
  // With et-al-min one more than et-al-use-first, citeproc prints one name fewer before the ellipsis than pandoc does;
  // the styles that use the last name leave two between them.
  test('many are cut where the style says, or end in the last one after an ellipsis', () => {
    const cut = 'form="short" et-al-min="8" et-al-use-first="6"';
    expect(print(style(names(cut)), { author: many })).toBe('N1, N2, N3, N4, N5, N6, et al.');
    expect(print(style(names(`${cut} et-al-use-last="true"`)), { author: many })).toBe('N1, N2, N3, N4, N5, N6, … N10');
  });

  test.each([
    ['contextual', 2, 'N1 and N2'],
    ['contextual', 3, 'N1, N2, and N3'],
    ['always', 2, 'N1, and N2'],
    ['never', 3, 'N1, N2 and N3'],
  ])('the delimiter before the last is %s with %i names', (precedes, count, printed) => {
    const xml = style(names(`form="short" and="text" delimiter-precedes-last="${precedes}"`));
    expect(print(xml, { author: many.slice(0, count) })).toBe(printed);
  });

  test('given names become initials as the style has them', () => {
    const author = [{ family: 'Guerrier', given: 'Jean-Luc A.' }];
    expect(print(style(names('initialize-with="."')), { author })).toBe('J.-L.A. Guerrier');
    expect(print(style(names('initialize-with=". "'), 'initialize-with-hyphen="false"'), { author })).toBe(
      'J. L. A. Guerrier',
    );
  });
});

describe('numbers and labels', () => {
  test.each([
    ['1', '1st'],
    ['2', '2nd'],
    ['3', '3rd'],
    ['11', '11th'],
    ['22', '22nd'],
    ['113', '113th'],
  ])('edition %s is the %s', (edition, printed) => {
    expect(print(style('<number variable="edition" form="ordinal"/>'), { edition })).toBe(printed);
  });

  test.each([
    ['12', 'p. 12'],
    ['12-15', 'pp. 12–15'],
    ['12, 15', 'pp. 12, 15'],
  ])('the label of pages %s is in the right number', (given, printed) => {
    expect(print(style(`<label variable="page" form="short" suffix=" "/>${page}`), { page: given })).toBe(printed);
  });

  test('Roman numerals', () => {
    expect(print(style('<number variable="volume" form="roman"/>'), { volume: '14' })).toBe('xiv');
  });
});

describe('dates', () => {
  const date = '<date variable="issued" form="text" date-parts="year-month-day"/>';
  test.each([
    [[[2014, 5, 1]], 'May 1, 2014'],
    [[[2014, 5]], 'May 2014'],
    [[[2014]], '2014'],
    [
      [
        [2008, 11, 3],
        [2008, 11, 7],
      ],
      'November 3–7, 2008',
    ],
    [[[-43, 3, 15]], 'March 15, 43BC'],
  ])('%j', (parts, printed) => {
    expect(print(style(date), { issued: { 'date-parts': parts as [number][] } })).toBe(printed);
  });
});

test('title case leaves stop words and words with capitals of their own alone', () => {
  expect(
    print(style('<text variable="title" text-case="title"/>'), {
      title: 'the closing of a gate with pH in the water of the lower reach',
    }),
  ).toBe('The Closing of a Gate with pH in the Water of the Lower Reach');
});
