/**
 * Page labels against the example of ISO 32000-1, 12.4.2 (i, ii, iii, iv, 1, 2, 3, A-8, A-9, …); Roman numerals against the usual
 * table (common practice).
 */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Page } from '../documents/index.ts';
import {
  candidatesOf,
  citedPage,
  citedPages,
  citedPlace,
  fromRoman,
  locatorOf,
  numberedParagraphs,
  NO_NUMBERING,
  numberIn,
  pageNamed,
  paragraphAt,
  paragraphCandidates,
  placeWritten,
  printedRuns,
  roman,
  runFrom,
  runOf,
  type Candidate,
  type NumberedParagraph,
  type NumberRun,
} from './index.ts';

const run = (page: number, start: number, style: NumberRun['style'] = 'decimal', prefix = ''): NumberRun => ({
  page,
  style,
  prefix,
  start,
});
const shown = (runs: NumberRun[], pages: number[]): string[] => pages.map((p) => numberIn(runOf(runs, p)!, p));

describe('numbers', () => {
  test('of the standard’s example are i to iv, 1 to 3, A-8 on', () => {
    const runs = [run(1, 1, 'roman'), run(5, 1), run(8, 8, 'decimal', 'A-')];
    expect(shown(runs, [1, 2, 3, 4, 5, 6, 7, 8, 9])).toEqual(['i', 'ii', 'iii', 'iv', '1', '2', '3', 'A-8', 'A-9']);
  });

  test('in letters go from z to aa, bb', () =>
    expect(shown([run(1, 25, 'LETTERS')], [1, 2, 3, 4])).toEqual(['Y', 'Z', 'AA', 'BB']));

  test.each([
    [1, 'i'],
    [4, 'iv'],
    [9, 'ix'],
    [14, 'xiv'],
    [40, 'xl'],
    [99, 'xcix'],
    [444, 'cdxliv'],
    [1994, 'mcmxciv'],
  ])('%i is %s in Roman', (n, text) => expect([roman(n), fromRoman(text.toUpperCase())]).toEqual([text, n]));

  test('are read back from what is written, and what nobody writes is none', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 3999 }), (n) => fromRoman(roman(n)) === n));
    expect(['iiii', 'vx', '', 'civil', '12'].map(fromRoman)).toEqual(Array(5).fill(undefined));
  });

  test.each([
    ['12', run(3, 12)],
    ['xii', run(3, 12, 'roman')],
    ['A-3', run(3, 3, 'decimal', 'A-')],
    ['II', run(3, 2, 'ROMAN')],
  ])('“%s” written for a page goes on from there', (text, expected) => expect(runFrom(3, text)).toEqual(expected));

  test('of what is no number are none', () => expect(['cover', '', '?'].map((t) => runFrom(1, t))).toEqual([undefined, undefined, undefined])); // prettier-ignore
});

describe('the page that is cited', () => {
  const numbers = (known: Partial<typeof NO_NUMBERING>, record: string | undefined, count: number) =>
    citedPages({ ...NO_NUMBERING, ...known }, record, count);

  test('is that of the labels, unless they merely count', () => {
    const labels = [run(1, 1, 'roman'), run(3, 1)];
    expect(numbers({ labels }, '201-210', 10)).toEqual({ runs: labels, origin: 'labels' });
    expect(numbers({ labels: [run(1, 1)] }, '201-210', 10).origin).toBe('record');
  });

  test.each([
    ['201–229', 29, '201'],
    ['201-29', 29, '201'],
    ['201', 29, '201'],
  ])('is counted from the first of the record’s pages: %s', (record, count, first) =>
    expect(citedPage(numbers({}, record, count), 1)).toBe(first),
  );

  test('is not the record’s where the file has other pages than the work', () =>
    expect(citedPage(numbers({}, '201–229', 40), 1)).toBe('1'));

  test('is the printed one where a cover stands before the first, and the cover has its count in brackets', () => {
    const cited = numbers({ printed: [run(2, 201)] }, '201–229', 30);
    expect([cited.origin, citedPage(cited, 1), citedPage(cited, 2), citedPage(cited, 30)]).toEqual([
      'printed',
      '[1]',
      '201',
      '229',
    ]);
  });

  test('is as a person says, before and after the page they said it of', () => {
    const cited = numbers({ byHand: [run(5, 12)], labels: [run(1, 1, 'roman')] }, undefined, 20);
    expect([1, 4, 5, 6].map((p) => citedPage(cited, p))).toEqual(['8', '11', '12', '13']);
    const front = numbers({ byHand: [run(1, 1, 'roman'), run(9, 1)] }, undefined, 20);
    expect([1, 8, 9, 20].map((p) => citedPage(front, p))).toEqual(['i', 'viii', '1', '12']);
    const late = numbers({ byHand: [run(9, 1)], labels: [run(1, 1, 'roman')] }, undefined, 20);
    expect([8, 9].map((p) => citedPage(late, p))).toEqual(['viii', '1']);
  });

  test('is found by its number, else by its count', () => {
    const cited = numbers({ labels: [run(1, 1, 'roman'), run(5, 1)] }, undefined, 30);
    expect(['iii', 'p. 2', '26', '30', 'xx', '[4]'].map((t) => pageNamed(cited, t, 30))).toEqual([
      3,
      6,
      30,
      30,
      undefined,
      4,
    ]);
  });
});

describe('leaves', () => {
  test('are cited by their sides: recto and verso', () => {
    expect([1, 2, 3, 24].map((page) => numberIn(run(1, 1, 'folio'), page))).toEqual(['1r', '1v', '2r', '12v']);
    expect([runFrom(4, '12r'), runFrom(4, 'f. 12v')]).toEqual([run(4, 23, 'folio'), run(4, 24, 'folio')]);
  });

  test('are written with f., pages with p., and a page without a number is no locator', () => {
    expect(['12r', '212', 'para 33', '[4]'].map(placeWritten)).toEqual(['f. 12r', 'p. 212', 'para 33', 'p. [4]']);
    expect(['12r', '212', 'para 33', '[4]'].map(locatorOf)).toEqual([
      { label: 'folio', locator: '12r' },
      { locator: '212' },
      { label: 'paragraph', locator: '33' },
      {},
    ]);
  });
});

/** Since 2001 judgments count their paragraphs in square brackets, and are cited by them (common practice). */
describe('numbered paragraphs', () => {
  const at = (number: number, page: number, y: number): NumberedParagraph => ({ number, page, y });
  const six = [at(1, 1, 100), at(2, 1, 300), at(3, 2, 80), at(4, 2, 200), at(5, 2, 400), at(6, 4, 90)];

  test('count from 1 on, whatever lists begin anew among them', () => {
    const list = [at(1, 2, 220), at(9, 2, 240)];
    expect(numberedParagraphs([...six.slice(0, 4), ...list, ...six.slice(4)])).toEqual(six);
  });

  test('are none where there are a few, or where most are missing', () => {
    expect(numberedParagraphs(six.slice(0, 4))).toEqual([]);
    expect(numberedParagraphs([at(7, 1, 10), at(8, 1, 20), at(9, 1, 30), at(10, 1, 40), at(11, 1, 50)])).toEqual([]);
  });

  test('are what a place is cited by: the last that began before it', () => {
    const cited = { ...numbers, paragraphs: six };
    const places = [[1, 50], [1, 100], [1, 310], [2, 10], [3, 10], [4, 500]].map(([page, y]) => citedPlace(cited, page!, y)); // prettier-ignore
    expect(places).toEqual(['1', 'para 1', 'para 2', 'para 2', 'para 5', 'para 6']);
    expect(['para 3', '[5]', '¶6', '3'].map((said) => pageNamed(cited, said, 9))).toEqual([2, 2, 4, 3]);
  });

  test('however many there are, each place is in the one before it', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(600), { minLength: 5, maxLength: 60 }), (gaps) => {
        let down = 0;
        const all = gaps.map((gap, i) => {
          down += gap + 20;
          return at(i + 1, 1 + Math.floor(down / 700), down % 700);
        });
        expect(numberedParagraphs(all)).toEqual(all);
        for (const p of all) expect(paragraphAt(all, p.page, p.y + 5)).toBe(p.number);
      }),
    );
  });

  test.each(['[33]', '33.', '33'])('“%s” at the beginning of a line may be one', (text) => {
    const page = { number: 3, text, lines: [{ words: [{ start: 0, end: text.length }], box: { y0: 90.4 } }] };
    expect(paragraphCandidates(page as unknown as Page)).toEqual([at(33, 3, 90)]);
  });
});

const numbers = { runs: [run(1, 1)], origin: 'counted' as const };

describe('numbers printed on the pages', () => {
  const d = (number: number): Candidate => ({ style: 'decimal', number });
  const r = (number: number): Candidate => ({ style: 'roman', number });

  test('are those that go up with the pages, whatever else stands there', () => {
    const pages = [[d(2014), d(201)], [d(22), d(202)], [], [d(204)], [d(3), d(205)]];
    expect(printedRuns(pages)).toEqual([run(1, 201)]);
  });

  test('may be Roman at first, and then begin anew', () => {
    const pages = [[], [r(2)], [r(3)], [r(4)], [], [d(2)], [d(3)], [d(4)], [d(5)]];
    expect(printedRuns(pages)).toEqual([run(1, 1, 'roman'), run(5, 1)]);
  });

  test('may be Roman on so few pages that only what stands before page 1 says so', () => {
    expect(printedRuns([[], [r(1)], [r(2)], [], [d(1)], [d(2)], [d(3)]])).toEqual([run(1, 1, 'roman', ''), run(5, 1)].map((x, i) => (i ? x : { ...x, page: 2 }))); // prettier-ignore
    expect(printedRuns([[], [r(2)], [d(1)], [d(2)], [d(3)]])).toEqual([run(1, 1, 'roman'), run(3, 1)]);
    expect(printedRuns([[], [], [r(1)], [], [d(1)], [d(2)], [d(3)]])).toEqual([run(5, 1)]);
  });

  test('may have a word before them', () => {
    const of = (number: number): Candidate => ({ style: 'decimal', prefix: 'DAFX-', number });
    expect(shown(printedRuns([[of(17)], [of(18)], [of(19)]]), [1, 3])).toEqual(['DAFX-17', 'DAFX-19']);
  });

  test('of two pages by chance are none', () => expect(printedRuns([[d(7)], [], [], [d(10)], [], [], []])).toEqual([]));

  test('of a document whose every page has one are found, whatever it begins with', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 900 }), fc.integer({ min: 3, max: 60 }), (first, count) => {
        const pages = Array.from({ length: count }, (_, i) => [d(first + i), d(1987)]);
        expect(shown(printedRuns(pages), [1, count])).toEqual([String(first), String(first + count - 1)]);
      }),
    );
  });

  test('stand at head or foot of a page, alone, at the end of a line, or as “Page 3 of 30”', () => {
    const page = (...lines: string[]): Page =>
      ({
        text: '',
        lines: lines.map((text, i) => ({
          text,
          words: [],
          box: { x0: 0, x1: 9, y0: i * 20, y1: i * 20 + 10 },
          size: 10,
        })),
      }) as unknown as Page;
    const body = ['In 1974 the gate', 'was shut 41 times', 'and opened 40', 'as before'];
    expect(candidatesOf(page('Water and Shore Law', ...body, '– 212 –')).map((c) => c.number)).toContain(212);
    expect(candidatesOf(page('212 Okonjo and Tregenza', ...body)).map((c) => c.number)).toContain(212);
    expect(candidatesOf(page('Report', ...body, 'Page 3 of 30')).map((c) => c.number)).toContain(3);
    expect(candidatesOf(page('A', 'B', 'in 1974', 'shut 41', 'Gate', 'Hour')).map((c) => c.number)).toEqual([]);
    expect(candidatesOf(page('A', 'B', 'C', 'D', 'xii'))).toContainEqual(r(12));
  });
});
