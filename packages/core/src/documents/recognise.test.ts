/**
 * What a document says of its work. Each case is a kind met in PDFs of Debian's packages (vignettes of R, samples of
 * journal classes, manuals), put into the words of the Sallow Estuary.
 */
import { describe, expect, test } from 'vitest';
import type { Name } from '../source/index.ts';
import { line, pageOf, PROSE, type TestLine } from '../testing/index.ts';
import { isUsableTitle, recognise, titleFromFileName, type Embedded } from './index.ts';
import { peopleOf, peopleOfField, personOf } from './people.ts';
import { citationLine, noticeYear, statedDate } from './printed.ts';

const of = (lines: TestLine[], embedded: Embedded = {}, ...more: TestLine[][]) =>
  recognise(
    [lines, ...more].map((l) => pageOf(...l)),
    embedded,
    'scan_01421.pdf',
  );
const families = (names: Name[] | undefined): string[] => (names ?? []).map((n) => n.family ?? n.literal ?? '');

describe('the title', () => {
  const title = (...lines: TestLine[]) => of([...lines, ...PROSE]).record.title;

  test.each<[string, TestLine[], string]>([
    [
      'of two lines',
      [line(20, 'Who closes the gate'), line(20, 'upon the ebb?'), line(11, 'Marit Okonjo')],
      'Who closes the gate upon the ebb?',
    ],
    [
      'with a word cut at the line’s end',
      [line(20, 'On the clo-'), line(20, 'sure of tidal gates')],
      'On the closure of tidal gates',
    ],
    ['with a hyphen of its own', [line(20, 'An Estuary-'), line(20, 'Oriented Study')], 'An Estuary-Oriented Study'],
    [
      'with the mark of a footnote',
      [line(20, 'A study of silt ∗'), line(20, 'in gates ^∗ and weirs')],
      'A study of silt in gates and weirs',
    ],
    [
      'under the name of its journal in larger type',
      [line(24, 'Annals of Shore Law'), line(18, 'A study of silt in gates')],
      'A study of silt in gates',
    ],
    [
      'under a line of its journal',
      [line(20, 'Coastal Processes Vol. 12, No. 3'), line(16, 'A study of silt')],
      'A study of silt',
    ],
    ['under what kind of text it is', [line(22, 'Working Paper 12'), line(16, 'A study of silt')], 'A study of silt'],
    ['beside the letters of a logo', [line(40, 'S'), line(40, 'E I'), line(16, 'A study of silt')], 'A study of silt'],
    [
      'over a heading in larger type',
      [line(12, 'A study of silt'), line(16, 'Contents'), line(15, '1', ['Introduction', 120])],
      'A study of silt',
    ],
    ['over its version', [line(20, 'Guide to the gauge'), line(20, 'Version 3.1')], 'Guide to the gauge'],
    [
      'in one size with all the rest',
      [line(10, 'A STUDY OF SILT IN GATES'), line(10, 'Marit Okonjo')],
      'A STUDY OF SILT IN GATES',
    ],
  ])('%s', (_, lines, expected) => expect(title(...lines)).toBe(expected));

  test.each(['Title of the thesis', 'No Title Given', 'Article Title', 'Your title here', 'PAPER TITLE'])(
    '“%s” of a template is none',
    (text) => expect(of([line(20, text), ...PROSE]).provenance.title!.from).toBe('file name'),
  );

  test.each([
    'Microsoft Word - draft3.docx',
    'untitled',
    'report.pdf',
    'scan 12',
    '12345',
    'tides-final',
    'No Title Given',
    'about:blank',
    'https://sallow.example/print?id=7',
  ])('the embedded title “%s” is none', (text) => expect(isUsableTitle(text, 'tides-final.pdf')).toBe(false));

  test('of the metadata is believed as far as the page bears it out', () => {
    const shown = [line(20, 'A Study of Silt'), ...PROSE];
    expect(of(shown, { title: 'A study of silt' })).toMatchObject({
      record: { title: 'A study of silt' },
      provenance: { title: { from: 'embedded metadata', sure: 0.95 } },
    });
    expect(of(shown, { title: 'Left over from a form' }).record.title).toBe('A Study of Silt');
    // A watermark is larger; a line that is the embedded title and nothing else is the title.
    expect(
      of([line(40, 'Draft copy'), line(18, 'A study of silt in gates'), ...PROSE], {
        title: 'A study of silt in gates',
      }).record.title,
    ).toBe('A study of silt in gates');
  });

  test('without any word on the pages it is the metadata’s, else the file’s name', () => {
    expect(recognise([], { title: 'A study of silt' }, 'a.pdf').record.title).toBe('A study of silt');
    expect(recognise([], {}, 'okonjo_reed+1872.pdf')).toMatchObject({
      record: { type: 'document', title: 'okonjo reed 1872' },
      provenance: { title: { from: 'file name', sure: 0.2 } },
    });
    expect(titleFromFileName('.pdf')).toBe('Untitled document');
  });
});

describe('the authors', () => {
  const authors = (lines: TestLine[], embedded: Embedded = {}) =>
    families(of([line(20, 'Who closes the gate'), ...lines, ...PROSE], embedded).record.author);

  test.each<[string, TestLine[], string[]]>([
    [
      'in a line',
      [line(11, 'Marit Okonjo, Piers Tregenza, and Wilhelmina van der Zande')],
      ['Okonjo', 'Tregenza', 'Zande'],
    ],
    [
      'with marks of their affiliations',
      [line(11, 'Marit Okonjo ^1 , Kenzo Ito ^a and Ines Vance ^d'), line(9, '^1 University of Withy')],
      ['Okonjo', 'Ito', 'Vance'],
    ],
    [
      'in a grid over the places they work at',
      [
        line(11, ['Marit Okonjo', 60], ['Kenzo Ito', 300]),
        line(11, ['University of Withy', 60], ['Trent Hydraulics Institute', 300]),
        line(11, ['Ines Vance', 60], ['Leila Samphire', 300]),
        line(11, ['Computational Hydrology', 60], ['Sallow, Westmark', 300]),
      ],
      ['Okonjo', 'Ito', 'Vance', 'Samphire'],
    ],
    [
      'under one another',
      [line(11, 'Marit Okonjo'), line(9, 'marit@sallow.example'), line(11, 'Kenzo Ito')],
      ['Okonjo', 'Ito'],
    ],
    ['in capitals', [line(11, 'MARIT OKONJO AND KENZO A. ITO')], ['Okonjo', 'Ito']],
    ['in other scripts', [line(11, '杨敬轩')], ['杨敬轩']],
    ['behind a word that says so', [line(11, 'by Marit Okonjo')], ['Okonjo']],
    ['in front of where they work', [line(11, 'Marit Okonjo, Withy University Press')], ['Okonjo']],
    ['as a body', [line(11, 'The Sallow Gauge Team')], ['The Sallow Gauge Team']],
    [
      'not a supervisor',
      [line(11, ['Author:', 60], ['Supervisor:', 300]), line(11, ['Marit Okonjo', 60], ['Kenzo Ito', 300])],
      ['Okonjo'],
    ],
    ['not the placeholders of a template', [line(11, 'First A. Author and Second B. Author')], []],
    ['not a place', [line(11, 'Technische Universität Wien'), line(11, 'Mayo Clinic')], []],
  ])('%s', (_, lines, expected) => expect(authors(lines)).toEqual(expected));

  test('of the metadata are its people, however it lists them, where the page names them', () => {
    const shown = [line(11, ['X', 60]), line(10, 'Okonjo, Ito & Vance of the Sallow')];
    expect(authors(shown, { authors: ['Marit Okonjo, Kenzo Ito and Ines Vance'] })).toEqual(['Okonjo', 'Ito', 'Vance']);
    expect(authors(shown, { authors: ['LaTeX with hyperref'] })).toEqual([]);
    expect(authors([], { authors: ['Typist, Anna'] })).toEqual([]);
  });

  test('three works in one file do not make one work of all their authors', () => {
    const { record } = of(
      [line(20, 'Who closes the gate'), line(11, 'Marit Okonjo'), ...PROSE],
      { authors: ['Marit Okonjo; Kenzo Ito; Ines Vance'] },
      [line(20, 'Silt in gates'), line(11, 'Kenzo Ito'), ...PROSE],
    );
    expect(families(record.author)).toEqual(['Okonjo']);
  });

  test('stand on the page behind a cover that has the title alone', () => {
    const { record } = of([line(24, 'Who closes the gate')], {}, [
      line(20, 'Who closes the gate'),
      line(11, 'Marit Okonjo'),
      ...PROSE,
    ]);
    expect(families(record.author)).toEqual(['Okonjo']);
  });

  test.each<[string, string[]]>([
    ['Marit Okonjo, Kenzo Ito', ['Okonjo', 'Ito']],
    ['Okonjo, Marit', ['Okonjo']],
    ['Okonjo, M., Ito, K. A.', ['Okonjo', 'Ito']],
    ['Okonjo, Marit; Ito, Kenzo', ['Okonjo', 'Ito']],
    ['Marit Okonjo and Kenzo Ito & Ines Vance', ['Okonjo', 'Ito', 'Vance']],
    ['Marit Okonjo (marit@sallow.example)', ['Okonjo']],
    ['Microsoft Office User', []],
    ['Scanner User', []],
    ['admin', []],
    ['Creator: LaTeX with hyperref', []],
  ])('a field “%s” names %j', (text, expected) => expect(families(peopleOfField(text))).toEqual(expected));

  test.each([
    'R Enthusiasts',
    'ETH Zurich',
    'Debian Project',
    'Introduction to Tides',
    'Version 3',
    'Lorem Ipsum',
    '2014',
  ])('“%s” is nobody', (text) => expect([personOf(text), peopleOf(text)]).toEqual([undefined, []]));
});

describe('the date', () => {
  test.each([
    ['May 6, 2022, v 1.0.0', [2022, 5, 6]],
    ['25 avril 2022', [2022, 4, 25]],
    ['15. Mai 2019', [2019, 5, 15]],
    ['2022/10/14', [2022, 10, 14]],
    ['(Dated: August 2010)', [2010, 8]],
    ['Soutenue le 1er janvier 2022', [2022, 1, 1]],
    ['06/16/2014', [2014]],
    ['2016 年 3 月 20 日', [2016, 3, 20]],
    ['Sallow, 2022', [2022]],
    ['Received 3 May 2021', undefined],
    ['The gate was closed in May 2004 and in June the silt had come to the upper reaches', undefined],
    ['tides 2004', undefined],
  ])('“%s”', (text, parts) => expect(statedDate(text)?.['date-parts']?.[0]).toEqual(parts));

  test('of a notice or a stamp', () => {
    expect(noticeYear('Copyright © 2014 by the authors')).toBe(2014);
    expect(noticeYear('arXiv:2101.00001v2 [physics.geo-ph] 3 Jan 2021')).toBe(2021);
    expect(noticeYear('as was shown (Okonjo 2014)')).toBeUndefined();
  });

  test('is never that of the file, nor of a sentence', () => {
    const { record } = of([
      line(20, 'Who closes the gate'),
      ...PROSE,
      line(10, 'closed in the night of May 6, 2022 as the operators had said before it'),
    ]);
    expect(record.issued).toBeUndefined();
    expect(of([line(20, 'Who closes the gate'), line(10, 'May 6, 2022'), ...PROSE]).record.issued).toEqual({
      'date-parts': [[2022, 5, 6]],
    });
  });
});

describe('the line of its periodical', () => {
  const printed = { container: 'Coastal Processes', volume: '12', issue: '3', page: '101-118', year: 2014 };
  test.each([
    ['Coastal Processes 12(3), 101–118, 2014', printed],
    ['Coastal Processes 12 (2014), 101–118', { ...printed, issue: undefined }],
    ['Coastal Processes, 12(3), 101–118, 2014', printed],
    ['Coastal Processes 2014;12(3):101–118', printed],
    ['Coastal Processes, Vol. 12, No. 3, pp. 101-118, March 2014', printed],
    ['This paper was published in the Coastal Processes 2014;12(3):101–118. doi:10.5555/x', printed],
    ['La Gaceta, Vol. 00 (0000), Núm. 0, Págs. 1–3', undefined],
    ['In 2014 the 12 gates of the estuary were closed 3 times', undefined],
  ])('“%s”', (text, expected) => expect(citationLine(text)).toEqual(expected && JSON.parse(JSON.stringify(expected))));

  test('fills the record', () => {
    expect(
      of([
        line(9, 'Coastal Processes 12(3), 101–118, 2014'),
        line(20, 'Who closes the gate'),
        line(11, 'Marit Okonjo'),
        ...PROSE,
      ]).record,
    ).toMatchObject({
      type: 'article-journal',
      title: 'Who closes the gate',
      'container-title': 'Coastal Processes',
      volume: '12',
      issue: '3',
      page: '101-118',
      issued: { 'date-parts': [[2014]] },
    });
  });
});

describe('identifiers', () => {
  const first = (text: string) => of([line(20, 'A study of silt'), line(9, text), ...PROSE]).record;

  test('of the first page are the document’s; of several further on each is a reference', () => {
    expect(first('https://doi.org/10.5555/silt.1')).toMatchObject({ DOI: '10.5555/silt.1', type: 'article-journal' });
    const later = of([line(20, 'A study of silt'), ...PROSE], {}, [line(9, 'doi:10.5555/a doi:10.5555/b')]);
    expect(later.record.DOI).toBeUndefined();
    expect(first('ISBN 978-0-306-40615-7')).toMatchObject({ type: 'book', ISBN: '9780306406157' });
    expect(first('arXiv:2101.00001v2')).toMatchObject({ number: '2101.00001', archive: 'arXiv' });
  });

  test.each([
    ['Okonjo, M. (2011). Silt and gates. Coastal Processes 12. doi:10.5555/other.1', ''],
    ['', '[5] M. Okonjo, Silt and gates, DOI: 10.5555/other.1'],
    ['', 'Speech and Signal, pages 1757–1760, 1999. ISBN 978-0-306-40615-7. doi: 10.5555/other.1'],
  ])('of a work that is referred to are not the document’s: “%s%s”', (onFirst, onSecond) => {
    const { record } = of([line(20, 'A study of silt'), line(9, onFirst), ...PROSE], {}, [line(9, onSecond), ...PROSE]);
    expect([record.DOI, record.ISBN]).toEqual([undefined, undefined]);
  });

  test.each(['10.0000/0000000', '10.1145/nnnnnnn.nnnnnnn', '10.1145/1122445.1122456', '10.5555/xxxx.xxxx'])(
    'the DOI “%s” of a template is none',
    (doi) => expect(first(`doi: ${doi}`).DOI).toBeUndefined(),
  );
});
