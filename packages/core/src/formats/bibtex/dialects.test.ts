/**
 * Entries of the BibLaTeX manual's kinds and the names of BibTeX's documentation, one by one beside pandoc's BibLaTeX
 * reader (Debian's). Where the two mean the same in different words, `agree` says which.
 */
import { execFileSync } from 'node:child_process';
import { expect, test } from 'vitest';
import type { Name } from '../../source/index.ts';
import { latexToText } from '../latex/index.ts';
import { readBibtex, writeSources } from '../index.ts';

const ENTRIES = String.raw`
@thesis{master, title={T}, type={mathesis}, institution={University of Withy}, date={1998}}
@phdthesis{doctor, title={T}, school={University of Withy}, year={1998}}
@report{research, title={T}, type={resreport}, institution={Hydrographic Office}, number={4}, date={2005-10-31}}
@patent{gate, title={T}, type={patentus}, number={1}, date={2000-01-02}}
@article{press, title={T}, journaltitle={J}, pubstate={inpress}, langid={ngerman}, date={1999/}}
@article{paper, title={T}, journaltitle={J}, entrysubtype={newspaper}, date={2000}}
@article{glossy, title={T}, journaltitle={J}, entrysubtype={magazine}, date={2000}}
@article{stored, title={T}, eprint={1501.00001}, eprinttype={arxiv}, journaltitle={J}, date={2015}}
@article{kept, title={T}, eprint={123456}, eprinttype={jstor}, journaltitle={J}, date={2015}}
@book{about, title={T}, publisher={Quillback Press}, date={1723?/1730~}}
@book{before, title={T}, location={Sallow}, date={-0044-03-15}}
@jurisdiction{case, title={T}, date={1954~}, number={347}}
@manual{guide, title={T}, organization={Hydrographic Office}, year={1730}}
@inbook{inside, title={T}, booktitle={B}, chapter={3}, pages={3--9}, year={1730}}
@unpublished{draft, title={T}, note={draft}, year={1730}}
@online{page, title={T}, url={https://estuary-trust.example/~a/b%20c}, urldate={2020-03-04}, date={2019-05/2019-07}}
@article{electronic, title={T}, journaltitle={J}, eid={e1234}, number={2}, pages={1--2,5--6}, date={2001}}
@inreference{entry, title={T}, booktitle={Encyclopedia}, date={2000}}
@collection{gathered, title={T}, editor={Vance, Ines and Ito, Kenzo}, series={S}, number={3}, volumes={2}, date={2000}}
@article{names, title={T}, journaltitle={J}, date={2000}, author={\O{}stergaard, \AA{}ge and M{\"u}ller, J{\"o}rg and
  \v{C}apek, Karel and Donald~E. Knuth and Er\"{o}s, P\'al and \AA ge \O stby and {\"O}zg{\"u}r, {A. B.} and
  O'Brien~Smith, {J}. and Ch{\^a}tel{\'{e}}t, E and King, Jr., Martin and {Harbour {\&} Sons} and
  Bar{\i}{\c s}, {\c C}a{\u g}la and Wilhelmina van der Zande}}
`;

const theirs = new Map(
  (
    JSON.parse(
      execFileSync('pandoc', ['-f', 'biblatex', '-t', 'csljson'], { input: ENTRIES, encoding: 'utf8' }),
    ) as Record<string, unknown>[]
  ).map((item) => [item.id as string, agree(item)]),
);

/** pandoc's item in our words: its dropping particles and seasons, its curly apostrophes, an eid as the page. */
function agree(item: Record<string, unknown>): Record<string, unknown> {
  const out = { ...item };
  delete out.id;
  delete out['title-short'];
  const authors = (item.author as Record<string, string>[] | undefined)?.map((n) => {
    const { 'dropping-particle': dropping, ...rest } = n;
    return {
      ...rest,
      ...(rest.family ? { family: rest.family.replace('’', "'") } : {}),
      ...(dropping ? { 'non-dropping-particle': dropping } : {}),
    };
  });
  return { ...out, ...(authors ? { author: authors } : {}) };
}

test.each(readBibtex(ENTRIES).sources.map((s) => [s.record['citation-key']!, s.record] as const))(
  'the entry “%s” is read as pandoc reads it',
  (key, record) => {
    const { 'citation-key': _key, custom: _custom, ...ours } = record;
    expect({ ...ours, title: 't' }).toEqual({ ...theirs.get(key), title: 't' });
  },
);

test('names BibTeX treats in its own way', () => {
  const [source] = readBibtex(
    String.raw`@book{a, author={{\relax Ch}arles Q. Smith and {\'E}mile {van der Berg} and {Foo, Inc.} Bar and d'Arc, Jeanne}}`,
  ).sources;
  expect(source!.record.author).toEqual<Name[]>([
    { given: 'Charles Q.', family: 'Smith' },
    { given: 'Émile', family: 'van der Berg' },
    { given: 'Foo, Inc.', family: 'Bar' },
    { family: "d'Arc", given: 'Jeanne' },
  ]);
});

test.each([
  ['CO$_2$ and H$_{2}$O at 10$^{-3}$', 'CO<sub>2</sub> and H<sub>2</sub>O at 10<sup>−3</sup>'],
  ['$\\alpha$-diversity, \\ensuremath{\\beta}', 'α-diversity, β'],
  ['energy $E = mc^2$', 'energy <i>E</i> = <i>mc</i><sup>2</sup>'],
  ['$^{14}$C at 30$^\\circ$C, $\\mathrm{pH}\\geq 7$', '<sup>14</sup>C at 30°C, pH≥7'],
  ['what does not read on one line, $\\frac{a}{b}$, stays', 'what does not read on one line, $\\frac{a}{b}$, stays'],
  ['from $5 to the sum of $60', 'from $5 to the sum of $60'],
])('mathematics: %s', (latex, text) => expect(latexToText(latex)).toBe(text));

test('nothing an entry says twice or beside another is lost without a word', () => {
  const read = readBibtex(
    '@article{a, title={T}, year=2003,\n year=2004, number=2, issue={Spring}, titleaddon={Interview}, booksubtitle={S}}\n@manual{b, organization={O}, publisher={P}}',
  );
  expect(read.messages).toEqual([
    expect.objectContaining({ rule: 'repeated-field', line: 2, done: 'the first was used; this one says: 2004' }),
  ]);
  expect(read.sources[0]!.record).toMatchObject({
    title: 'T. Interview',
    issue: '2',
    custom: { bibtex: { issue: 'Spring', booksubtitle: 'S' } },
  });
  expect(read.sources[1]!.record).toMatchObject({ publisher: 'P', custom: { bibtex: { organization: 'O' } } });
});

test('languages are written by the names BibLaTeX has for them, newspapers as articles of that subtype', () => {
  const text = writeSources(
    [
      { record: { type: 'article-newspaper', title: 'T', language: 'de-DE' }, subjects: [] },
      { record: { type: 'book', title: 'U', language: 'sw' }, subjects: [] },
    ],
    'biblatex',
  );
  expect(text).toMatch(/@article\{[^@]*langid = \{ngerman\}[^@]*entrysubtype = \{newspaper\}/);
  expect(text).toMatch(/language = \{sw\}/);
  expect(text).not.toContain('csl =');
});
