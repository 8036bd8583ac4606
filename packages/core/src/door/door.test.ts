import fc from 'fast-check';
import { expect, test } from 'vitest';
import { seenInWords, takeApart } from './index.ts';

const kinds = (text: string): string[] => takeApart(text).map((p) => `${p.kind} ${p.value ?? ''}`.trim());

test('a mess of identifiers, links, references and other words is taken apart, and said in words', () => {
  const text =
    'doi:10.5555/JWSL.2014.0223, and https://doi.org/10.5555/other\nISBN 979-9-10-000000-7\n978-0-00-712345-?\n\nVance S, Ito R. Sediment starvation behind tidal barriers. Coast Proc. 2011;41(3):311-28.\n\nhttps://packet.sallow.example/news\nibid., at 214\n';
  expect(kinds(text)).toEqual([
    'doi 10.5555/JWSL.2014.0223',
    'doi 10.5555/other',
    'isbn',
    'isbn',
    'reference',
    'link https://packet.sallow.example/news',
    'text',
  ]);
  const words = seenInWords(takeApart('10.5555/a 10.5555/b\n978-0-00-712345-3'));
  expect(words).toEqual([{ says: '2 DOIs' }, { says: '1 ISBN', wrong: 'check digit wrong: it would be 2' }]);
});

test.each([
  ['PMID: 0012345678'.replace('00', ''), 'pmid 12345678'],
  ['23456789', 'pmid 23456789'],
  ['PMC1234567', 'pmcid PMC1234567'],
  ['arXiv:2101.00001v3', 'arxiv 2101.00001'],
  ['https://arxiv.org/abs/hep-th/9901001', 'arxiv hep-th/9901001'],
  // The example of ISO 3297, and one whose check character is wrong.
  ['ISSN 0317-8471', 'issn 0317-8471'],
  ['ISSN 0317-8472', 'issn'],
  // The example of the ISBN Users' Manual, in both lengths.
  ['978-3-16-148410-0', 'isbn 9783161484100'],
  ['ISBN 3-16-148410-X', 'isbn 9783161484100'],
  ['www.sallow.example/a', 'link https://www.sallow.example/a'],
])('%s is %s', (text, is) => {
  expect(kinds(text)).toEqual([is]);
});

test.each([
  // Where in a journal: the forms catalogues and printed lists share (common practice).
  ['1050-124X 41(3), 311', { volume: '41', issue: '3', page: '311' }],
  ['ISSN 1050-124X, vol. 41, no. 3, pp. 311-328', { volume: '41', issue: '3', page: '311' }],
  ['1050-124X 41: 311', { volume: '41', page: '311' }],
  ['ISSN 1050-124X', undefined],
])('%s says where in its journal it stands', (text, says) => {
  expect(takeApart(text)).toMatchObject([{ kind: 'issn', value: '1050-124X', ...(says && { says }) }]);
  expect(takeApart(text)[0]!.says).toEqual(says);
});

test.each([
  ['[2009] NCA 12', { 'container-title': 'NCA', page: '12', number: '12' }],
  ['[1987] 2 Est R 114 (Ct App)', { 'container-title': 'Est R', volume: '2', page: '114' }],
  ['(1987) 12 Est R 114', { 'container-title': 'Est R', volume: '12', page: '114' }],
  ['12 Est. R. 114 (1987)', { 'container-title': 'Est. R.', volume: '12', page: '114' }],
])('the citation %s stands for its case, without the parties', (text, says) => {
  expect(takeApart(text)).toMatchObject([{ kind: 'citation', says: { type: 'legal_case', ...says } }]);
});

test('prose gives up the citations in it', () => {
  expect(kinds('as was held in [2009] NCA 12, and again in (1987) 12 Est R 114')).toEqual([
    'citation [2009] NCA 12',
    'citation (1987) 12 Est R 114',
  ]);
});

test('a year in brackets and a number is no citation of a case', () => {
  for (const text of ['in (1987) there were 114 gates', 'the [2009] gate', 'Gates 12 (1987) 4']) {
    expect(kinds(text).filter((k) => k.startsWith('citation'))).toEqual([]);
  }
});

test('a reference keeps the identifier in it, prose gives up those it names', () => {
  expect(
    kinds('Okonjo, M. (2014). Who closes the gate? Coastal Processes, 41(3), 1–20. https://doi.org/10.5555/gate'),
  ).toEqual(['reference']);
  expect(kinds('see what they wrote in 10.5555/gate and in 10.5555/marsh')).toEqual([
    'doi 10.5555/gate',
    'doi 10.5555/marsh',
  ]);
});

test('whole records are left whole', () => {
  expect(kinds('@article{a, title = {One}, doi = {10.5555/x}}')).toEqual(['records']);
  expect(kinds('TY  - JOUR\nTI  - One\nER  - ')).toEqual(['records']);
});

test('an identifier said twice is one', () => {
  expect(kinds('10.5555/a\n10.5555/A')).toEqual(['doi 10.5555/a']);
});

test('nothing that has a letter or a digit is lost, whatever is pasted', () => {
  const piece = fc.oneof(
    fc.string({ maxLength: 40 }),
    fc.constantFrom(
      '10.5555/abc',
      'https://a.example/x',
      '978-3-16-148410-0',
      'Vance S. A title of it. J Tides. 2011;4(3):31-8.',
      '\n',
      '\n\n',
      ', ',
    ),
  );
  fc.assert(
    fc.property(
      fc.array(piece, { maxLength: 8 }).map((p) => p.join(' ')),
      (text) => {
        const parts = takeApart(text);
        const words = (t: string): string[] => t.match(/[\p{L}\p{N}]{5,}/gu) ?? [];
        const kept = parts
          .map((p) => p.text)
          .join(' ')
          .replace(/\s+/g, '');
        if (parts.every((p) => p.kind === 'text')) for (const w of words(text)) expect(kept).toContain(w);
        for (const p of parts) expect(p.start).toBeLessThanOrEqual(text.length);
      },
    ),
  );
});
