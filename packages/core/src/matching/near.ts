/** Words that are one but for a typing fault. Digits are never typing faults. */

/**
 * Whether two words are one within one fault (a letter left out, put in, exchanged with its neighbour or for another), within
 * two where they are long. Short words must be equal.
 */
export function nearly(a: string, b: string): boolean {
  if (a === b) return true;
  const long = Math.max(a.length, b.length);
  if (long < 4 || Math.abs(a.length - b.length) > 2 || /\d/.test(a) || /\d/.test(b)) return false;
  const most = long >= 8 ? 2 : 1;
  return Math.abs(a.length - b.length) <= most && distance(a, b, most) <= most;
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
