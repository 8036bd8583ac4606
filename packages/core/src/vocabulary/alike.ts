/** Names that are one word in several spellings: in capitals, in the plural, with a hyphen. */
import { fold, tokens } from '../words/index.ts';

/** What two spellings of a name share: the stems of its words, without what stands between them. */
export const nameKey = (name: string): string =>
  tokens(name)
    .map((t) => t.stem)
    .join('') || fold(name).trim();

/**
 * Groups of two and more that are near-identical, each in the order given.
 * @param terms names of tags, or of subject terms: those of one sort
 */
export function alike<T extends { name: string }>(terms: readonly T[]): T[][] {
  const groups = new Map<string, T[]>();
  for (const term of terms) {
    const key = nameKey(term.name);
    groups.set(key, [...(groups.get(key) ?? []), term]);
  }
  return [...groups.values()].filter((g) => g.length > 1);
}
