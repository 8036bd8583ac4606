/** Whether a name has all the words typed, in any order; their case does not matter. */
export function hasWords(name: string, typed: string): boolean {
  const text = name.toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** A number with its word: "1 mark", "1,204 marks". */
export const counted = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

/** "29 November 2026"; today where no time is given. */
export const dayInFull = (at: string | number = Date.now()): string =>
  new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** A set with one more, or one less. */
export function turned<T>(set: ReadonlySet<T>, one: T): Set<T> {
  const next = new Set(set);
  if (!next.delete(one)) next.add(one);
  return next;
}
