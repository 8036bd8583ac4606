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
