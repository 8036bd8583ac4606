/** Whether a name has all the words typed, in any order; their case does not matter. */
export function hasWords(name: string, typed: string): boolean {
  const text = name.toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
