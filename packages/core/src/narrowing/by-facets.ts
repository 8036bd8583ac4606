/** Ranks sources by which of the given facets they have. */
import type { Columns } from './columns.ts';
import { Ranking, UNRANKED } from './ranking.ts';

/** @param levels the facets of each rank, the first rank first: a source gets the first rank of which it has a facet */
export function rankByFacets(columns: Columns, levels: number[][]): Ranking {
  const levelOf = levels.flatMap((facets, level) => facets.map(() => level));
  const tell = columns.placing(levels.flat());
  const first = (n: number): number => {
    let found = levels.length;
    tell(n, (place) => (found = Math.min(found, levelOf[place]!)));
    return found < levels.length ? found : UNRANKED;
  };
  return new Ranking(
    Int32Array.from({ length: columns.size }, (_, n) => first(n)),
    levels.length,
  );
}
