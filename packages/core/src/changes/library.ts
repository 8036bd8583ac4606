/**
 * A workspace in memory, as plain as can be: what each change means is said on it, by the change's own file. The server's
 * SQL must agree: its tests carry the same changes out in both and compare.
 */
import type { SourceRecord } from '../source/record.ts';
import type { CollectionWords } from './collection-edit.ts';
import type { Entry } from './entry.ts';
import type { Id } from './kind.ts';
import type { MarkWords } from './mark-edit.ts';
import type { NoteWords } from './note.ts';
import type { PageState } from './page-state.ts';
import type { NumberRun } from '../page-numbers/index.ts';
import type { Term } from './term.ts';
import type { Said } from './relate.ts';
import type { Presence } from './presence.ts';
import type { ReadingState } from './reading.ts';

export interface LibrarySource {
  record: SourceRecord;
  presence: Presence;
  tags: Set<Id>;
  collections: Set<Id>;
  files: Set<Id>;
  labels: Set<Id>;
  /** 1 to 5; none where nobody said. */
  rating?: number;
  /** Why it is to be checked again; none where it is not. */
  recheck?: string;
  /** The file that is opened first, where one was said to be. */
  main?: Id;
  /** The source it was merged into. */
  mergedInto?: Id;
}

export interface LibraryFile {
  name: string;
  /** The numbers of its pages as a person set them; none where nobody did. */
  numbering?: NumberRun[];
}

/** What is one member's own. */
export interface Own {
  reading: Map<Id, ReadingState>;
  stars: Set<Id>;
}

export interface Library {
  sources: Map<Id, LibrarySource>;
  tags: Map<Id, Term>;
  files: Map<Id, LibraryFile>;
  collections: Map<Id, CollectionWords & { present: boolean }>;
  placements: Map<Id, { collection: Id; parent: Id | null; present: boolean; rank?: number }>;
  marks: Map<Id, MarkWords & { source: Id; present: boolean }>;
  /** Glosses on the whole of a source. */
  glosses: Map<Id, { source: Id; owner: Id | null; text: string; present: boolean }>;
  notes: Map<Id, NoteWords>;
  /** Lines of pages as they were corrected; see `lineKey`. */
  corrections: Map<string, string>;
  /** What was decided of pages; see `pageKey`. */
  pageStates: Map<string, PageState>;
  /** See `relationKey`. */
  relations: Map<string, Said>;
  /** See `settledKey`. */
  settled: Set<string>;
  /** See `entryKey`. */
  entries: Map<string, Entry>;
  members: Map<Id, Own>;
}

export const emptyLibrary = (): Library => ({
  sources: new Map(),
  tags: new Map(),
  files: new Map(),
  collections: new Map(),
  placements: new Map(),
  marks: new Map(),
  glosses: new Map(),
  notes: new Map(),
  corrections: new Map(),
  pageStates: new Map(),
  relations: new Map(),
  settled: new Set(),
  entries: new Map(),
  members: new Map(),
});

/** What is a member's own; empty where they have set nothing. */
export function ownOf(library: Library, member: Id): Own {
  let own = library.members.get(member);
  if (!own) library.members.set(member, (own = { reading: new Map(), stars: new Set() }));
  return own;
}

/**
 * Puts a thing into a set of each source, or takes it out.
 * @returns the sources for which that was not so already
 */
export function tie(
  library: Library,
  sources: Id[],
  to: (source: LibrarySource) => Set<Id>,
  item: Id,
  present: boolean,
): Id[] {
  return sources.filter((id) => {
    const source = library.sources.get(id);
    if (!source || to(source).has(item) === present) return false;
    if (present) to(source).add(item);
    else to(source).delete(item);
    return true;
  });
}
