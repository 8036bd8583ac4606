import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  findQuote,
  isShown,
  NO_FILTER,
  offeredSenses,
  quoteAt,
  turnBack,
  turned,
  turnRect,
  TURNS,
  type Turn,
} from './index.ts';

const words = fc.array(fc.constantFrom('the', 'gate', 'shall', 'be', 'kept', 'open', 'at', 'ebb', 'tide'), {
  minLength: 4,
  maxLength: 40,
});

test('a quotation is found again where it was taken from, however often its words are repeated', () => {
  fc.assert(
    fc.property(words, fc.nat(), fc.nat(), (list, a, b) => {
      const text = list.join(' ');
      const from = a % list.length;
      const to = from + 1 + (b % (list.length - from));
      const start = list.slice(0, from).join(' ').length + (from ? 1 : 0);
      const end = list.slice(0, to).join(' ').length;
      expect(findQuote(text, quoteAt(text, start, end), start)).toEqual({ start, end });
    }),
  );
});

test('it is found though the page was read anew with other line breaks and hyphens', () => {
  const before = 'The commissioners shall maintain the tidal gate and keep it open upon the ebb.';
  const quote = quoteAt(before, before.indexOf('maintain'), before.indexOf(' upon'));
  const after = 'THE ACT\n\nThe commissioners shall main-\ntain the tidal  gate\nand keep it open upon the ebb.';
  const found = findQuote(after, quote, 0)!;
  expect(after.slice(found.start, found.end)).toBe('main-\ntain the tidal  gate\nand keep it open');
});

test('of several places the surroundings decide, and only then the nearness', () => {
  const text = 'Rule 1: close the gate at dusk. Rule 2: close the gate at dawn. Rule 3: close the gate at dusk.';
  const third = text.lastIndexOf('close the gate');
  const quote = quoteAt(text, third, third + 14);
  expect(findQuote(text, quote, 0)!.start).toBe(third);
  const bare = { exact: 'close the gate', prefix: '', suffix: '' };
  expect(findQuote(text, bare, 45)!.start).toBe(text.indexOf('close the gate', 20));
});

test('words that are not on the page any more are not found, and neither is nothing', () => {
  expect(findQuote('The gate was open.', { exact: 'The lock was shut', prefix: '', suffix: '' })).toBeUndefined();
  expect(findQuote('The gate was open.', { exact: ' - ', prefix: '', suffix: '' })).toBeUndefined();
});

test('a place on a turned page is turned back to where it was, and stays on the page', () => {
  const side = fc.integer({ min: 100, max: 900 });
  fc.assert(
    fc.property(side, side, fc.constantFrom(...TURNS), fc.nat(99), fc.nat(99), (width, height, turn, x, y) => {
      const rect = { x0: x, y0: y, x1: x + 1, y1: y + 1 };
      const shown = turnRect(rect, { width, height }, turn);
      expect(turnBack(shown, { width, height }, turn)).toEqual(rect);
      const [across, down] = turn % 180 ? [height, width] : [width, height];
      expect([shown.x0 >= 0, shown.y0 >= 0, shown.x1 <= across, shown.y1 <= down]).toEqual([true, true, true, true]);
    }),
  );
});

test('a page turned four times to the right, or right and left, stands as it stood', () => {
  expect([90, 90, 90, 90].reduce<Turn>((t) => turned(t, 90), 0)).toBe(0);
  expect(turned(turned(180, 90), -90)).toBe(180);
});

test('senses are offered by their keys, without those that are retired or were merged', () => {
  const sense = (id: string, key: number | null, more: object = {}) => ({
    id,
    name: id,
    key,
    colour: 'sky' as const,
    says: '',
    retired: false,
    into: null,
    ...more,
  });
  const all = [
    sense('z', null),
    sense('b', 2),
    sense('r', null, { retired: true }),
    sense('a', 1),
    sense('m', 3, { into: 'a' }),
  ];
  expect(offeredSenses(all).map((s) => s.id)).toEqual(['a', 'b', 'z']);
});

describe('a filter of marks', () => {
  const mark = {
    sense: 'doubt',
    shape: 'region' as const,
    by: 'Marit',
    quote: quoteAt('Who shuts it', 4, 9),
    gloss: 'The Tenant',
  };
  test.each([
    [{}, true],
    [{ senses: ['doubt', 'claim'] }, true],
    [{ senses: ['claim'] }, false],
    [{ shapes: ['region' as const], people: ['Marit'] }, true],
    [{ people: ['Ines'] }, false],
    [{ words: ' tenant ' }, true],
    [{ words: 'SHUTS' }, true],
    [{ words: 'gate' }, false],
    [{ senses: ['doubt'], words: 'gate' }, false],
  ])('%j lets it through: %s', (some, shown) => expect(isShown(mark, { ...NO_FILTER, ...some })).toBe(shown));
});
