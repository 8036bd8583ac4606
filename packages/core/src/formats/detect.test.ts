import { describe, expect, test } from 'vitest';
import { detectFormat, isPdf, knownAs } from './index.ts';

const bytes = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));

/** As a database writes it (the format's description, MEDLINE/PubMed Data Element Descriptions; from memory). */
const MEDLINE = `PMID- 1000001
OWN - NLM
STAT- MEDLINE
TI  - Silt in small estuaries.
FAU - Vance, Ines
AU  - Vance I
JT  - Coastal processes
SO  - Coast Proc. 2009;1(2):3-9.

PMID- 1000002
TI  - Gates.
AU  - Okonjo M
`;

describe('a file that only resembles a format is not read as it, and is named', () => {
  test.each([
    [
      'FN Sallow Index\nVR 1.0\nPT J\nAU Vance, I\nTI Silt\nER\n\nEF\n',
      'a tagged export with two-letter tags (FN, PT, AU, TI)',
    ],
    ['%0 Journal Article\n%A Vance, Ines\n%T Silt\n', 'refer'],
    [
      '<!DOCTYPE html><html><style>@media (max-width: 3em) { a { b: c } }</style><p>@article{a, title={T}}</p></html>',
      'an HTML page',
    ],
    ['{"name": "gauge", "version": "1.0", "type": "module"}', 'JSON, but not of the CSL-JSON form'],
    ['{"type": "FeatureCollection", "features": []}', 'JSON, but not of the CSL-JSON form'],
    ['Dear Ines, the title, if you ask me,\nought to name the author, and the year.\n', undefined],
    ['{\\rtf1 Silt}', 'RTF'],
    ['\\documentclass{article}\n\\begin{document}Silt\\end{document}', 'a TeX document'],
    ['PK\x03\x04\x14\0\0\0word/document.xml', 'a DOCX document'],
    ['\x89PNG\r\n', 'a picture (PNG)'],
    ['@media print { p { color: red } }\n', undefined],
    ['@Test(timeout = 3)\nvoid gate() {}\n', undefined],
    ['Dear diary', undefined],
  ])('%j', (text, name) => {
    expect(detectFormat(text)).toBeUndefined();
    expect(knownAs(bytes(text), text)).toBe(name);
  });

  test('a page that tells of a PDF is none', () => {
    expect(isPdf(bytes('<html>\n%PDF-1.4 begins a file</html>'))).toBe(false);
    expect(isPdf(bytes('\0\0%PDF-1.4'))).toBe(true);
  });
});

test.each([
  ['@unheard{key, title={T}}', 'bibtex'],
  ['@book{title={T}}', 'bibtex'],
  ['% of my own\n@string{a = "b"}\n', 'bibtex'],
  ['Some words before\r\nTY  - JOUR\r\nER  - \r\n', 'ris'],
  ['TI  - No type\nER  - \n', 'ris'],
  [MEDLINE, 'medline'],
  ['<?xml version="1.0"?><PubmedArticleSet></PubmedArticleSet>', 'pubmed'],
  ['<article xmlns:xlink="x" article-type="research-article"><front/></article>', 'jats'],
  ['<collection xmlns="http://www.loc.gov/MARC21/slim"><record/></collection>', 'marcxml'],
  ['00714cam a2200205 a 4500001001300000', 'marc'],
  ['<oai_dc:dc xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>Silt</dc:title></oai_dc:dc>', 'dc'],
  ['<?xml version="1.0"?>\n<TEI xmlns="http://www.tei-c.org/ns/1.0"/>', 'tei'],
  ['---\nreferences:\n- id: silt\n  type: book\n', 'csl-yaml'],
  ['Title,Author,Year\nSilt,Vance,2009\n', 'csv'],
  ['Authors;Title;Publication year\nVance;Silt;2009\n', 'csv'],
  ['[]', 'csl-json'],
  ['{"items": [{"type": "book", "title": "T"}]}', 'csl-json'],
])('%j is read as %s', (text, format) => expect(detectFormat(text)).toBe(format));
