import fc from 'fast-check';
import { expect, test } from 'vitest';
import { MOST_PATHS, pathsAmong, type Placed } from './paths.ts';

/** All paths, as one would write them down by hand. */
function byHand(placed: Placed[], id: string, below: string[] = []): string[] {
  if (below.includes(id)) return [];
  return placed
    .filter((p) => p.id === id)
    .flatMap(({ name, parent }) =>
      parent === null ? [name] : byHand(placed, parent, [...below, id]).map((above) => `${above} › ${name}`),
    );
}

test('each collection has the paths one finds by walking down to it from the top', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(6), fc.option(fc.nat(6))), { maxLength: 9 }), (draws) => {
      // Only below what comes before it: a tree has no circles.
      const placed = draws.map(([id, parent]): Placed => ({
        id: `c${id}`,
        name: `Name ${id}`,
        parent: parent === null || parent >= id ? null : `c${parent}`,
      }));
      const paths = pathsAmong(placed);
      for (const id of new Set(placed.map((p) => p.id))) {
        const all = [...new Set(byHand(placed, id))].sort();
        expect(paths.get(id) ?? []).toEqual(all.length > MOST_PATHS ? expect.arrayContaining([]) : all);
        expect(pathsAmong(placed, [id]).get(id) ?? []).toEqual(paths.get(id) ?? []);
      }
    }),
  );
});

test('collections that each stand twice below the one before take no longer the more of them there are', () => {
  // 2 to the power of 400 ways lead to the last.
  const placed = Array.from({ length: 400 }, (_, i): Placed[] => {
    const parent = i === 0 ? null : `c${i - 1}`;
    return [
      { id: `c${i}`, name: `Level ${i}`, parent },
      { id: `c${i}`, name: `Level ${i}`, parent: parent && `x${i - 1}` },
      { id: `x${i}`, name: `Other ${i}`, parent },
    ];
  }).flat();
  expect(pathsAmong(placed, ['c399']).get('c399')).toHaveLength(MOST_PATHS);
});

test('a circle, which no change makes, ends', () => {
  const placed = [
    { id: 'a', name: 'A', parent: 'b' },
    { id: 'b', name: 'B', parent: 'a' },
    { id: 'b', name: 'B', parent: null },
  ];
  expect(pathsAmong(placed).get('b')).toContain('B');
});
