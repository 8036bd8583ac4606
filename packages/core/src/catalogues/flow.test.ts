import fc from 'fast-check';
import { expect, test } from 'vitest';
import { FATES, flowInWords, flowOf, type FoundRecord } from './flow.ts';

const record = (
  search: string,
  catalogue: string,
  accession: string,
  work: number,
  fate?: FoundRecord['fate'],
): FoundRecord => ({
  search,
  catalogue,
  accession,
  work,
  ...(fate && { fate }),
});

test('a record two searches found counts once, and a work several catalogues have is screened once', () => {
  const flow = flowOf([
    record('a', 'Shoreline', 'S1', 0, 'taken in'),
    record('a', 'Northmere', 'N1', 0),
    record('a', 'Shoreline', 'S2', 1),
    record('b', 'Shoreline', 'S1', 5),
    record('b', 'Northmere', 'N9', 6, 'set aside'),
  ]);
  expect(flow).toEqual({
    catalogues: [
      { name: 'Shoreline', records: 2, works: 2, taken: 1 },
      { name: 'Northmere', records: 2, works: 2, taken: 1 },
    ],
    matched: 4,
    records: 4,
    duplicates: 1,
    works: 3,
    fates: { 'taken in': 1, joined: 0, waiting: 0, 'set aside': 1, left: 1 },
  });
  expect(flowInWords(flow, 2, '15 November 2026', '28 November 2026')).toBe(
    '2 searches between 15 November 2026 and 28 November 2026 in Shoreline (2 records) and Northmere (2 records). 4 records found; 1 duplicate removed; 3 works screened; 1 work included; 1 work set aside after reading; 1 work not gathered.',
  );
});

test('what the catalogues have and nobody fetched is told apart from what was screened', () => {
  const flow = flowOf([record('a', 'Shoreline', 'S1', 0), record('a', 'Shoreline', 'S2', 1)], 1240);
  expect(flowInWords(flow, 1, '1 May 2026', '1 May 2026')).toContain(
    '1,240 records found, of which 2 were fetched; 0 duplicates removed; 2 works screened;',
  );
});

test('whatever was found, no work is lost and none is counted twice', () => {
  const any = fc.record({
    search: fc.constantFrom('a', 'b'),
    catalogue: fc.constantFrom('x', 'y', 'z'),
    accession: fc.constantFrom('1', '2', '3', '4'),
    work: fc.nat(5),
    fate: fc.option(fc.constantFrom(...FATES), { nil: undefined }),
  });
  fc.assert(
    fc.property(fc.array(any, { maxLength: 30 }), (found) => {
      const flow = flowOf(found as FoundRecord[]);
      expect(Object.values(flow.fates).reduce((a, b) => a + b, 0)).toBe(flow.works);
      expect(flow.records - flow.duplicates).toBe(flow.works);
      expect(flow.catalogues.reduce((a, c) => a + c.records, 0)).toBe(flow.records);
    }),
  );
});
