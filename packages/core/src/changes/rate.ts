import { flipAll, setStanding, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOneOf, isRecordOf, shaped } from './json.ts';
import { someSources } from './draw.ts';
import { countSources } from './words.ts';

export const HIGHEST_RATING = 5;
const isRating = isOneOf(...Array.from({ length: HIGHEST_RATING }, (_, i) => i + 1));

/** How much sources are worth to the workspace, 1 to 5; null where nothing is said. */
export interface RateChange {
  do: 'rate';
  ratings: Record<Id, BeforeAfter<number>>;
}

export const rate: Kind<RateChange> = {
  do: 'rate',
  version: 1,
  check: (json) => shaped<RateChange>(json, { ratings: isRecordOf(isId, () => isBeforeAfter(isRating)) }),
  apply(library, change) {
    const ratings = setStanding(change.ratings, (id) => library.sources.get(id), 'rating');
    return ratings && { ...change, ratings };
  },
  invert: (change) => ({ ...change, ratings: flipAll(change.ratings) }),
  isEmpty: (change) => Object.values(change.ratings).every((r) => r.before === r.after),
  describe({ ratings }) {
    const all = Object.values(ratings);
    const n = countSources(all.length);
    const after = all[0]?.after;
    if (all.some((r) => r.after !== after)) return `Rated ${n}`;
    return after ? `Rated ${n} ${after} of ${HIGHEST_RATING}` : `Took the rating from ${n}`;
  },
  touches: (change) => subjects('source', Object.keys(change.ratings)),
  sample(draw) {
    const rating = (): number | null => draw.pick([null, 1, 3, 5]);
    const ratings = someSources(draw).map((id) => {
      const now = draw.library.sources.get(id)?.rating ?? null;
      return [id, { before: draw.pick([now, now, 4]), after: rating() }] as const;
    });
    return { do: 'rate', ratings: Object.fromEntries(ratings) };
  },
};
