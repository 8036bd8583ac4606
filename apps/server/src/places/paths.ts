/**
 * Paths of collections, which may stand in several places each. Every collection's paths are told once, from those of what
 * it stands in, and cut there: their number would double with each level of a tree in which all stand twice.
 */

/** More nobody reads. */
export const MOST_PATHS = 8;

export interface Placed {
  id: string;
  name: string;
  /** The collection it stands in; null at the top. */
  parent: string | null;
}

/**
 * @param placed each placement; those of whatever the collections asked for stand below must be among them
 * @param of the collections whose paths are wanted; all where none are named
 * @returns paths in the order of the alphabet, as "Licensing › Chapter 2"; none for what is not reached from the top
 */
export function pathsAmong(placed: readonly Placed[], of?: readonly string[]): Map<string, string[]> {
  const placements = new Map<string, Placed[]>();
  for (const p of placed) {
    const known = placements.get(p.id);
    if (known) known.push(p);
    else placements.set(p.id, [p]);
  }
  const told = new Map<string, string[]>();
  // A tree may be deep: each waits on a stack until what it stands in is told.
  const isTold = (id: string): boolean => told.has(id) || !placements.has(id);
  function tell(wanted: string): void {
    const stack = [wanted];
    const waiting = new Set<string>();
    while (stack.length) {
      const id = stack.at(-1)!;
      const all = placements.get(id)!;
      const missing = all.flatMap(({ parent }) =>
        parent === null || isTold(parent) || waiting.has(parent) ? [] : [parent],
      );
      if (missing.length && !told.has(id)) {
        waiting.add(id);
        stack.push(...missing);
        continue;
      }
      stack.pop();
      waiting.delete(id);
      if (told.has(id)) continue;
      const paths = all.flatMap(({ name, parent }) =>
        parent === null ? [name] : (told.get(parent) ?? []).map((above) => `${above} › ${name}`),
      );
      told.set(id, [...new Set(paths)].sort().slice(0, MOST_PATHS));
    }
  }
  const wanted = of ?? [...placements.keys()];
  for (const id of wanted) if (!isTold(id)) tell(id);
  return new Map(wanted.flatMap((id) => (told.get(id)?.length ? [[id, told.get(id)!] as const] : [])));
}
