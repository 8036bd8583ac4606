/** What samples of changes are drawn with; property tests make it of their generator. */
import type { Id } from './kind.ts';
import type { Library } from './library.ts';

export interface Draw {
  /** What stands: a sample names what is in it, so that it alters something more often than not. */
  library: Library;
  /** The member whose change it is. */
  member: Id;
  flag(): boolean;
  pick<T>(from: readonly T[]): T;
  /** At least one, each at most once. */
  some<T>(from: readonly T[]): T[];
  text(): string;
  id(): Id;
}

/** One of these ids, or where there are none one that nothing has. */
export const idOf = (draw: Draw, ids: Iterable<Id>): Id => {
  const all = [...ids];
  return all.length ? draw.pick(all) : draw.id();
};

/** Some of the sources that are there. */
export const someSources = (draw: Draw): Id[] => {
  const all = [...draw.library.sources.keys()];
  return all.length ? draw.some(all) : [draw.id()];
};
