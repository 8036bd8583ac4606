/** The reports of a case as a list of fields, and as text. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readReference } from '../references/index.ts';
import { isCourt, readReports, reportsToText, yearBeforeNumber, yearOf, type Report } from './index.ts';

describe('reports are read from the text they are printed as', () => {
  // Forms of the law's guides, from memory (common practice).
  test.each<[string, Report[]]>([
    ['[1987] 2 WLR 30', [{ year: '[1987]', volume: '2', 'container-title': 'WLR', page: '30' }]],
    ['26 DLR (4th) 200', [{ volume: '26', 'container-title': 'DLR (4th)', page: '200' }]],
    [
      '1932 SC (HL) 31, 40 (HL)',
      [{ year: '1932', 'container-title': 'SC (HL)', page: '31', locator: '40', authority: 'HL' }],
    ],
    ['[2008] UKHL 13, [12]', [{ year: '[2008]', 'container-title': 'UKHL', page: '13', locator: '[12]' }]],
    ['109 S. Ct. 2533 at 2540', [{ volume: '109', 'container-title': 'S. Ct.', page: '2533', locator: '2540' }]],
    [
      "[1995] 2 Lloyd's Rep 1; (1998) 26 EHRR 1",
      [
        { year: '[1995]', volume: '2', 'container-title': "Lloyd's Rep", page: '1' },
        { year: '(1998)', volume: '26', 'container-title': 'EHRR', page: '1' },
      ],
    ],
    [
      '162 N.E. 99, 59 A.L.R. 1253',
      [
        { volume: '162', 'container-title': 'N.E.', page: '99' },
        { volume: '59', 'container-title': 'A.L.R.', page: '1253' },
      ],
    ],
  ])('%s', (text, reports) => expect(readReports(text)).toEqual(reports));

  test('what is none is kept as it was written', () => {
    expect(readReports('The Times, 12 May 1987')).toEqual([{ 'container-title': 'The Times, 12 May 1987' }]);
    expect(reportsToText(readReports('noted in the Sallow Gazette; [1987] 2 WLR 30'))).toBe(
      'noted in the Sallow Gazette; [1987] 2 WLR 30',
    );
  });

  const number = (most: number) => fc.integer({ min: 1, max: most }).map(String);
  const report = fc
    .record(
      {
        year: fc
          .tuple(fc.integer({ min: 1700, max: 2029 }), fc.constantFrom('[]', '()'))
          .map(([y, [a, b]]) => a! + y + b!),
        volume: number(999),
        'container-title': fc.constantFrom(
          'AC',
          'All ER',
          'Est R',
          'DLR (4th)',
          'N.Y.2d',
          "Lloyd's Rep",
          'EWCA Civ',
          'SC (HL)',
        ),
        page: number(99_999),
        locator: fc.oneof(
          number(9999),
          number(99).map((n) => `[${n}]`),
        ),
        authority: fc.constantFrom('CA', 'D.C. Cir.', 'HL', 'Vale Assize'),
      },
      { requiredKeys: ['container-title', 'page'] },
    )
    // Without a year a number before the series is its volume.
    .map((r) => r as Report);

  test('a list written as text is read as it was, whatever of its fields are filled', () => {
    fc.assert(
      fc.property(fc.array(report, { minLength: 1, maxLength: 5 }), (reports) => {
        expect(readReports(reportsToText(reports))).toEqual(reports);
      }),
      { numRuns: 500 },
    );
  });

  test('any text keeps all its letters', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        const bare = (t: string): string => t.replace(/[\s;,]|\bat /g, '');
        expect(bare(reportsToText(readReports(text)))).toBe(bare(text));
      }),
    );
  });
});

describe('a pasted case with several reports', () => {
  test.each([
    ['Re Withy (1987) 12 Est R 114, [1987] 2 WLR 30 (CA)', '12', '[1987] 2 WLR 30', 'CA'],
    ['Palsgraf v. Long Island R.R., 248 N.Y. 339, 162 N.E. 99 (1928)', '248', '162 N.E. 99', undefined],
    ['R v Oakes [1986] 1 SCR 103, 26 DLR (4th) 200', '1', '26 DLR (4th) 200', undefined],
  ])('%s has them as its other reports', (text, volume, parallel, authority) => {
    expect(readReference(text).record).toMatchObject({
      type: 'legal_case',
      volume,
      parallel,
      ...(authority && { authority }),
    });
  });

  test('a pinpoint is none', () => {
    expect(readReference('Donoghue v Stevenson [1932] AC 562 (HL), 580').record.parallel).toBeUndefined();
    expect(readReference('Miranda v. Arizona, 384 U.S. 436, 440 (1966)').record.parallel).toBeUndefined();
  });
});

test('the year finds the volume of some series, and dates the cases of others', () => {
  expect(yearOf('A.C.', '1', 2002)).toBe('square');
  expect(yearOf('CLR', '175', 1992)).toBe('round');
  expect(yearOf('U.S.', '347', 1954)).toBe('behind');
  expect(yearOf('Wils KB', '2', 1765)).toBe('round');
  expect(yearOf('Sallow Rep', '2', 1990)).toBeUndefined();
});

test('a court that numbers its judgments has its year before the number, in Canada without brackets', () => {
  expect(['UKSC', 'EWCA Civ', 'SCC', 'NTSC', 'AC', 'Est R'].map(isCourt)).toEqual([
    true,
    true,
    true,
    true,
    false,
    false,
  ]);
  expect([yearBeforeNumber('UKSC', 2015), yearBeforeNumber('SCC', 2008)]).toEqual(['[2015]', '2008']);
});
