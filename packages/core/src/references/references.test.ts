import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { looksLikeReference, readNames, readReference, respan, splitReferences } from './index.ts';

const read = (text: string): Record<string, unknown> => {
  const { author, editor, issued, ...rest } = readReference(text).record;
  const people = (list: typeof author): string[] =>
    (list ?? []).map((n) => n.literal ?? `${n.family}, ${n.given ?? ''}`);
  return {
    ...rest,
    ...(author && { author: people(author) }),
    ...(editor && { editor: people(editor) }),
    ...(issued && { issued: issued['date-parts']![0]!.join('-') }),
  };
};

const ARTICLE = {
  type: 'article-journal',
  title: 'Sediment starvation behind permanently closed tidal barriers',
  'container-title': 'Coastal Processes',
  volume: '41',
  issue: '3',
  issued: '2011',
};

test.each([
  [
    'numbered, with initials behind the names',
    'Vance S, Ito R. Sediment starvation behind permanently closed tidal barriers. Coastal Processes. 2011;41(3):311-28.',
    { ...ARTICLE, author: ['Vance, S.', 'Ito, R.'], page: '311-28' },
  ],
  [
    'author and date in brackets',
    'Vance, S., & Ito, R. (2011). Sediment starvation behind permanently closed tidal barriers. Coastal Processes, 41(3), 311–328. https://doi.org/10.5555/cp.2011.0041',
    { ...ARTICLE, author: ['Vance, S.', 'Ito, R.'], page: '311-328', DOI: '10.5555/cp.2011.0041' },
  ],
  [
    'author and date with the title quoted',
    'Vance, Solveig, and Ren Ito. 2011. “Sediment starvation behind permanently closed tidal barriers.” Coastal Processes 41 (3): 311–28.',
    { ...ARTICLE, author: ['Vance, Solveig', 'Ito, Ren'], page: '311-28' },
  ],
  [
    'as a note',
    'Solveig Vance and Ren Ito, “Sediment starvation behind permanently closed tidal barriers,” Coastal Processes 41, no. 3 (2011): 311–28.',
    { ...ARTICLE, author: ['Vance, Solveig', 'Ito, Ren'], page: '311-28' },
  ],
  [
    'numbered, with vol., no. and pp.',
    'S. Vance and R. Ito, “Sediment starvation behind permanently closed tidal barriers,” Coastal Processes, vol. 41, no. 3, pp. 311–328, 2011.',
    { ...ARTICLE, author: ['Vance, S.', 'Ito, R.'], page: '311-328' },
  ],
])('an article %s', (_, text, record) => {
  expect(read(text)).toEqual(record);
});

test.each([
  [
    'Okonjo, Marit. The Licensed Gate. 2nd ed. Northmere: Tidal Press, 1999.',
    {
      type: 'book',
      title: 'The Licensed Gate',
      author: ['Okonjo, Marit'],
      edition: '2nd',
      'publisher-place': 'Northmere',
      publisher: 'Tidal Press',
      issued: '1999',
    },
  ],
  [
    'Ito, R. (2021). Gate regimes. In M. Okonjo & S. Vance (Eds.), Estuary law (pp. 12–34). Tidal Press.',
    {
      type: 'chapter',
      title: 'Gate regimes',
      author: ['Ito, R.'],
      editor: ['Okonjo, M.', 'Vance, S.'],
      'container-title': 'Estuary law',
      page: '12-34',
      issued: '2021',
    },
  ],
  [
    'Quill, T. (2018). Marsh accounts [Doctoral dissertation, University of Northmere].',
    {
      type: 'thesis',
      title: 'Marsh accounts',
      author: ['Quill, T.'],
      genre: 'Doctoral dissertation',
      publisher: 'University of Northmere',
      issued: '2018',
    },
  ],
  [
    'Harbour Commissioners v Penhallow Dredging Ltd [1987] 2 Est R 114 (Ct App)',
    {
      type: 'legal_case',
      title: 'Harbour Commissioners v Penhallow Dredging Ltd',
      volume: '2',
      'container-title': 'Est R',
      page: '114',
      authority: 'Ct App',
      issued: '1987',
    },
  ],
  [
    'Ottery v. Tidal Board, 347 Est. R. 483, 490 (1954)',
    {
      type: 'legal_case',
      title: 'Ottery v. Tidal Board',
      volume: '347',
      'container-title': 'Est. R.',
      page: '483',
      issued: '1954',
    },
  ],
  [
    'Tidal Barriers Act 1974, s 12',
    { type: 'legislation', title: 'Tidal Barriers Act', section: '12', issued: '1974' },
  ],
])('%s', (text, record) => {
  expect(read(text)).toMatchObject(record);
});

test('each stretch that was read stands where it is said to stand', () => {
  const text = 'Vance S, Ito R. Sediment starvation. Coast Proc. 2011;41(3):311-28.';
  const { spans } = readReference(text);
  const named = Object.fromEntries(spans.map((s) => [s.field, text.slice(s.start, s.end)]));
  expect(named).toEqual({
    author: 'Vance S, Ito R.',
    title: 'Sediment starvation',
    'container-title': 'Coast Proc',
    issued: '2011',
    volume: '41',
    issue: '3',
    page: '311-28',
  });
});

test('whatever is read, spans stand in the text, in order, and none over another', () => {
  fc.assert(
    fc.property(
      fc.string({ maxLength: 200, unit: fc.constantFrom(...'abcXYZ .,;:()[]“”-–0123456789&/\n'.split('')) }),
      (text) => {
        let at = 0;
        for (const { start, end } of readReference(text).spans) {
          expect(start).toBeGreaterThanOrEqual(at);
          expect(end).toBeGreaterThan(start);
          expect(end).toBeLessThanOrEqual(text.length);
          at = end;
        }
      },
    ),
  );
});

test.each([
  [
    'numbered entries, with lines broken',
    '[1] Vance S. One thing. J Tides. 2011;\n41:3-8.\n[2] Ito R. Another. J Tides. 2012;42:1-4.',
    2,
  ],
  ['numbers with full stops', '1. Vance S. One thing. 2011.\n2. Ito R. Another thing. 2012.', 2],
  ['entries with lines between', 'Vance, S. 2011.\nOne thing. J Tides 41.\n\nIto, R. 2012. Another. J Tides 42.', 2],
  ['hanging lines', 'Vance, S. 2011. One thing of\n    the estuary. J Tides 41.\nIto, R. 2012. Another.', 2],
  [
    'one to a line',
    'Vance, S. 2011. One thing. J Tides 41.\nIto, R. 2012. Another. J Tides 42.\nOkonjo, M. 2013. A third.',
    3,
  ],
  ['one alone over two lines', 'Vance, S. 2011. One thing of the estuary,\nand of the marsh. J Tides 41.', 1],
])('a list: %s', (_, text, n) => {
  expect(splitReferences(text)).toHaveLength(n);
});

test('a word parted at the end of a line is joined', () => {
  expect(splitReferences('Vance, S. 2011. Sedi-\nment and marsh.')[0]!.text).toBe(
    'Vance, S. 2011. Sediment and marsh.',
  );
});

test('a sentence that names a year is no reference', () => {
  expect(looksLikeReference('In 1872 the commission promised that the gate would stay open')).toBe(false);
  expect(looksLikeReference('Okonjo, M. (2014). Who closes the gate? Coastal Processes, 41, 1.')).toBe(true);
});

test('a stretch given to another field leaves the one it had, and both follow', () => {
  const text = 'Vance S. Silt and salt. Tides. 2011;41:3-8.';
  const { spans } = readReference(text);
  const at = text.indexOf('Tides');
  const moved = respan(text, spans, { start: at, end: at + 5, field: 'publisher' });
  expect(moved.fields).toEqual({ 'container-title': null, publisher: 'Tides' });
  const back = respan(text, moved.spans, { start: at, end: at + 5, field: 'container-title' });
  expect(back.fields).toEqual({ 'container-title': 'Tides', publisher: null });
  const none = respan(text, spans, { start: 0, end: 8, field: null });
  expect([none.fields, none.spans.some((s) => s.field === 'author')]).toEqual([{ author: null }, false]);
  const page = respan(text, spans, { start: text.indexOf('3-8'), end: text.indexOf('3-8') + 3, field: 'issued' });
  expect(page.fields.page).toBeNull();
});

test.each([
  ['Ngata, R. and S. Vale', ['Ngata, R.', 'Vale, S.']],
  ['Vance S, Ito R', ['Vance, S.', 'Ito, R.']],
  ['Vance, S., Ito, R., & Okonjo, M.', ['Vance, S.', 'Ito, R.', 'Okonjo, M.']],
  ['Solveig Vance, Ren Ito and Marit Okonjo', ['Vance, Solveig', 'Ito, Ren', 'Okonjo, Marit']],
  ['Vance, Solveig, and Ren Ito', ['Vance, Solveig', 'Ito, Ren']],
  ['Vance, Solveig; Ito, Ren', ['Vance, Solveig', 'Ito, Ren']],
  ['de Groot-Wadde R, van der Zande W', ['Groot-Wadde, R.', 'Zande, W.']],
  ['Sallow Harbour Commission', ['Sallow Harbour Commission']],
])('the names “%s”', (text, names) => {
  expect(readNames(text).map((n) => n.literal ?? `${n.family}, ${n.given}`)).toEqual(names);
});

test('others that are not named stand for themselves', () => {
  expect(readNames('Vance S, Ito R, et al.').at(-1)).toEqual({ literal: 'et al.' });
});

describe('forms in which styles print books, articles and parts', () => {
  test.each([
    [
      'E. R. Tuft and M. Goose, Envisioning Tides. New York, NY, USA: Graphics Press, 1990.',
      { author: ['Tuft', 'Goose'], title: 'Envisioning Tides', publisher: 'Graphics Press', year: 1990 },
    ],
    [
      'Knuth, Donald E. The Gate Book. Reading, MA, USA: Addison Press, 1984.',
      { author: ['Knuth'], title: 'The Gate Book', publisher: 'Addison Press', year: 1984 },
    ],
    [
      'Spiek, Erik, and E. M. Ginger. Stop Stealing Silt. Mountain View, CA, USA: Adobe Press, 1993.',
      { author: ['Spiek', 'Ginger'], title: 'Stop Stealing Silt', publisher: 'Adobe Press', year: 1993 },
    ],
    [
      'Jacobs M, Forms, Typesetting and Paste-up Techniques (2nd edn, Formsman 1979)',
      { author: ['Jacobs'], title: 'Forms, Typesetting and Paste-up Techniques', publisher: 'Formsman', year: 1979 },
    ],
    [
      'Savoy J and Desbois D, ‘Information Retrieval in Hypertext Systems’ (1991) 4 Electronic Publishing 87',
      { author: ['Savoy', 'Desbois'], container: 'Electronic Publishing', volume: '4', page: '87', year: 1991 },
    ],
    [
      'Goose, M., Rahtz, S., & Mittel, F. (1997). The Graphics Companion: Illustrating Documents. Addison Press.',
      { author: ['Goose', 'Rahtz', 'Mittel'], title: 'The Graphics Companion: Illustrating Documents', year: 1997 },
    ],
    [
      'S. Van Egmond and D. Z. Lu, “High speed rasterizing,” in Document systems, J. Never and A. C. Shaw, Eds. New York, NY, USA: Elsevier, Inc., 1982, pp. 243–264.',
      { author: ['Van Egmond', 'Lu'], container: 'Document systems', page: '243-264' },
    ],
    [
      'Collins, J. S. (1986). Digital Fonts for Low-Cost Systems. Proceedings of the Shore Conference, 82–87.',
      { author: ['Collins'], container: 'Proceedings of the Shore Conference', page: '82-87' },
    ],
  ] as const)('%s', (text, wanted) => {
    const { record: r } = readReference(text);
    const read: Record<string, unknown> = {
      author: r.author?.map((n) => n.family),
      title: r.title,
      container: r['container-title'],
      publisher: r.publisher,
      volume: r.volume,
      page: r.page,
      year: r.issued?.['date-parts']?.[0]?.[0],
    };
    expect(Object.fromEntries(Object.keys(wanted).map((k) => [k, read[k]]))).toEqual(wanted);
  });
});

describe('what has full stops within it', () => {
  test.each([
    ['Okonjo, Marit. The Tides of Sallow. Ph.D. diss., Sallow University, 1999.', { type: 'thesis', genre: 'Ph.D. diss.', publisher: 'Sallow University' }],
    ['Okonjo, Marit (1999) The Tides of Sallow. Ph.D., University of Sallow', { type: 'thesis', genre: 'Ph.D.', publisher: 'University of Sallow' }],
    ['Vale, S. (1932). Harbours of the coast. H.M. Stationery Office.', { type: 'book', publisher: 'H.M. Stationery Office' }],
    ['Royal Commission, Report on Harbours (London: H.M. Stationery Office 1932).', { 'publisher-place': 'London', publisher: 'H.M. Stationery Office' }],
  ])('%s', (text, fields) => expect(readReference(text).record).toMatchObject(fields)); // prettier-ignore

  test('a publisher known by its place alone is a guess', () => {
    const sure = (end: string): number => readReference(`Vale, S. (1932). Harbours of the coast. ${end}`).sure;
    expect(sure('Sallow Press.')).toBeLessThan(sure('Sallow: Sallow Press.'));
  });
});
