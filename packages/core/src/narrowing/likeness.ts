/**
 * How alike things are by what they share: what few have says more than what many have. A shared thing weighs the
 * logarithm of how rare it is (inverse document frequency: K. Spärck Jones, Journal of Documentation 28, 1972).
 */
export interface Shared<Id> {
  /** How many have it, of all. */
  count: number;
  /** How much more it says than another that is as rare. */
  weight: number;
  has: Iterable<Id>;
}

/** What has most in common, the most alike first, with the places of what is shared; equal ones in the order of ids. */
export function mostAlike<Id extends string>(
  shared: Shared<Id>[],
  all: number,
  most: number,
): { id: Id; score: number; by: number[] }[] {
  const found = new Map<Id, { id: Id; score: number; by: number[] }>();
  shared.forEach(({ count, weight, has }, place) => {
    const score = weight * Math.log((all + 1) / Math.max(1, count));
    for (const id of has) {
      const of = found.get(id) ?? { id, score: 0, by: [] };
      of.score += score;
      of.by.push(place);
      found.set(id, of);
    }
  });
  return [...found.values()].sort((a, b) => b.score - a.score || (a.id < b.id ? -1 : 1)).slice(0, most);
}
