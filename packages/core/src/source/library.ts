/**
 * What each Change means, on a plain model of a workspace held in memory. The server's SQL must agree with it:
 * its tests carry the same changes out in both and compare.
 */
import type { Change, Id, Presence, ReadingState } from './change.ts';
import type { SourceRecord } from './record.ts';

export interface LibrarySource {
  record: SourceRecord;
  presence: Presence;
  reading: ReadingState | null;
  tags: Set<Id>;
  collections: Set<Id>;
  files: Set<Id>;
}

export interface Library {
  sources: Map<Id, LibrarySource>;
  collections: Map<Id, { name: string; present: boolean }>;
  placements: Map<Id, { collection: Id; parent: Id | null; present: boolean }>;
  marks: Map<Id, { gloss: string; sense: Id; present: boolean }>;
}

export const emptyLibrary = (): Library => ({
  sources: new Map(),
  collections: new Map(),
  placements: new Map(),
  marks: new Map(),
});

function set<T>(s: Set<T> | undefined, item: T, present: boolean): void {
  if (present) s?.add(item);
  else s?.delete(item);
}

/** Carries a change out on the model, in place. Parts that name something unknown are passed over. */
export function apply(library: Library, change: Change): void {
  const source = (id: Id): LibrarySource | undefined => library.sources.get(id);
  switch (change.do) {
    case 'presence':
      for (const id of change.sources) {
        const s = source(id);
        if (s?.presence === change.from) s.presence = change.to;
      }
      return;
    case 'edit': {
      const s = source(change.source);
      if (s) s.record = editRecord(s.record, change.fields);
      return;
    }
    case 'tag':
      for (const id of change.sources) set(source(id)?.tags, change.tag, change.present);
      return;
    case 'file':
      for (const id of change.sources) set(source(id)?.collections, change.collection, change.present);
      return;
    case 'reading':
      for (const [id, state] of Object.entries(change.states)) {
        const s = source(id);
        if (s) s.reading = state.after;
      }
      return;
    case 'attach':
      set(source(change.source)?.files, change.file, change.present);
      return;
    case 'collection':
      library.collections.set(change.collection, { name: change.name, present: change.present });
      return;
    case 'placement':
      library.placements.set(change.placement, {
        collection: change.collection,
        parent: change.parent,
        present: change.present,
      });
      return;
    case 'rename': {
      const c = library.collections.get(change.collection);
      if (c && change.name.after !== null) c.name = change.name.after;
      return;
    }
    case 'mark': {
      const m = library.marks.get(change.mark);
      if (m) m.present = change.present;
      return;
    }
    case 'mark-edit': {
      const m = library.marks.get(change.mark);
      if (m && change.fields.gloss) m.gloss = change.fields.gloss.after ?? '';
      if (m && change.fields.sense?.after) m.sense = change.fields.sense.after;
      return;
    }
    case 'all':
      for (const c of change.changes) apply(library, c);
  }
}

/** The record after an edit: each field set to its `after`, or taken away where that is null. */
export function editRecord(record: SourceRecord, fields: Record<string, { after: unknown }>): SourceRecord {
  const out: Record<string, unknown> = { ...record };
  for (const [field, { after }] of Object.entries(fields)) {
    if (after === null) delete out[field];
    else out[field] = after;
  }
  return out as SourceRecord;
}
