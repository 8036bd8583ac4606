/**
 * What real bibliographies hold that a textbook does not: each case is a kind that was met in the bibliographies of
 * Debian's packages (TeX Live, R), put into the words of the Sallow Estuary.
 */
import { describe, expect, test } from 'vitest';
import { latexToText } from '../latex/index.ts';
import type { SourceRecord } from '../../source/index.ts';
import { readBibtex, writeSources } from '../index.ts';

const one = (entry: string) => readBibtex(entry).sources[0]!.record;
const article = (fields: string) => one(`@article{a, title={T}, journal={J}, ${fields}}`);

describe('commands', () => {
  const fates = (value: string) => {
    const unknown = new Map<string, string>();
    return [latexToText(value, { unknown: unknown as never }), Object.fromEntries(unknown)];
  };

  test.each([
    ['Hyphenation in \\GateTeX', 'Hyphenation in GateTeX', { GateTeX: 'its name was kept as text' }],
    ['\\GateTeX{} and \\GateTeX{}s', 'GateTeX and GateTeXs', { GateTeX: 'its name was kept as text' }],
    ['the \\marsh{Sallow} marsh', 'the Sallow marsh', { marsh: 'its argument was kept' }],
    ['{\\ssf Tides} of the Sallow', 'Tides of the Sallow', { ssf: 'taken for a change of type' }],
  ])('one nobody knows, “%s”, says what became of it', (value, text, said) =>
    expect(fates(value)).toEqual([text, said]),
  );

  test('a journal or an author given by a command alone has a name', () => {
    expect(one('@article{a, title={T}, journal={\\Sallow}, author={\\Okonjo}}')).toMatchObject({
      'container-title': 'Sallow',
      author: [{ family: 'Okonjo' }],
    });
  });

  // TeX swallows the space after a command of letters (The TeXbook, chapter 8).
  test.each([
    ['\\TeX nische Kom\\"odie', 'TeXnische Komödie'],
    ['\\LaTeX\\ and \\BibTeX{} by \\ConTeXt', 'LaTeX and BibTeX by ConTeXt'],
    ['Tide\\Dash marsh\\endash salt', 'Tide—marsh–salt'],
    ['{\\sl in situ\\/} and {\\it ebb}', '<i>in situ</i> and <i>ebb</i>'],
    ["`Sluice' and ``gate'', the keeper's", "‘Sluice’ and “gate”, the keeper's"],
    ["?`Qu\\'e marea? !`Alto!", '¿Qué marea? ¡Alto!'],
    ['Vi\\d{\\^e}t, \\={\\i}, \\\'{\\u{a}}, \\={\\"u}', 'Việt, ī, ắ, ǖ'.normalize('NFC')],
    ['sea\\~{} and \\^{}', 'sea~ and ^'],
    ['a long%\n   word, 50% of it', 'a longword, 50% of it'],
    ['\\url{http://sallow.example/~okonjo/a_b%20c}', 'http://sallow.example/~okonjo/a_b%20c'],
    ['\\href{https://sallow.example/x}{The page}', 'The page'],
    ['\\texorpdfstring{$\\alpha$}{alpha} \\textcolor{red}{tide}', 'alpha tide'],
    ["\\char'176 \\char`\\~ \\symbol{126}", '~~~'],
  ])('%s', (latex, text) => expect(latexToText(latex)).toBe(text));

  test('what a file defines in its preamble is used, and costs no more than it should', () => {
    const preamble =
      '@preamble{"\\newcommand{\\Sallow}[1]{The #1 of the Sallow} \\def\\two#1#2{#2 #1}\\let\\river\\Sallow" # "\\newcommand{\\loop}{\\loop\\loop}"}';
    const read = readBibtex(
      `${preamble}\n@book{a, title={\\Sallow{Gate}}}\n@book{b, title={\\two{ebb}{flood}, \\river{mouth}}}\n@book{c, title={\\loop}}`,
    );
    expect(read.sources.slice(0, 2).map((s) => s.record.title)).toEqual([
      'The Gate of the Sallow',
      'flood ebb, The mouth of the Sallow',
    ]);
    expect(read.sources[2]!.record.title!.length).toBeLessThan(200_000);
  });

  test('addresses that a text hides are kept as the address', () => {
    expect(one('@misc{a, title={\\href{https://sallow.example/x}{Gate}}}')).toMatchObject({
      title: 'Gate',
      URL: 'https://sallow.example/x',
    });
  });
});

describe('dates', () => {
  test.each([
    ['year={{\\noopsort{1973b}}1973}', { 'date-parts': [[1973]] }],
    ['year={2001--2009}', { 'date-parts': [[2001], [2009]] }],
    ['year={1987--date}', { 'date-parts': [[1987], [0]] }],
    ['year={c1988}', { 'date-parts': [[1988]] }],
    ['year={[1973]}', { 'date-parts': [[1973]] }],
    ['year=1994, month={Winter}', { 'date-parts': [[1994]], season: 4 }],
    ['year=1994, month=spring', { 'date-parts': [[1994]], season: 1 }],
    [
      'year=1994, month=jun # "--" # jul',
      {
        'date-parts': [
          [1994, 6],
          [1994, 7],
        ],
      },
    ],
    ['year=1994, month={29 February}', { 'date-parts': [[1994, 2]] }],
    ['year=1996, month={29 February}', { 'date-parts': [[1996, 2, 29]] }],
    [
      'year=1994, month=mar, day={8--9}',
      {
        'date-parts': [
          [1994, 3, 8],
          [1994, 3, 9],
        ],
      },
    ],
    ['year=1994, month=dec # "/" # jan', { 'date-parts': [[1994]] }],
    ['date={forthcoming}, year=2001', { 'date-parts': [[2001]] }],
    ['date={01.08.1993}', { 'date-parts': [[1993, 8, 1]] }],
    // EDTF levels 1 and 2 (ISO 8601-2:2019), the examples of the Library of Congress's specification (from memory).
    ['date={156X}', { 'date-parts': [[1560], [1569]], edtf: '156X' }],
    ['date={2001-21}', { 'date-parts': [[2001]], season: 1 }],
    ['date={[1667,1668,1670..1672]}', { 'date-parts': [[1667], [1672]], edtf: '[1667,1668,1670..1672]' }],
    ['date={Y-170000002}', { 'date-parts': [[-170000003]], edtf: 'Y-170000002' }],
    ['date={../1985-04-12}', { 'date-parts': [[1985, 4, 12]], edtf: '../1985-04-12' }],
    [
      'date={2004-06~/2004-06-11}',
      {
        'date-parts': [
          [2004, 6],
          [2004, 6, 11],
        ],
        circa: true,
      },
    ],
  ])('%s', (fields, date) => expect(article(fields).issued).toEqual(date));

  test('an interval that ends before it begins is said, and kept as it stands', () => {
    const read = readBibtex('@book{a, title={T}, date={2009/2001}}\n@book{b, title={U}, year={2009--2001}}');
    expect(read.messages.map((m) => [m.line, m.rule])).toEqual([
      [1, 'backward-interval'],
      [2, 'backward-interval'],
    ]);
    expect(read.sources.map((s) => s.record.issued)).toEqual([{ literal: '2009/2001' }, { literal: '2009–2001' }]);
  });

  test('what of a date finds no place is kept beside it', () => {
    expect(article('year={1973b}, month={Michaelmas}').custom).toEqual({
      bibtex: { year: '1973b', month: 'Michaelmas' },
    });
    expect(article('volume={{\\noopsort{12}}12}').volume).toBe('12');
  });
});

describe('numbers and titles', () => {
  test('of number and issue, the number is what BibTeX prints; the other is kept', () => {
    expect(article('number=3, issue=12')).toMatchObject({ issue: '3', custom: { bibtex: { issue: '12' } } });
    expect(article('number=3, issue=3').custom).toBeUndefined();
    expect(article('issue=12').issue).toBe('12');
  });

  test('a whole work is not printed as a part of itself', () => {
    expect(one('@proceedings{a, booktitle={Proceedings of the Sallow}, year=2001}')).toMatchObject({
      type: 'book',
      title: 'Proceedings of the Sallow',
    });
    const both = one('@proceedings{a, title={The {S}allow}, booktitle={The Sallow}}');
    expect(both).toEqual({
      type: 'book',
      title: 'The Sallow',
      'citation-key': 'a',
      custom: { bibtex: { entrytype: 'proceedings' } },
    });
    expect(one('@book{a, title={T}, booktitle={Another}}').custom).toEqual({ bibtex: { booktitle: 'Another' } });
  });

  // BibLaTeX manual, 2.3.5; CSL 1.0.2, volume-title: pandoc reads them so too.
  test('the title of the whole leads, that of the volume follows', () => {
    expect(
      one('@book{a, title={The Gates}, subtitle={1871}, maintitle={Minutes}, mainsubtitle={All}, volume=2}'),
    ).toMatchObject({
      title: 'Minutes: All',
      'volume-title': 'The Gates: 1871',
      volume: '2',
    });
    expect(one('@inbook{a, title={Ebb}, booktitle={The Gates}, maintitle={Minutes}}')).toMatchObject({
      title: 'Ebb',
      'container-title': 'Minutes',
      'volume-title': 'The Gates',
    });
    expect(
      one('@article{a, title={Ebb}, titleaddon={An interview}, journaltitle={Shore}, journalsubtitle={Law}}'),
    ).toMatchObject({
      title: 'Ebb. An interview',
      'container-title': 'Shore: Law',
    });
    expect(one('@incollection{a, title={Ebb}, booktitle={Gates}, booktitleaddon={A reader}}')['container-title']).toBe(
      'Gates. A reader',
    );
  });

  test('written as BibLaTeX, the titles of a volume and of its whole are where others look for them', () => {
    const write = (record: SourceRecord): string => writeSources([{ record, subjects: [] }], 'biblatex');
    const volume = write({ type: 'book', title: 'Minutes', 'volume-title': 'The gates' });
    expect(volume).toMatch(/maintitle = \{Minutes\}[^]*\btitle = \{The gates\}/);
    const part = write({ type: 'chapter', title: 'Ebb', 'container-title': 'Minutes', 'volume-title': 'The gates' });
    expect(part).toMatch(/maintitle = \{Minutes\}/);
    expect(part).toMatch(/booktitle = \{The gates\}/);
    expect(volume + part).not.toContain('csl =');
  });

  test('a court is the authority that decided, not a publisher', () => {
    for (const field of ['institution', 'court', 'organization'])
      expect(one(`@jurisdiction{a, title={R v Quill}, ${field}={High Court of Sallow}}`)).toMatchObject({
        authority: 'High Court of Sallow',
      });
    expect(one('@legislation{a, title={Tidal Works Act}, institution={Assembly}}')).toMatchObject({
      authority: 'Assembly',
    });
    expect(one('@report{a, title={T}, institution={Hydrographic Office}}')).toMatchObject({
      publisher: 'Hydrographic Office',
    });
  });

  test('several places are parted as CSL parts them, a firm is one', () => {
    expect(
      one('@book{a, title={T}, location={Sallow and {Trent and Withy}}, publisher={Quill and Sons}}'),
    ).toMatchObject({
      'publisher-place': 'Sallow; Trent and Withy',
      publisher: 'Quill and Sons',
    });
  });
});

describe('inheritance (BibLaTeX manual, appendix B)', () => {
  const child = (text: string) => readBibtex(text).sources[0]!.record;

  test('a part takes the title of its book as the container, and keeps its own author', () => {
    expect(
      child(
        '@bookinbook{a, crossref=b, title={Ebb}, author={Vance, Ines}}\n@book{b, title={Works}, subtitle={Tides}, author={Ito, Kenzo}, year=1999}',
      ),
    ).toMatchObject({
      title: 'Ebb',
      'container-title': 'Works: Tides',
      author: [{ family: 'Vance' }],
      'container-author': [{ family: 'Ito' }],
      issued: { 'date-parts': [[1999]] },
    });
    expect(child('@inbook{a, crossref=b, title={Ebb}}\n@book{b, title={Works}, author={Ito, Kenzo}}')).toMatchObject({
      author: [{ family: 'Ito' }],
      'container-author': [{ family: 'Ito' }],
    });
  });

  test('a paper does not take the DOI, the address or the pages of its proceedings', () => {
    const paper = child(
      '@inproceedings{a, crossref=b, title={Ebb}, author={Vance, Ines}}\n@proceedings{b, title={Sallow 2001}, editor={Ito, Kenzo}, doi={10.5555/s}, url={https://sallow.example}, pages={1--900}, isbn={9799100000008}}',
    );
    expect(paper).toMatchObject({
      'container-title': 'Sallow 2001',
      editor: [{ family: 'Ito' }],
      ISBN: '9799100000008',
    });
    expect([paper.DOI, paper.URL, paper.page]).toEqual([undefined, undefined, undefined]);
  });

  test('a parent written for BibTeX gives its booktitle or its own title, and neither twice', () => {
    for (const titles of ['booktitle={Sallow}', 'title={Sallow}', 'title={Sallow}, booktitle={Sallow}, subtitle={x}'])
      expect(child(`@inproceedings{a, crossref=b, title={Ebb}}\n@proceedings{b, ${titles}}`)).toMatchObject({
        title: 'Ebb',
        'container-title': 'Sallow',
      });
  });

  test('a volume takes the title of its whole, an issue that of its journal, a version that of its program', () => {
    expect(child('@book{a, crossref=b, title={Gates}}\n@mvbook{b, title={Minutes}}')).toMatchObject({
      title: 'Minutes',
      'volume-title': 'Gates',
    });
    expect(
      child('@article{a, crossref=b, title={Ebb}}\n@periodical{b, title={Shore Law}, issuetitle={Closures}}'),
    ).toMatchObject({
      'container-title': 'Shore Law',
      'volume-title': 'Closures',
    });
    expect(child('@softwareversion{a, crossref=b, version={2}}\n@software{b, title={Gauge}}').title).toBe('Gauge');
  });
});

describe('names', () => {
  test.each([
    ['Okonjo, Marit and others', [{ family: 'Okonjo', given: 'Marit' }, { literal: 'et al.' }]],
    ['Okonjo, Marit and {\\em et~al.}', [{ family: 'Okonjo', given: 'Marit' }, { literal: 'et al.' }]],
    ['Okonjo, M. et al.', [{ family: 'Okonjo', given: 'M.' }, { literal: 'et al.' }]],
    ["{D}e~C\\'aceres, Miquel", [{ 'non-dropping-particle': 'De', family: 'Cáceres', given: 'Miquel' }]],
    ['{de la Cruz}, Ana', [{ family: 'de la Cruz', given: 'Ana' }]],
    ['Lienhard, V, Joan', [{ family: 'Lienhard', suffix: 'V', given: 'Joan' }]],
    ['{{\\noopsort{b}}Vance}, Ines', [{ family: 'Vance', given: 'Ines' }]],
  ])('%s', (author, names) => expect(article(`author={${author}}`).author).toEqual(names));
});
