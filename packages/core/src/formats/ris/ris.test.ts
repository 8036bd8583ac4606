import { expect, test } from 'vitest';
import { decodeText, readRis, writeSources } from '../index.ts';

const entry = (...lines: string[]) => readRis(['TY  - JOUR', ...lines, 'ER  - '].join('\r\n')).sources[0]!;

test('an entry of the specification is read into CSL variables', () => {
  const { record, subjects } = entry(
    'AU  - Okonjo, Marit',
    'A1  - Ottery, Amos, Jr.',
    'TI  - Silent Licences',
    'JF  - Journal of Water and Shore Law',
    'JA  - J. Water Shore L.',
    'VL  - 12',
    'IS  - 3',
    'SP  - 201',
    'EP  - 229',
    'PY  - 2014',
    'DO  - https://doi.org/10.5555/JWSL.2014',
    'SN  - 2049-3630',
    'KW  - Licences',
    'KW  - Tides',
  );
  expect(record).toMatchObject({
    type: 'article-journal',
    author: [
      { family: 'Okonjo', given: 'Marit' },
      { family: 'Ottery', given: 'Amos', suffix: 'Jr.' },
    ],
    title: 'Silent Licences',
    'container-title': 'Journal of Water and Shore Law',
    'container-title-short': 'J. Water Shore L.',
    volume: '12',
    issue: '3',
    page: '201-229',
    issued: { 'date-parts': [[2014]] },
    DOI: '10.5555/JWSL.2014',
    ISSN: '2049-3630',
  });
  expect(subjects).toEqual(['Licences', 'Tides']);
});

test.each([
  ['PY  - 1872/02/18/', [[1872, 2, 18]]],
  ['Y1  - 1872/02//', [[1872, 2]]],
  ['PY  - 1872///spring', [[1872]]],
  ['DA  - 1872-02-18', [[1872, 2, 18]]],
])('the date of %s', (line, parts) => expect(entry(line).record.issued?.['date-parts']).toEqual(parts));

test('the fullest of several dates that agree is taken', () => {
  expect(entry('PY  - 1999', 'DA  - 1999/07/04/').record.issued).toEqual({ 'date-parts': [[1999, 7, 4]] });
});

test('what a date, pages or a case say beyond the variables is kept', () => {
  const article = entry('Y1  - 2005/03//Easter issue', 'SP  - 100-110', 'EP  - 112', 'SP  - 201').record;
  expect(article).toMatchObject({ issued: { 'date-parts': [[2005, 3]] }, page: '100-110' });
  expect(article.custom?.ris).toEqual([
    ['SP', '201'],
    ['EP', '112'],
    ['Y1', '2005/03//Easter issue'],
  ]);
  const { record } = readRis('TY  - CASE\nTI  - A v B\nA2  - Sallow Reports\nVL  - 3\nPB  - Shore Court\nER  - ')
    .sources[0]!;
  expect(record).toMatchObject({ 'container-title': 'Sallow Reports', authority: 'Shore Court', volume: '3' });
  expect(record.editor).toBeUndefined();
});

test('a missing end, a missing type and wrapped lines are read, and reported with their line', () => {
  const read = readRis(
    'TY  - BOOK\nTI  - A title that\nruns on\nTY  - JOUR\nTI  - Second\nER  - \nTI  - Third, without a type\nER  - ',
  );
  expect(read.sources.map((s) => s.record.title)).toEqual(['A title that runs on', 'Second', 'Third, without a type']);
  expect(read.messages.map((m) => [m.rule, m.line])).toEqual([
    ['missing-end', 4],
    ['missing-type', 7],
  ]);
});

test('tags nobody knows are kept and written back', () => {
  const source = entry('TI  - T', 'ZZ  - something of their own', 'M1  - 77');
  expect(source.record.custom?.ris).toEqual([
    ['ZZ', 'something of their own'],
    ['M1', '77'],
  ]);
  expect(writeSources([source], 'ris')).toContain('ZZ  - something of their own\r\n');
});

test('an institution has no comma and is not taken apart', () => {
  expect(entry('AU  - Northmere Hydrographic Office').record.author).toEqual([
    { literal: 'Northmere Hydrographic Office' },
  ]);
});

test('encodings are told apart by their bytes', () => {
  const utf16 = new Uint8Array([...'TY  - BOOK'].flatMap((c) => [c.charCodeAt(0), 0]));
  expect(decodeText(utf16).encoding).toBe('utf-16le');
  expect(decodeText(new Uint8Array([0xef, 0xbb, 0xbf, 0x54])).encoding).toBe('utf-8');
  expect(decodeText(new Uint8Array([0x4d, 0xfc, 0x93, 0x94]))).toEqual({ text: 'Mü“”', encoding: 'windows-1252' });
});
