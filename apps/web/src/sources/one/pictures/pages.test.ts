import fc from 'fast-check';
import { expect, test } from 'vitest';
import { cropTurned, inOrder, moved, planOf, turnedOn } from './pages.ts';

test('pictures stand in the order their names count', () => {
  const files = ['scan 10.jpg', 'scan 2.jpg', 'scan 1.jpg'].map((name) => new File([], name));
  expect(inOrder(files).map((f) => f.name)).toEqual(['scan 1.jpg', 'scan 2.jpg', 'scan 10.jpg']);
});

test.each([
  [0, 2, 'bac'],
  [2, 0, 'cab'],
  [0, 3, 'bca'],
  [1, 1, 'abc'],
])('the page at %i put before that at %i', (from, to, expected) =>
  expect(moved(['a', 'b', 'c'], from, to).join('')).toBe(expected),
);

test('no page is lost by moving', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(), { maxLength: 9 }), fc.nat(9), fc.nat(9), (pages, from, to) => {
      expect(moved(pages, from, to).sort()).toEqual([...pages].sort());
    }),
  );
});

test('what is cut out is the same after four quarters', () => {
  const crop = { left: 0.1, top: 0.2, width: 0.5, height: 0.25 };
  const all = [1, 2, 3, 4].reduce((c) => cropTurned(c), crop);
  for (const side of ['left', 'top', 'width', 'height'] as const) expect(all[side]).toBeCloseTo(crop[side]);
  expect(turnedOn(turnedOn(270))).toBe(90);
});

test('a turn that nobody chose is left to the application, unless the picture was cut as it lies', () => {
  const file = new File([], 'a.jpg');
  const crop = { left: 0, top: 0, width: 0.5, height: 1 };
  const page = { key: 1, file, turn: undefined, crop: undefined };
  expect(planOf([page, { ...page, turn: 90 }, { ...page, crop }]).pages).toEqual([
    { picture: 0 },
    { picture: 1, turn: 90 },
    { picture: 2, turn: 0, crop },
  ]);
});
