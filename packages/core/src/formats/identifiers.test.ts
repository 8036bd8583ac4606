/** Identifiers as they stand in the DOI fields of real bibliographies; each kind was met in one. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { findDois, normaliseDoi } from '../identifiers/index.ts';
import { anyRecord } from '../testing/index.ts';
import { readBibtex, settleIdentifiers } from './index.ts';

const settled = (record: Partial<SourceRecord>): Partial<SourceRecord> => {
  const out = { type: 'book', ...record } as SourceRecord;
  settleIdentifiers(out);
  const { type: _, ...rest } = out;
  return rest;
};

// The SICI of the example in ANSI/NISO Z39.56, as the older DOIs of a journal have it.
const SICI = '10.5555/(sici)1097-4571(199806)49:8<693::aid-asi4>3.0.co;2-o';

describe('a DOI', () => {
  test.each([
    ['info:doi/10.5555/Gate.1', '10.5555/gate.1'],
    ['urn:doi:10.5555/gate.1', '10.5555/gate.1'],
    ['(doi:10.5555/gate.1)', '10.5555/gate.1'],
    ['DOI: https://doi.org/10.5555/gate.1', '10.5555/gate.1'],
    ['10.5555/gate.1.', '10.5555/gate.1'],
    ['10.5555/\u200Bgate.1\u200B', '10.5555/gate.1'],
    ['10.5555/ gate.1', '10.5555/gate.1'],
    ['https://doi.org.proxy.sallow.example/10.5555/gate.1', '10.5555/gate.1'],
    ['https://proxy.sallow.example/login?url=https://doi.org/10.5555/gate.1', '10.5555/gate.1'],
    ['https://shore.example/doi/abs/10.5555/gate.1', '10.5555/gate.1'],
    ['https://shore.example/doi/10.5555/gate.1/full?casa=x#s2', '10.5555/gate.1'],
    ['http://shore.example/doi/pdf/10.5555/gate.1.pdf', '10.5555/gate.1'],
    ['10.5555/gate.1?journalCode=shore', '10.5555/gate.1'],
    [SICI.toUpperCase(), SICI],
    [SICI.replace('<', '&lt;').replace('>', '&gt;'), SICI],
    [`https://doi.org/${encodeURIComponent(SICI)}`, SICI],
    ['10.5555', undefined],
    ['gate.1', undefined],
    ['not 10.5555/gate.1 at all', undefined],
  ])('“%s”', (text, doi) => expect(normaliseDoi(text)).toBe(doi));

  test('of SICI is found in a sentence with its brackets', () => {
    expect(findDois(`See doi:${SICI}, and (10.5555/x).`)).toEqual([SICI, '10.5555/x']);
  });

  test('once in its normal form stays so', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), (suffix) => {
        const doi = normaliseDoi(`10.5555/${suffix}`);
        if (doi) expect(normaliseDoi(doi)).toBe(doi);
      }),
    );
  });
});

describe('a field for one identifier that holds another', () => {
  test.each<[Partial<SourceRecord>, Partial<SourceRecord>]>([
    [{ DOI: 'https://www.ncbi.nlm.nih.gov/pmc/articles/PMC1234567/' }, { PMCID: 'PMC1234567' }],
    [{ DOI: 'https://pubmed.ncbi.nlm.nih.gov/12345/' }, { PMID: '12345' }],
    [{ DOI: 'arXiv:2101.00001v2' }, { DOI: '10.48550/arxiv.2101.00001' }],
    [{ PMID: 'PMID: 12345' }, { PMID: '12345' }],
    [{ URL: 'https://doi.org/10.5555/Gate' }, { URL: 'https://doi.org/10.5555/Gate', DOI: '10.5555/Gate' }],
    [{ note: 'doi:10.5555/gate' }, { DOI: '10.5555/gate' }],
    [{ medium: 'https://sallow.example/x' }, { URL: 'https://sallow.example/x' }],
    [{ DOI: 'forthcoming' }, { DOI: 'forthcoming' }],
    [{ note: 'See 10.5555/gate for more' }, { note: 'See 10.5555/gate for more' }],
  ])('%j', (given, expected) => expect(settled(given)).toEqual(expected));

  test('is put right once and for all', () => {
    fc.assert(
      fc.property(anyRecord, (record) => {
        const once = structuredClone(record);
        settleIdentifiers(once);
        const twice = structuredClone(once);
        settleIdentifiers(twice);
        expect(twice).toEqual(once);
      }),
    );
  });
});

test('in BibTeX they are told from what LaTeX needs around them', () => {
  const doi = (value: string) => readBibtex(`@misc{a, title={T}, ${value}}`).sources[0]!.record.DOI;
  expect(doi('doi={10.5555/a\\_b}')).toBe('10.5555/a_b');
  expect(doi('doi={10.5555/a{\\_}b}')).toBe('10.5555/a_b');
  expect(doi('doi={\\url{https://doi.org/10.5555/x}}')).toBe('10.5555/x');
  expect(doi('howpublished={\\url{https://doi.org/10.5555/x}}')).toBe('10.5555/x');
  expect(doi('howpublished={doi: 10.5555/x}')).toBe('10.5555/x');
  expect(doi('doi={10.5555/(SICI)1097(1998)49:8$<$693::AID-X4$>$3.0.CO;2-O}')).toContain('<693::AID-X4>');
});
