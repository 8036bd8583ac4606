import fc from 'fast-check';
import { expect, test } from 'vitest';
import { FIRST_SENSES, TURNS, type Rect } from '../marks/index.ts';
import { mergedNote, quadOf, rectsOfQuads, senseOf, shownSize, tintNear, toShown, toStored } from './index.ts';

const senses = FIRST_SENSES.map((sense, i) => ({ ...sense, id: String(i) }));
const named = (of: Parameters<typeof senseOf>[0]): string | undefined => senseOf(of, senses)?.name;

test('an annotation gets the sense it is named after, else the one of its colour, else the first', () => {
  expect(named({ subject: 'doubt', colour: [1, 1, 0] })).toBe('Doubt');
  expect(named({ subject: 'Highlight', colour: [1, 1, 0] })).toBe('Claim');
  expect(named({ subject: '', colour: [0.9, 0.2, 0.1] })).toBe('Doubt');
  expect(named({ subject: '', colour: [0, 0.7, 0.5] })).toBe('Evidence');
  expect(named({ subject: '', colour: null })).toBe('Claim');
  expect(named({ subject: '', colour: [0.5, 0.5, 0.5] })).toBe('Claim');
});

test('grey is near no tint', () => expect(tintNear([0.2, 0.2, 0.2])).toBeUndefined());

test('a note written on in one place alone is that one’s; written on in both, nothing of either is lost', () => {
  expect(mergedNote('a', 'a', 'b')).toBe('b');
  expect(mergedNote('a', 'b', 'a')).toBe('b');
  expect(mergedNote('a', 'b', 'c')).toBe('b\n\nc');
  expect(mergedNote('a', 'b', '')).toBe('b');
  expect(mergedNote(undefined, 'ours', 'theirs')).toBe('ours\n\ntheirs');
  fc.assert(
    fc.property(fc.option(fc.string()), fc.string(), fc.string(), (read, here, file) => {
      const merged = mergedNote(read ?? undefined, here, file);
      if (here !== read) expect(merged).toContain(here);
      if (file !== read && file) expect(merged).toContain(file);
      // Read once more, it stays as it is.
      expect(mergedNote(file, merged, file)).toBe(merged);
    }),
  );
});

const rect: fc.Arbitrary<Rect> = fc
  .tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 300 }), fc.nat(100), fc.nat(100))
  .map(([x0, y0, w, h]) => ({ x0, y0, x1: x0 + w, y1: y0 + h }));

test('a place on a page, however the page is cut and turned, is the same there and back', () =>
  fc.assert(
    fc.property(rect, rect, fc.constantFrom(...TURNS), (place, box, rotate) => {
      const frame = { box: { ...box, x1: box.x1 + 1, y1: box.y1 + 1 }, rotate };
      expect(toShown(toStored(place, frame), frame)).toEqual(place);
      expect(rectsOfQuads(quadOf(place, frame))).toEqual([toStored(place, frame)]);
    }),
  ));

// A page of 600 × 800 cut to 400 × 500 with a word in it, as poppler 22.12 tells its place (pdftotext -bbox -cropbox) for each turn.
test.each([
  [0, { x0: 50, y0: 35.64, x1: 115.58, y1: 54.14 }, { width: 400, height: 500 }],
  [90, { x0: 445.86, y0: 50, x1: 464.36, y1: 115.58 }, { width: 500, height: 400 }],
  [180, { x0: 284.42, y0: 445.86, x1: 350, y1: 464.36 }, { width: 400, height: 500 }],
  [270, { x0: 35.64, y0: 284.42, x1: 54.14, y1: 350 }, { width: 500, height: 400 }],
] as const)('a word on a page turned by %d stands where poppler says', (rotate, there, size) => {
  const frame = { box: { x0: 100, y0: 200, x1: 500, y1: 700 }, rotate };
  const shown = toShown({ x0: 150, y0: 645.86, x1: 215.58, y1: 664.36 }, frame);
  for (const side of ['x0', 'y0', 'x1', 'y1'] as const) expect(shown[side]).toBeCloseTo(there[side], 2);
  expect(shownSize(frame)).toEqual(size);
});

test('quadrilaterals that are cut off or no numbers are passed over', () =>
  expect(rectsOfQuads([0, 0, 1, 0, 0, 1, 1, 1, NaN, 2, 3, 4, 5, 6, 7, 8, 9])).toEqual([
    { x0: 0, y0: 0, x1: 1, y1: 1 },
  ]));
