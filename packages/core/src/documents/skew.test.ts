import fc from 'fast-check';
import { expect, test } from 'vitest';
import { skewOf } from './index.ts';

const [WIDTH, HEIGHT] = [400, 560];
/** Rows of words as black bars on white, turned clockwise about the middle by some degrees. */
function page(degrees: number): Uint8Array {
  const dots = new Uint8Array(WIDTH * HEIGHT).fill(240);
  const [sin, cos] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  for (let y = 0; y < HEIGHT; y += 1)
    for (let x = 0; x < WIDTH; x += 1) {
      const [dx, dy] = [x - WIDTH / 2, y - HEIGHT / 2];
      const [u, v] = [dx * cos + dy * sin + WIDTH / 2, -dx * sin + dy * cos + HEIGHT / 2];
      const isWord = u > 50 && u < 350 && v > 60 && v < 500 && v % 16 < 7 && (u + Math.floor(v / 16) * 13) % 44 < 36;
      if (isWord) dots[y * WIDTH + x] = 30;
    }
  return dots;
}

test('a page is found as far askew as it was laid', () => {
  fc.assert(
    fc.property(fc.integer({ min: -100, max: 100 }), (tenths) => {
      const degrees = tenths / 10;
      expect(Math.abs(skewOf(page(degrees), WIDTH, HEIGHT) - degrees)).toBeLessThanOrEqual(0.3);
    }),
    { numRuns: 12 },
  );
});

/** From 0 to 1, without a pattern (the mixing of MurmurHash3). */
function scattered(i: number): number {
  let h = Math.imul(i ^ (i >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32;
}

test.each([
  ['an empty page', () => 255],
  ['a dark photograph', (i: number) => scattered(i) * 60],
  ['specks', (i: number) => (scattered(i) > 0.01 ? 250 : 20)],
])('%s is as straight as any', (_, dot) => {
  expect(
    skewOf(
      Uint8Array.from({ length: WIDTH * HEIGHT }, (__, i) => dot(i)),
      WIDTH,
      HEIGHT,
    ),
  ).toBe(0);
});
