import { flipAll, setStanding, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isOptional, isRecordOf, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** Placements are given their ranks among those beside them; null where they stand by their names. */
export interface OrderChange {
  do: 'order';
  /** The collection that was moved, or below which all stand by their names again. */
  collection: Id;
  ranks: Record<Id, BeforeAfter<number>>;
  /** Of a collection that is one member's own: whose. */
  own?: Id;
}

export const order: Kind<OrderChange> = {
  do: 'order',
  version: 1,
  check: (json) =>
    shaped<OrderChange>(json, {
      collection: isId,
      ranks: isRecordOf(isId, () => isBeforeAfter(Number.isFinite)),
      own: isOptional(isId),
    }),
  apply(library, change) {
    const ranks = setStanding(
      change.ranks,
      (id) => {
        const placement = library.placements.get(id);
        return placement?.present ? placement : undefined;
      },
      'rank',
    );
    return ranks && { ...change, ranks };
  },
  invert: (change) => ({ ...change, ranks: flipAll(change.ranks) }),
  isEmpty: (change) => Object.values(change.ranks).every((r) => r.before === r.after),
  describe: ({ ranks }) =>
    Object.values(ranks).every((r) => r.after === null)
      ? 'Put collections in the order of their names'
      : 'Put collections in another order',
  touches: (change) => subjects('collection', [change.collection]),
  ownOf: ({ own }) => own,
  sample(draw) {
    const all = [...draw.library.placements.keys()];
    const ranks = (all.length ? draw.some(all) : [draw.id()]).map((id) => {
      const now = draw.library.placements.get(id)?.rank ?? null;
      return [id, { before: draw.pick([now, now, 7]), after: draw.pick([null, 1, 2, 3]) }] as const;
    });
    const collection = idOf(draw, draw.library.collections.keys());
    return { do: 'order', collection, ranks: Object.fromEntries(ranks) };
  },
};
