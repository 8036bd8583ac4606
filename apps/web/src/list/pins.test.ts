/** Pinned lines: places on screen and in the answer are two views of one order. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { placeInAnswer, placePins, placeShown, type Pin } from './pins.ts';

/** What is to be shown, by hand: pinned lines are taken out and put behind their neighbours. */
function shownBy(answer: string[], pins: Pin[]): string[] {
  const out = answer.filter((id) => !pins.some((p) => p.id === id));
  let left = pins;
  while (left.length) {
    const next = left.filter((p) => p.after === null || out.includes(p.after));
    for (const p of next) out.splice(p.after === null ? 0 : out.indexOf(p.after) + 1, 0, p.id);
    left = left.filter((p) => !next.includes(p));
  }
  return out;
}

test('each place shown has the line that would stand there were the pinned ones moved by hand', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 30 }),
      fc.array(fc.tuple(fc.nat(29), fc.nat(30)), { maxLength: 5 }),
      (size, draws) => {
        const answer = Array.from({ length: size }, (_, i) => `line ${i}`);
        const pins: Pin[] = [];
        for (const [line, behind] of draws) {
          const id = answer[line % size]!;
          // Behind a line that is not pinned itself, and no other stands behind that one.
          const after = behind % (size + 1) === size ? null : answer[behind % (size + 1)]!;
          const taken = pins.some((p) => p.id === id || p.after === after || p.id === after || p.after === id);
          if (!taken && id !== after) pins.push({ id, after });
        }
        const placed = placePins(pins, new Map(answer.map((id, i) => [id, i])));
        expect(answer.map((_, i) => answer[placeInAnswer(placed, i)])).toEqual(shownBy(answer, pins));
        for (let at = 0; at < size; at += 1) expect(placeInAnswer(placed, placeShown(placed, at))).toBe(at);
      },
    ),
  );
});

test('a pinned line stays behind another pinned one', () => {
  const answer = ['b', 'a', 'x', 'y', 'z'];
  const pins: Pin[] = [
    { id: 'b', after: 'a' },
    { id: 'a', after: 'y' },
  ];
  const placed = placePins(pins, new Map(answer.map((id, i) => [id, i])));
  expect(answer.map((_, i) => answer[placeInAnswer(placed, i)])).toEqual(['x', 'y', 'a', 'b', 'z']);
});

test('a line that has left the answer, or whose neighbour has, is pinned no more', () => {
  const places = new Map([
    ['a', 0],
    ['b', 1],
  ]);
  expect(placePins([{ id: 'gone', after: 'a' }], places)).toEqual([]);
  expect(placePins([{ id: 'a', after: 'gone' }], places)).toEqual([]);
  expect(
    placePins(
      [
        { id: 'a', after: 'b' },
        { id: 'gone', after: null },
      ],
      places,
    ),
  ).toEqual([{ id: 'a', at: 0, shown: 1 }]);
});
