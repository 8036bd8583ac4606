import fc from 'fast-check';
import { expect, test } from 'vitest';
import { withPage } from './sorting.ts';

const pagesOf = (runs: number[]): number[] => {
  const out: number[] = [];
  for (let i = 0; i < runs.length; i += 2) for (let p = runs[i]!; p <= runs[i + 1]!; p += 1) out.push(p);
  return out;
};

test('pages that were looked through are kept as runs, whatever the order they were looked at in', () =>
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 30 })), (pages) => {
      const runs = pages.reduce(withPage, [] as number[]);
      expect(pagesOf(runs)).toEqual([...new Set(pages)].sort((a, b) => a - b));
      // Two runs that touch are one.
      for (let i = 2; i < runs.length; i += 2) expect(runs[i]!).toBeGreaterThan(runs[i - 1]! + 1);
    }),
  ));
