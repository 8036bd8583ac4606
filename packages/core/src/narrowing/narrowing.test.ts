import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import {
  Bits,
  countPairs,
  overlapsOf,
  Columns,
  matching,
  NO_YEAR,
  orderOf,
  PRESENCES,
  Ranking,
  type ColumnRows,
  type Condition,
  type Placing,
  type SortBy,
} from './index.ts';

interface Plain {
  presence: number;
  year: number;
  added: number;
  changed: number;
  facets: number[];
  title: number;
}

const FACETS = [10, 11, 12, 40, 41] as const;
const TYPES: Record<number, string> = { 10: 'kind', 11: 'kind', 12: 'kind', 40: 'tag', 41: 'tag' };

const plain: fc.Arbitrary<Plain> = fc.record({
  presence: fc.integer({ min: 0, max: 2 }),
  year: fc.oneof(fc.constant(NO_YEAR), fc.integer({ min: -50, max: 2030 })),
  added: fc.integer({ min: 0, max: 2_000_000_000_000 }),
  changed: fc.integer({ min: 0, max: 3 }),
  facets: fc.uniqueArray(fc.constantFrom(...FACETS)),
  title: fc.integer({ min: 1, max: 4 }),
});

const leaf: fc.Arbitrary<Condition> = fc.oneof(
  fc.constant<Condition>({ is: 'all' }),
  fc.constant<Condition>({ is: 'none' }),
  fc.record({ is: fc.constant('set' as const), set: fc.integer({ min: 0, max: 1 }) }),
  fc.record({ is: fc.constant('facets' as const), ids: fc.uniqueArray(fc.constantFrom(...FACETS, 99)) }),
  fc.record({ is: fc.constant('years' as const), from: fc.integer({ min: -60, max: 2030 }) }),
  fc.record({ is: fc.constant('years' as const), to: fc.integer({ min: -60, max: 2030 }) }),
  fc.record(
    {
      is: fc.constant('times' as const),
      of: fc.constantFrom('added' as const, 'changed' as const),
      from: fc.integer({ min: 0, max: 2_000_000_000_000 }),
      before: fc.integer({ min: 0, max: 2_000_000_000_000 }),
    },
    { requiredKeys: ['is', 'of'] },
  ),
);
const { tree } = fc.letrec<{ tree: Condition }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 4 },
    leaf,
    fc.record({ is: fc.constantFrom('and' as const, 'or' as const), parts: fc.array(tie('tree'), { maxLength: 3 }) }),
    fc.record({ is: fc.constant('not' as const), part: tie('tree') }),
  ),
}));

function rowsOf(entries: [number, Plain][]): ColumnRows {
  const starts = [0];
  for (const [, p] of entries) starts.push(starts.at(-1)! + p.facets.length);
  return {
    numbers: Int32Array.from(entries, (e) => e[0]),
    ids: Uint8Array.from(entries.flatMap(([n]) => Array.from({ length: 16 }, (_, i) => (i < 15 ? 7 : n)))),
    presences: Uint8Array.from(entries, (e) => e[1].presence),
    years: Int32Array.from(entries, (e) => e[1].year),
    added: Float64Array.from(entries, (e) => e[1].added),
    changed: Float64Array.from(entries, (e) => e[1].changed),
    starts: Int32Array.from(starts),
    facets: Int32Array.from(entries.flatMap((e) => e[1].facets)),
  };
}

function columnsOf(sources: Plain[]): Columns {
  const columns = new Columns();
  columns.learn(FACETS.map((f) => [f, TYPES[f]!]));
  columns.write(rowsOf(sources.map((s, n) => [n, s])));
  columns.rank(
    'title',
    Ranking.by(sources.length, (n) => sources[n]!.title),
  );
  return columns;
}

/** Where these numbers stand by title among the others, as a database tells it. */
function placings(sources: Plain[], moved: number[]): Placing[] {
  const title = (n: number): number => sources[n]!.title;
  const others = sources.map((_, n) => n).filter((n) => !moved.includes(n));
  return [...moved]
    .sort((a, b) => title(a) - title(b))
    .map((number, i, line) => ({
      number,
      after: others.filter((o) => title(o) < title(number)).sort((a, b) => title(b) - title(a))[0] ?? -1,
      same: others.find((o) => title(o) === title(number)) ?? -1,
      tied: i > 0 && title(line[i - 1]!) === title(number),
    }));
}

/** The live sources compared key by key. */
function compared(sources: Plain[], sort: SortBy[]): number[] {
  const value = (n: number, k: string): number => sources[n]![k as 'year'];
  return sources
    .map((_, n) => n)
    .filter((n) => sources[n]!.presence === 1)
    .sort((a, b) => {
      for (const { key, descending } of sort) {
        const [x, y] = [value(a, key), value(b, key)];
        if (x === y) continue;
        if (key === 'year' && (x === NO_YEAR || y === NO_YEAR)) return x === NO_YEAR ? 1 : -1;
        return descending ? y - x : x - y;
      }
      return sort.at(-1)!.descending ? b - a : a - b;
    });
}

const live = (columns: Columns): Bits => matching(columns, 'live', { is: 'all' });

/** What a condition means, one source at a time. */
function holds(c: Condition, s: Plain, n: number, sets: number[][]): boolean {
  switch (c.is) {
    case 'all':
      return true;
    case 'none':
      return false;
    case 'and':
      return c.parts.every((p) => holds(p, s, n, sets));
    case 'or':
      return c.parts.some((p) => holds(p, s, n, sets));
    case 'not':
      return !holds(c.part, s, n, sets);
    case 'set':
      return sets[c.set]!.includes(n);
    case 'facets':
      return c.ids.some((f) => s.facets.includes(f));
    case 'years':
      return s.year !== NO_YEAR && s.year >= (c.from ?? -Infinity) && s.year <= (c.to ?? Infinity);
    case 'times':
      return s[c.of] >= (c.from ?? -Infinity) && s[c.of] < (c.before ?? Infinity);
  }
}

const library = fc.array(plain, { maxLength: 70 });
const sets = fc.tuple(fc.array(fc.integer({ min: 0, max: 80 })), fc.array(fc.integer({ min: 0, max: 80 })));

describe('sets of numbers', () => {
  test('agree with plain sets in all they can do', () => {
    const numbers = fc.array(fc.integer({ min: 0, max: 99 }));
    fc.assert(
      fc.property(numbers, numbers, (a, b) => {
        const [left, right] = [Bits.of(100, a), Bits.of(100, b)];
        const sorted = (list: Iterable<number>): number[] => [...new Set(list)].sort((x, y) => x - y);
        expect([...left.numbers()]).toEqual(sorted(a));
        expect(left.count).toBe(new Set(a).size);
        expect([...left.and(right).numbers()]).toEqual(sorted(a.filter((n) => b.includes(n))));
        expect([...left.or(right).numbers()]).toEqual(sorted([...a, ...b]));
        expect([...left.without(right).numbers()]).toEqual(sorted(a.filter((n) => !b.includes(n))));
        expect([...left.numbers(2)]).toEqual(sorted(a).slice(0, 2));
        for (const n of a) expect(left.has(n)).toBe(true);
        const amended = left.amended(120, b, [110]);
        expect([...amended.numbers()]).toEqual([...sorted(a.filter((n) => !b.includes(n))), 110]);
      }),
    );
  });

  test('that overlap are counted once each, in the choice of them that holds them alone', () => {
    const several = fc.array(fc.array(fc.integer({ min: 0, max: 70 })), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(several, (sets) => {
        // Of different sizes, as sets of words asked for earlier are.
        const counts = overlapsOf(sets.map((members, i) => Bits.of(71 + i * 32, members)));
        const expected = counts.map(
          (_, choice) =>
            [...new Set(sets.flat())].filter((n) => sets.every((set, i) => set.includes(n) === Boolean(choice & (1 << i)))).length, // prettier-ignore
        );
        expect(counts).toEqual(expected);
      }),
    );
  });

  test('hold every bit of a word, the last one too', () => {
    expect([...Bits.of(64, [31, 32, 63]).numbers()]).toEqual([31, 32, 63]);
    expect(Bits.where(64, () => true).count).toBe(64);
  });
});

test('a condition over the columns means what it means for one source at a time', () => {
  fc.assert(
    fc.property(library, tree, sets, fc.constantFrom(...PRESENCES), (sources, condition, sets, presence) => {
      const columns = columnsOf(sources);
      const bits = sets.map((s) => Bits.of(columns.size, s));
      const found = matching(columns, presence, condition, bits);
      const expected = sources.flatMap((s, n) =>
        PRESENCES[s.presence] === presence && holds(condition, s, n, sets) ? [n] : [],
      );
      expect([...found.numbers()]).toEqual(expected);
    }),
  );
});

test('sources written again, in any share, are known as last written', () => {
  fc.assert(
    fc.property(library, fc.array(fc.tuple(fc.nat(69), plain), { maxLength: 60 }), (sources, later) => {
      const columns = columnsOf(sources);
      const now = [...sources];
      for (const [at, s] of later) {
        if (at >= now.length) continue;
        columns.write(rowsOf([[at, s]]));
        now[at] = s;
      }
      const fresh = columnsOf(now);
      for (const facet of FACETS)
        expect([...matching(columns, 'live', { is: 'facets', ids: [facet] }).numbers()]).toEqual([
          ...matching(fresh, 'live', { is: 'facets', ids: [facet] }).numbers(),
        ]);
      expect(now.map((_, n) => columns.yearOf(n))).toEqual(now.map((s) => s.year));
    }),
  );
});

test('what was forgotten is of no presence, and room is not lost to what was written often', () => {
  const one: Plain = { presence: 1, year: 1900, added: 0, changed: 0, facets: [10, 40], title: 1 };
  const columns = columnsOf([one, one, one]);
  for (let i = 0; i < 20_000; i += 1) columns.write(rowsOf([[1, { ...one, facets: i % 2 ? [11] : [10, 41] }]]));
  columns.forget([0]);
  expect([...matching(columns, 'live', { is: 'all' }).numbers()]).toEqual([1, 2]);
  expect([...matching(columns, 'live', { is: 'facets', ids: [11] }).numbers()]).toEqual([1]);
  expect([...matching(columns, 'live', { is: 'facets', ids: [40] }).numbers()]).toEqual([2]);
});

describe('orders', () => {
  const key = fc.record({
    key: fc.constantFrom('year', 'added', 'changed', 'title'),
    descending: fc.boolean(),
  });
  const keys = fc.uniqueArray(key, { selector: (k) => k.key, minLength: 1, maxLength: 4 });

  test('are those of comparing key by key, with no year last, whichever way, in any stretch', () => {
    fc.assert(
      fc.property(library, keys, fc.nat(70), fc.nat(20), (sources, sort, from, count) => {
        const columns = columnsOf(sources);
        const expected = compared(sources, sort);
        const order = orderOf(columns, live(columns), sort);
        expect([...order.stretch(0, Infinity)]).toEqual(expected);
        expect([...order.stretch(from, count)]).toEqual(expected.slice(from, from + count));
        expect(expected.map((n) => order.placeOf(n))).toEqual(expected.map((_, at) => at));
      }),
    );
  });

  test('of few among many are those of the few', () => {
    fc.assert(
      fc.property(
        fc.array(plain, { minLength: 200, maxLength: 300 }),
        keys,
        fc.uniqueArray(fc.nat(199)),
        (all, sort, few) => {
          const sources = all.map((s, n) => ({ ...s, presence: few.slice(0, 9).includes(n) ? 1 : 2 }));
          const columns = columnsOf(sources);
          expect([...orderOf(columns, live(columns), sort).stretch(0, Infinity)]).toEqual(compared(sources, sort));
        },
      ),
      { numRuns: 30 },
    );
  });

  test('after any alterations are those of the sources as they are now, though only those that moved are placed anew', () => {
    // So many titles that several new ones come between the same two.
    const titled = fc.tuple(plain, fc.nat(40)).map(([s, title]) => ({ ...s, title, presence: 1 }));
    const alteration = fc.array(fc.tuple(fc.nat(75), titled), { maxLength: 6 });
    fc.assert(
      fc.property(library, keys, fc.array(alteration, { minLength: 2, maxLength: 5 }), (sources, sort, alterations) => {
        const columns = columnsOf(sources);
        const now = [...sources];
        for (const altered of alterations) {
          const moved = new Map(altered.filter(([n]) => n <= now.length));
          for (const [n, s] of moved) now[n] = s;
          columns.write(rowsOf([...moved]));
          columns.place('title', placings(now, [...moved.keys()]), []);
          for (const by of [sort, [{ key: 'title', descending: false }]])
            expect([...orderOf(columns, live(columns), by).stretch(0, Infinity)]).toEqual(compared(now, by));
        }
      }),
      { numRuns: 300 },
    );
  });

  test('by a key nobody ranked are refused', () => {
    const columns = columnsOf([]);
    expect(() => orderOf(columns, Bits.none(0), [{ key: 'author', descending: false }])).toThrow(RangeError);
  });
});

test('facets that are as frequent stand by their ids, whenever they were met', () => {
  const one = (facets: number[]): Plain => ({ presence: 1, year: 1900, added: 0, changed: 0, facets, title: 1 });
  const counted = (...sources: Plain[]): [number, number][] => {
    const columns = new Columns();
    const met = columns.write(rowsOf(sources.map((s, n) => [n, s])));
    columns.learn(met.map((f) => [f, TYPES[f]!]));
    return columns.countFacets((each) => live(columns).forEach(each), { kind: 2 }).get('kind')!;
  };
  const expected = [
    [10, 1],
    [11, 1],
  ];
  expect(counted(one([12]), one([11]), one([10]))).toEqual(expected);
  expect(counted(one([10]), one([12]), one([11]))).toEqual(expected);
});

test('facets are counted by type, the most frequent first, and no more than asked for', () => {
  fc.assert(
    fc.property(library, fc.integer({ min: 1, max: 3 }), (sources, most) => {
      const columns = columnsOf(sources);
      const counted = columns.countFacets((each) => live(columns).forEach(each), { kind: most, tag: 2 });
      for (const [type, room] of [
        ['kind', most],
        ['tag', 2],
      ] as const) {
        const all = FACETS.filter((f) => TYPES[f] === type)
          .map((f) => sources.filter((s) => s.presence === 1 && s.facets.includes(f)).length)
          .filter(Boolean)
          .sort((a, b) => b - a);
        expect(counted.get(type)!.map((c) => c[1])).toEqual(all.slice(0, room));
      }
    }),
  );
});

test('what goes together is counted as it is one source at a time, of the most frequent of each side', () => {
  fc.assert(
    fc.property(fc.array(plain, { maxLength: 30 }), fc.integer({ min: 1, max: 3 }), (sources, most) => {
      const columns = columnsOf(sources);
      const here = sources.filter((s) => s.presence === 1);
      const bearing = (f: number): Plain[] => here.filter((s) => s.facets.includes(f));
      const pairs = countPairs(columns, live(columns), { facets: ['tag'], most }, { facets: ['kind'], most });
      for (const [r, row] of pairs.rows.entries()) {
        expect(row.count).toBe(bearing(row.value).length);
        for (const [c, column] of pairs.columns.entries())
          expect(pairs.cells[r * pairs.columns.length + c]).toBe(
            bearing(row.value).filter((s) => s.facets.includes(column.value)).length,
          );
      }
      const borne = FACETS.filter((f) => TYPES[f] === 'tag' && bearing(f).length);
      expect([pairs.rows.length, pairs.inAll[0]]).toEqual([Math.min(most, borne.length), borne.length]);
      const least = Math.min(...pairs.rows.map((r) => r.count));
      for (const f of borne.filter((b) => !pairs.rows.some((r) => r.value === b)))
        expect(bearing(f).length).toBeLessThanOrEqual(least);
    }),
  );
});

test('years stand in a line without a gap, by the decade or the century where they are too many', () => {
  fc.assert(
    fc.property(fc.array(plain, { maxLength: 30 }), fc.integer({ min: 3, max: 200 }), (sources, most) => {
      const columns = columnsOf(sources);
      const { rows, stretch } = countPairs(
        columns,
        live(columns),
        { years: true, most },
        { facets: ['kind'], most: 1 },
      );
      const years = sources.filter((s) => s.presence === 1 && s.year !== NO_YEAR).map((s) => s.year);
      expect(rows.length).toBeLessThanOrEqual(most);
      expect(rows.map((r) => r.value)).toEqual(rows.map((_, i) => rows[0]!.value + i * stretch));
      for (const { value, count } of rows)
        expect(count).toBe(years.filter((y) => y >= value && y < value + stretch).length);
      expect(rows.reduce((sum, r) => sum + r.count, 0)).toBe(years.length);
    }),
    {
      examples: [[[-1, 2000].map((year) => ({ presence: 1, year, added: 0, changed: 0, facets: [], title: 1 })), 3]],
    },
  );
});
