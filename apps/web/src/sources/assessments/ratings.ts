/** The ratings a source may have, each with what it is called. */
import { HIGHEST_RATING } from '@pandecta/core/changes';

export const NOT_RATED = 'not rated';
export const RATINGS = Array.from({ length: HIGHEST_RATING }, (_, i) => ({
  rating: i + 1,
  name: `${i + 1} of ${HIGHEST_RATING}`,
}));

/** As it stands on a line: a dot for each. */
export const dots = (rating: number | null): string => '●'.repeat(rating ?? 0);
