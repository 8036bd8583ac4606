import fc from 'fast-check';
import { expect, test } from 'vitest';
import { alike, nameKey } from './index.ts';

const named = (...names: string[]): { name: string }[] => names.map((name) => ({ name }));

test.each([
  [['Red', 'red', 'reds', 'read'], [['Red', 'red', 'reds']]],
  [['sea wall', 'sea-wall', 'Sea walls', 'seawater'], [['sea wall', 'sea-wall', 'Sea walls']]],
  [['café', 'Cafe', 'cafés'], [['café', 'Cafe', 'cafés']]],
  [['1872', '1874'], []],
  [['?!', '?!', '!'], [['?!', '?!']]],
  [['tide gauge', 'gauge tide'], []],
])('of %j these are one word: %j', (names, groups) => {
  expect(alike(named(...names)).map((g) => g.map((t) => t.name))).toEqual(groups);
});

test('whatever the names, each stands in one group at most, and a name is alike itself in other letters', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ maxLength: 12 }), { maxLength: 12 }), (names) => {
      const all = alike(named(...names)).flat();
      expect(new Set(all).size).toBe(all.length);
      for (const name of names) if (/^[a-z ]+$/i.test(name)) expect(nameKey(name.toUpperCase())).toBe(nameKey(name));
    }),
  );
});
