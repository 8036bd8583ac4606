import { expect, test } from 'vitest';
import { latexToText } from '../latex/index.ts';
import { readBibtex, writeSources } from '../index.ts';

const one = (text: string) => readBibtex(text).sources[0]!;

test('abbreviations, joined pieces and months are put in', () => {
  const { record } = one(
    '@string{jws = "Journal of Water"}\n@article{a, journal = jws # { and Shore Law}, year = 1999, month = 3 # "~" # mar, title = "T"}',
  );
  expect(record['container-title']).toBe('Journal of Water and Shore Law');
  expect(one('@article{a, year=1999, month=sep}').record.issued).toEqual({ 'date-parts': [[1999, 9]] });
});

test('an entry inherits from the one it refers to, under the right names', () => {
  const read = readBibtex(
    '@inproceedings{part, crossref = {whole}, title = {A part}, pages = {1--9}}\n@proceedings{whole, title = {The whole}, year = 2001, editor = {Vance, Ines}}',
  );
  expect(read.sources[0]!.record).toMatchObject({
    type: 'paper-conference',
    title: 'A part',
    'container-title': 'The whole',
    page: '1-9',
    editor: [{ family: 'Vance', given: 'Ines' }],
    issued: { 'date-parts': [[2001]] },
  });
});

test('names: corporate in braces, particles, suffixes, and others', () => {
  const { record } = one(
    '@book{a, author = {{Harbour Commission and Sons} and Wilhelmina van der Zande and Ottery, Jr., Amos and Ito, Kenzo and others}}',
  );
  expect(record.author).toEqual([
    { literal: 'Harbour Commission and Sons' },
    { given: 'Wilhelmina', 'non-dropping-particle': 'van der', family: 'Zande' },
    { family: 'Ottery', suffix: 'Jr.', given: 'Amos' },
    { family: 'Ito', given: 'Kenzo' },
    { literal: 'et al.' },
  ]);
});

// The accent commands of The LaTeX Companion, 2nd edition, section 7.11.
test.each([
  ["Erd\\H{o}s, P\\'al", 'Erdős, Pál'],
  ['{\\"O}zg{\\"u}r', 'Özgür'],
  ["Dvo\\v r\\'ak", 'Dvořák'],
  ['{\\aa}ngstr{\\"o}m \\o re \\ss', 'ångström øre ß'],
  ['Fran\\c{c}ois \\`{e} \\^{\\i}', 'François è î'],
  ['pages 1--9, an aside---here', 'pages 1–9, an aside—here'],
  ["``quoted'' text~here", '“quoted” text\u00a0here'],
  ['\\emph{in situ} and \\textbf{bold}', '<i>in situ</i> and <b>bold</b>'],
  ['{\\em old style} gone', '<i>old style</i> gone'],

  ['50\\% \\& more \\$5 \\#1 a\\_b', '50% & more $5 #1 a_b'],
])('LaTeX %s reads as %s', (latex, text) => expect(latexToText(latex)).toBe(text));

test('one broken entry never costs its neighbours, and says where it broke', () => {
  const read = readBibtex(
    '@book{a, title = {Sound}}\n\n@book{b,\n  title = {Never closed,\n  year = 1990,\n}\n\n@book{c, title = {Sound too}}',
  );
  expect(read.sources.map((s) => s.record.title)).toEqual(['Sound', 'Never closed', 'Sound too']);
  expect(read.sources[1]!.record.issued).toEqual({ 'date-parts': [[1990]] });
  expect(read.messages).toEqual([expect.objectContaining({ rule: 'broken-entry', line: 4, severity: 'warning' })]);
});

test('what has no variable is kept with the record and written back', () => {
  const read = readBibtex('@article{a, title={T}, mynote = {kept {as} it is}, file = {x.pdf}}');
  expect(read.sources[0]!.record.custom).toEqual({ bibtex: { mynote: 'kept {as} it is', file: 'x.pdf' } });
  expect(writeSources(read.sources, 'bibtex')).toContain('mynote = {kept {as} it is}');
});

test('capitals that must stay are protected in braces', () => {
  const write = (title: string) => writeSources([{ record: { type: 'book', title }, subjects: [] }], 'bibtex');
  expect(write('Mapping DNA in the Sallow')).toContain('{Mapping {DNA} in the {Sallow}}');
  expect(write('Who Closes the DNA Gate under Barrier Licences')).toContain(
    '{Who Closes the {DNA} Gate under Barrier Licences}',
  );
});

test('a missing comma, an undefined abbreviation and a repeated key are each reported', () => {
  const read = readBibtex('@book{a, title = {T}\n year = 1999}\n@book{a, publisher = qbp, title = {U}}');
  expect(read.sources).toHaveLength(2);
  expect(read.messages.map((m) => m.rule).sort()).toEqual(['missing-comma', 'repeated-key', 'unknown-macro']);
});
