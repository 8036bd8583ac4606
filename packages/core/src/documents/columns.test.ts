import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { inColumns } from './columns.ts';
import type { TextLine } from './lines.ts';

let count = 0;
const line = (x0: number, x1: number, y: number): TextLine => {
  const start = (count += 10);
  return { start, end: start + 9, words: [], box: { x0, x1, y0: y, y1: y + 10 }, size: 10, then: '\n' };
};
/** A block of lines under each other. */
const block = (x0: number, x1: number, y: number, lines: number): TextLine[] =>
  Array.from({ length: lines }, (_, i) => line(x0, x1, y + i * 12));
const [LEFT, RIGHT, WHOLE] = [
  [50, 290],
  [310, 550],
  [50, 550],
] as const;

describe('the blocks of a page', () => {
  test('in two columns are read down the left one first, whatever the order they come in', () => {
    const [title, a, b, c, d] = [block(...WHOLE, 40, 2), block(...LEFT, 90, 9), block(...LEFT, 210, 9), block(...RIGHT, 90, 9), block(...RIGHT, 210, 9)]; // prettier-ignore
    expect(inColumns([title, a, c, b, d])).toEqual([title, a, b, c, d]);
  });

  test('above and below a wide table are read before and after it', () => {
    const [a, b] = [block(...LEFT, 60, 9), block(...RIGHT, 60, 9)];
    const wide = block(...WHOLE, 200, 4);
    const [c, d] = [block(...LEFT, 260, 9), block(...RIGHT, 260, 9)];
    expect(inColumns([b, d, wide, a, c])).toEqual([a, b, wide, c, d]);
  });

  test('in three columns are read one after the other', () => {
    const columns = [50, 225, 400].map((x) => block(x, x + 150, 60, 12));
    expect(inColumns([columns[1]!, columns[2]!, columns[0]!])).toEqual(columns);
  });

  test('in one column stay as they come: set in, with a narrow table, or few', () => {
    const set = [block(...WHOLE, 60, 10), block(90, 500, 190, 8), block(...WHOLE, 300, 8)];
    expect(inColumns(set)).toBe(set);
    const table = [block(...WHOLE, 60, 12), ...[0, 1, 2].map((i) => block(60 + i * 170, 100 + i * 170, 220, 6))];
    expect(inColumns(table)).toBe(table);
    const few = [block(...LEFT, 60, 3), block(...RIGHT, 60, 3)];
    expect(inColumns(few)).toBe(few);
  });

  test('that hold lines of both columns are taken apart', () => {
    const [left, right] = [block(...LEFT, 60, 9), block(...RIGHT, 60, 9)];
    expect(inColumns([[...left, ...right]])).toEqual([left, right]);
  });

  test('lose no line, whatever stands on the page', () => {
    const some = fc.record({ x: fc.nat(400), width: fc.integer({ min: 5, max: 300 }), y: fc.nat(700), lines: fc.integer({ min: 1, max: 12 }) }); // prettier-ignore
    fc.assert(
      fc.property(fc.array(some, { maxLength: 12 }), (all) => {
        const blocks = all.map(({ x, width, y, lines }) => block(x, x + width, y, lines));
        const starts = (of: TextLine[][]): number[] => of.flat().map((l) => l.start).sort((a, b) => a - b); // prettier-ignore
        expect(starts(inColumns(blocks))).toEqual(starts(blocks));
      }),
    );
  });
});
