import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { OverviewReply } from '@pandecta/contract';
import { narrowedTo, pairPart, wordsWithout, yearPart } from './parts.ts';
import { nearest, type Shape } from './steps.ts';

const reply: OverviewReply = {
  total: 100,
  rows: [
    { key: 't1', name: 'used', count: 20 },
    { key: 't2', name: 'adverse', count: 10 },
  ],
  columns: [
    { key: 'c1', name: 'Chapter 1', count: 50 },
    { key: 'c2', name: 'Chapter 2', count: 30 },
  ],
  cells: [
    { row: 0, column: 0, count: 15 },
    { row: 1, column: 1, count: 1 },
  ],
  rowsInAll: 2,
  columnsInAll: 2,
};
const sides = { rows: 'tag', columns: 'in' } as const;

test('a pair says how much of either it is, and how that compares with chance', () => {
  expect(pairPart(reply, 0, 0, sides)).toMatchObject({
    title: 'used, with Chapter 1',
    count: 15,
    says: '75 % of used, 30 % of Chapter 1; 5 more than chance would put there',
    facets: ['tag=t1', 'in=c1'],
  });
  expect(pairPart(reply, 1, 1, sides).says).toContain('2 fewer than chance');
});

test('a part narrows the question: two tags at once, but one kind in place of another', () => {
  const part = { key: '', title: '', count: 1, says: '', facets: ['tag=t1', 'kind=book'] };
  expect(narrowedTo({ q: 'gate', include: ['tag=t2', 'kind=map', 'kind=report'] }, part)).toEqual({
    q: 'gate',
    include: ['tag=t2', 'tag=t1', 'kind=book'],
  });
});

test('a stretch of years is narrowed to with both its ends', () => {
  const byYear: OverviewReply = {
    ...reply,
    columns: [
      { key: '1860', name: '1860–1869', count: 3 },
      { key: '1870', name: '1870–1879', count: 9 },
    ],
  };
  expect(narrowedTo({}, yearPart(byYear, 1, 1, 'kind'))).toMatchObject({ yearFrom: 1870, yearTo: 1879 });
});

test('left out, a part is taken from the words of the question by its names', () => {
  const part = pairPart(reply, 0, 0, sides);
  const names: Record<string, string> = { t1: 'used', c1: 'Chapter 1' };
  expect(wordsWithout({ q: 'gate or silt' }, part, (_, key) => names[key])).toBe(
    '(gate or silt) -(tag:"used" in:"Chapter 1")',
  );
  expect(wordsWithout({}, part, (_, key) => names[key])).toBe('-(tag:"used" in:"Chapter 1")');
});

test('an arrow goes to what lies that way, and never back or aside', () => {
  const shape = fc.record({ key: fc.uuid(), x: fc.nat(500), y: fc.nat(500) });
  fc.assert(
    fc.property(fc.uniqueArray(shape, { selector: (s: Shape) => s.key, maxLength: 20 }), shape, (shapes, from) => {
      const right = nearest(shapes, from, 'ArrowRight');
      expect(right === undefined || right.x > from.x).toBe(true);
      expect(right === undefined).toBe(!shapes.some((s) => s.x > from.x));
      const up = nearest(shapes, from, 'ArrowUp');
      expect(up === undefined || up.y < from.y).toBe(true);
      expect(nearest(shapes, from, 'Tab')).toBeUndefined();
    }),
  );
});
