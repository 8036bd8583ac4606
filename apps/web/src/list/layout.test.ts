/** Where lines are: by arithmetic, as if each were measured. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { scrollTo, viewOf, type Layout } from './layout.ts';

const layouts = fc
  .record({
    count: fc.integer({ min: 1, max: 200 }),
    lineHeight: fc.integer({ min: 20, max: 90 }),
    headHeight: fc.constantFrom(0, 30),
    heads: fc.uniqueArray(fc.nat(199), { maxLength: 8 }),
  })
  .map(({ heads, ...l }): Layout => ({ ...l, heads: heads.filter((h) => h < l.count).sort((a, b) => a - b) }));

/** Each line one after another, as a browser would lay them out. */
function byHand({ count, lineHeight, headHeight, heads }: Layout): { start: number; size: number }[] {
  let at = 0;
  return Array.from({ length: count }, (_, i) => {
    const size = lineHeight + (heads.includes(i) ? headHeight : 0);
    at += size;
    return { start: at - size, size };
  });
}

test('each line that is drawn stands where it would were all of them drawn, and nothing seen is left out', () => {
  fc.assert(
    fc.property(layouts, fc.nat(20_000), fc.integer({ min: 50, max: 900 }), (layout, wish, seen) => {
      const all = byHand(layout);
      const whole = all.at(-1)!.start + all.at(-1)!.size;
      const scrolled = Math.min(wish, Math.max(0, whole - seen));
      const { height, items } = viewOf(layout, scrolled, seen);
      expect(height).toBe(whole);
      for (const { index, ...place } of items) expect(place).toEqual(all[index]);
      const drawn = new Set(items.map((i) => i.index));
      all.forEach(({ start, size }, i) => {
        if (start < scrolled + seen && start + size > scrolled) expect(drawn.has(i)).toBe(true);
      });
    }),
  );
});

test('a line that is gone to is seen whole, and one that is seen already moves nothing', () => {
  fc.assert(
    fc.property(layouts, fc.nat(199), fc.nat(20_000), (layout, at, wish) => {
      const seen = 400;
      const index = at % layout.count;
      const { start, size } = byHand(layout)[index]!;
      const scrolled = Math.min(wish, Math.max(0, viewOf(layout, 0, seen).height - seen));
      const to = scrollTo(layout, index, scrolled, seen);
      expect(start >= to && start + size <= to + seen).toBe(true);
      if (start >= scrolled && start + size <= scrolled + seen) expect(to).toBe(scrolled);
    }),
  );
});

test('of more lines than a browser can draw the last is reached all the same, and no more is drawn than is seen', () => {
  const layout: Layout = { count: 2_000_000, lineHeight: 50, headHeight: 0, heads: [] };
  const seen = 600;
  const { height } = viewOf(layout, 0, seen);
  expect(height).toBeLessThan(33_000_000);
  const end = scrollTo(layout, layout.count - 1, 0, seen);
  const { items } = viewOf(layout, end, seen);
  expect(items.at(-1)!.index).toBe(layout.count - 1);
  expect(items.at(-1)!.start + 50).toBeCloseTo(end + seen, 3);
  expect(items.length).toBeLessThan(60);
});
