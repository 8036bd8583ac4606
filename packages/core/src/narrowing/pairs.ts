/** What goes together in a set of sources: how many bear a value of one side and one of another, counted in one pass. */
import type { Bits } from './bits.ts';
import { NO_YEAR, type Columns } from './columns.ts';

/** A side of the table: facets of some types, the most frequent of them; or the years, by the year or by the decade. */
export type Side = { facets: string[]; most: number } | { years: true; most: number };

/** A value of a side: a facet by its id, or the first year of a stretch. */
export interface SideValue {
  value: number;
  count: number;
}

export interface Pairs {
  rows: SideValue[];
  columns: SideValue[];
  /** How many bear both, row by row. */
  cells: Int32Array;
  /** How many values there are of either side in all. */
  inAll: [rows: number, columns: number];
  /** How many years one value of a side of years holds. */
  stretch: number;
}

interface Counted {
  values: SideValue[];
  inAll: number;
  stretch: number;
  /** Tells the places among the values that a source bears. */
  placesOf(n: number, tell: (place: number) => void): void;
}

export function countPairs(columns: Columns, set: Bits, rows: Side, across: Side): Pairs {
  const [r, c] = [counted(columns, set, rows), counted(columns, set, across)];
  const cells = new Int32Array(r.values.length * c.values.length);
  set.forEach((n) => {
    r.placesOf(n, (row) => {
      c.placesOf(n, (column) => {
        cells[row * c.values.length + column]! += 1;
      });
    });
  });
  return {
    rows: r.values,
    columns: c.values,
    cells,
    inAll: [r.inAll, c.inAll],
    stretch: Math.max(r.stretch, c.stretch),
  };
}

function counted(columns: Columns, set: Bits, side: Side): Counted {
  return 'years' in side ? countedYears(columns, set, side.most) : countedFacets(columns, set, side);
}

function countedFacets(columns: Columns, set: Bits, { facets, most }: { facets: string[]; most: number }): Counted {
  const wanted = Object.fromEntries(facets.map((type) => [type, most]));
  const found = [...columns.frequent((each) => set.forEach(each), wanted).values()];
  const inAll = found.reduce((sum, f) => sum + f.inAll, 0);
  const values = found
    .flatMap((f) => f.best.map(([value, count]) => ({ value, count })))
    .sort((a, b) => b.count - a.count || a.value - b.value)
    .slice(0, most);
  const placesOf = columns.placing(values.map((v) => v.value));
  return { values, inAll, stretch: 1, placesOf };
}

/** By the decade where there are more years between the first and the last than there is room for, or by the century. */
function countedYears(columns: Columns, set: Bits, most: number): Counted {
  let [first, last] = [Infinity, -Infinity];
  set.forEach((n) => {
    const year = columns.yearOf(n);
    if (year === NO_YEAR) return;
    if (year < first) first = year;
    if (year > last) last = year;
  });
  if (first > last) return { values: [], inAll: 0, stretch: 1, placesOf: () => undefined };
  const room = (years: number): number => Math.floor(last / years) - Math.floor(first / years) + 1;
  let stretch = 1;
  // Years before and after the turn of the era never share a stretch, so two are the fewest there can be.
  while (room(stretch) > Math.max(most, 2)) stretch *= 10;
  const from = Math.floor(first / stretch);
  const values = Array.from({ length: room(stretch) }, (_, i) => ({ value: (from + i) * stretch, count: 0 }));
  const placesOf = (n: number, tell: (place: number) => void): void => {
    const year = columns.yearOf(n);
    if (year !== NO_YEAR) tell(Math.floor(year / stretch) - from);
  };
  set.forEach((n) => placesOf(n, (place) => (values[place]!.count += 1)));
  return { values, inAll: values.filter((v) => v.count).length, stretch, placesOf };
}
