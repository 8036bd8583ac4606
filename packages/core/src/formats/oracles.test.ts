/**
 * Reading beside general-purpose tools of Debian: pandoc (its BibTeX and BibLaTeX readers, to CSL-JSON) and
 * bibutils (ris2xml, bib2xml, to MODS). The inputs are the demo's own or written after the formats' documentation.
 */
import { execFileSync } from 'node:child_process';
import { expect, test } from 'vitest';
import { readBibtex, readRis } from './index.ts';

const pandoc = (from: string, input: string): Record<string, unknown>[] =>
  JSON.parse(execFileSync('pandoc', ['-f', from, '-t', 'csljson'], { input, encoding: 'utf8' })) as Record<
    string,
    unknown
  >[];

const BIB = String.raw`@article{okonjo2014,
  author = {Okonjo, Marit and Tregenza, Piers and van der Zande, Wilhelmina},
  title = {Who closes the gate?},
  journal = {Journal of Water and Shore Law},
  year = {2014}, month = mar, volume = {22}, number = {3}, pages = {201--229},
  doi = {10.5555/jwsl.2014.0223}
}
@book{przyplyw1999,
  author = {Przyp{\l}yw, Zofia and {Sallow Harbour Commission}},
  title = {Fran{\c c}ois {\"U}ber die Gezeiten},
  publisher = {Quillback Press}, address = {Sallow}, year = 1999, edition = {2}
}
@incollection{vance2001,
  author = {Vance, Ines}, title = {Pioneer zones}, booktitle = {Saltmarsh ecology}, editor = {Ito, Kenzo and Marsh, Adela},
  publisher = {Withy University Press}, year = 2001, pages = {11-30}
}
@phdthesis{quill1998, author = {Quill, Tobias}, title = {Tidal restriction}, school = {University of Withy}, year = 1998}
@techreport{ferrow1989, author = {Ferrow, Solveig}, title = {Gauge report}, institution = {Hydrographic Office}, number = {4}, year = 1989}`;

/**
 * pandoc takes BibTeX's "von" part for a dropping particle unless `useprefix` is set; here it is a non-dropping one,
 * since BibTeX's own styles sort under it. The comparison takes either.
 */
/** What both must agree on; names and dates reduced to what a citation shows. */
function essence(item: Record<string, unknown>): unknown {
  const names = (v: unknown): string[] =>
    ((v as Record<string, string>[] | undefined) ?? []).map(
      (n) =>
        n.literal ??
        [n['non-dropping-particle'] ?? n['dropping-particle'], n.family, n.given].filter(Boolean).join(' '),
    );
  const year = (item.issued as { 'date-parts'?: number[][] } | undefined)?.['date-parts']?.[0]?.map(Number);
  return {
    type: item.type,
    title: String(item.title)
      .replace(/<span class="nocase">|<\/span>/g, '')
      .toLowerCase(),
    author: names(item.author),
    editor: names(item.editor),
    container: (item['container-title'] as string | undefined)?.toLowerCase(),
    volume: item.volume,
    page: item.page,
    publisher: item.publisher,
    place: item['publisher-place'],
    year,
    DOI: item.DOI,
  };
}

test('BibTeX reads as pandoc reads it', () => {
  const theirs = pandoc('bibtex', BIB).map(essence);
  const ours = readBibtex(BIB).sources.map((s) => essence(s.record));
  expect(ours).toEqual(theirs);
});

test('BibLaTeX reads as pandoc reads it', () => {
  const bib =
    '@online{a, author = {{Estuary Trust}}, title = {Glossary of tidal works}, url = {https://estuary-trust.example/glossary}, date = {2023-03-30}, urldate = {2026-03-02}}\n@inproceedings{b, author = {Wold, Caspar}, title = {Marsh as plaintiff}, booktitle = {Proceedings of the shore}, date = {2011-05}, pages = {4--9}}';
  expect(readBibtex(bib).sources.map((s) => essence(s.record))).toEqual(pandoc('biblatex', bib).map(essence));
});

const RIS = [
  'TY  - JOUR',
  'AU  - Okonjo, Marit',
  'AU  - Tregenza, Piers',
  'TI  - Who closes the gate?',
  'JO  - Journal of Water and Shore Law',
  'VL  - 22',
  'IS  - 3',
  'SP  - 201',
  'EP  - 229',
  'PY  - 2014',
  'DO  - 10.5555/jwsl.2014.0223',
  'ER  - ',
  'TY  - BOOK',
  'AU  - Vance, Ines',
  'TI  - Silt',
  'PB  - Quillback Press',
  'CY  - Sallow',
  'PY  - 2009',
  'SN  - 9799100000008',
  'ER  - ',
  '',
].join('\r\n');

test('RIS reads as bibutils reads it', () => {
  const mods = execFileSync('ris2xml', [], { input: RIS, encoding: 'utf8', stdio: ['pipe', 'pipe', 'ignore'] });
  const { sources } = readRis(RIS);
  const titles = [...mods.matchAll(/<title>([^<]+)<\/title>/g)].map((m) => m[1]);
  const families = [...mods.matchAll(/<namePart type="family">([^<]+)</g)].map((m) => m[1]);
  for (const { record } of sources) {
    expect(titles).toContain(record.title);
    for (const n of record.author ?? []) expect(families).toContain(n.family);
  }
  expect(mods).toContain('<start>201</start>');
  expect(sources[0]!.record.page).toBe('201-229');
});
