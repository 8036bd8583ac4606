/** Whether a name has all the words typed, in any order; their case does not matter. */
export function hasWords(name: string, typed: string): boolean {
  const text = name.toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** A set with one more, or one less. */
export function turned<T>(set: ReadonlySet<T>, one: T): Set<T> {
  const next = new Set(set);
  if (!next.delete(one)) next.add(one);
  return next;
}
