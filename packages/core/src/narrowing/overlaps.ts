/** How sets overlap: how many are in each choice of them and in none of the others, counted in one pass. */
import { Bits } from './bits.ts';

/** @returns for each choice of the sets, as a number whose bits are the sets chosen, how many are in just those; 0 of none */
export function overlapsOf(sets: readonly Bits[]): number[] {
  const counts = new Array<number>(2 ** sets.length).fill(0);
  const all = sets.reduce((a, b) => (a.size > b.size ? a.or(b) : b.or(a)), Bits.none(0));
  all.forEach((n) => {
    let choice = 0;
    for (let i = 0; i < sets.length; i += 1) if (sets[i]!.has(n)) choice |= 1 << i;
    counts[choice]! += 1;
  });
  return counts;
}
