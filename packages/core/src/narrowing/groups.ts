/** Sources in groups: by the facets of one kind, or by years. */
import type { Bits } from './bits.ts';
import { rankByFacets } from './by-facets.ts';
import { NO_YEAR, type Columns } from './columns.ts';
import type { SortBy } from './order.ts';
import { UNRANKED } from './ranking.ts';

/** The facets of each group, in their order: a source stands in the first of which it bears one. Or years, the latest first. */
export type GroupBy = number[][] | 'year';

export interface Groups {
  /** What the groups stand in order by. */
  by: SortBy;
  /** The first facet or the year of the group a number stands in, null for what has none; and how many of the set stand there. */
  of(n: number): [of: number | null, count: number];
}

const KEY = 'group';

export function groupsOf(columns: Columns, set: Bits, group: GroupBy): Groups {
  const counts = new Map<number | null, number>();
  const told = group === 'year' ? byYear(columns) : byFacets(columns, group);
  set.forEach((n) => counts.set(told.of(n), (counts.get(told.of(n)) ?? 0) + 1));
  return { by: told.by, of: (n) => [told.of(n), counts.get(told.of(n)) ?? 0] };
}

interface Told {
  by: SortBy;
  of(n: number): number | null;
}

function byYear(columns: Columns): Told {
  return {
    by: { key: 'year', descending: true },
    of: (n) => (columns.yearOf(n) === NO_YEAR ? null : columns.yearOf(n)),
  };
}

function byFacets(columns: Columns, groups: number[][]): Told {
  const ranking = rankByFacets(columns, groups);
  columns.rank(KEY, ranking);
  return {
    by: { key: KEY, descending: false },
    of: (n) => (ranking.rankOf(n) === UNRANKED ? null : groups[ranking.rankOf(n)]![0]!),
  };
}
