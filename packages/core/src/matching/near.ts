/** Words that are one but for a typing fault. Digits are never typing faults. */

import { ones } from '../narrowing/bits.ts';

/**
 * Whether two words are one within one fault (a letter left out, put in, exchanged with its neighbour or for another), within
 * two where they are long. Short words must be equal.
 */
export function nearly(a: string, b: string): boolean {
  if (a === b) return true;
  const long = Math.max(a.length, b.length);
  const most = long >= 8 ? 2 : 1;
  if (long < 4 || Math.abs(a.length - b.length) > most) return false;
  // Each slip alters two letters of the sets at most: nearly all words are told apart so, without a table.
  if (ones(lettersOf(a) ^ lettersOf(b)) > 2 * most) return false;
  return !DIGIT.test(a) && !DIGIT.test(b) && distance(a, b, most) <= most;
}

const DIGIT = /\d/;

/** Which letters are in a word, as the bits of a number; letters beyond the alphabet share them. */
function lettersOf(word: string): number {
  let set = 0;
  for (let i = 0; i < word.length; i += 1) set |= 1 << (word.charCodeAt(i) % 31);
  return set;
}

/** Optimal string alignment distance (Damerau, Levenshtein), given up beyond `most`. */
export function distance(a: string, b: string, most: number): number {
  let from = 0;
  let [m, n] = [a.length, b.length];
  while (from < m && from < n && a.charCodeAt(from) === b.charCodeAt(from)) from += 1;
  while (m > from && n > from && a.charCodeAt(m - 1) === b.charCodeAt(n - 1)) {
    m -= 1;
    n -= 1;
  }
  [m, n] = [m - from, n - from];
  if (m === 0 || n === 0) return Math.max(m, n);
  // One slip leaves two letters at most between what is the same at both ends.
  if (most === 1 && Math.max(m, n) > 2) return 2;
  let before: number[] = [];
  let last = Array.from({ length: n + 1 }, (_, j) => j);
  for (let i = 1; i <= m; i += 1) {
    const row = [i];
    let least = i;
    for (let j = 1; j <= n; j += 1) {
      const [x, y] = [a.charCodeAt(from + i - 1), b.charCodeAt(from + j - 1)];
      let d = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + (x === y ? 0 : 1));
      const turned =
        i > 1 && j > 1 && x === b.charCodeAt(from + j - 2) && a.charCodeAt(from + i - 2) === y ? before[j - 2]! + 1 : d;
      d = Math.min(d, turned);
      row.push(d);
      if (d < least) least = d;
    }
    if (least > most) return most + 1;
    before = last;
    last = row;
  }
  return last[n]!;
}
