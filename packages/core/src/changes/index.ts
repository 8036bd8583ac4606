export {
  COLLECTION_FIELDS,
  editableCollection,
  type CollectionEditChange,
  type CollectionWords,
} from './collection-edit.ts';
export { correctable, type CorrectChange } from './correct.ts';
export { keptState, NOT_SORTED, sortable, type PageState, type PageStateChange } from './page-state.ts';
export { type Draw } from './draw.ts';
export { editable, editRecord, type EditChange } from './edit.ts';
export { editableFile, type FileEditChange } from './file-edit.ts';
export { NotAChange } from './json.ts';
export {
  Conflict,
  standing,
  SUBJECT_KINDS,
  type BeforeAfter,
  type Id,
  type Moved,
  type Subject,
  type SubjectKind,
} from './kind.ts';
export { alterableGloss, type GlossChange } from './gloss.ts';
export { emptyLibrary, type Library, type LibrarySource } from './library.ts';
export { enterable, entryKey, LISTS, type Entry, type EntryChange, type List } from './entry.ts';
export { editableMark, editedMark, type MarkEditChange, type MarkWords } from './mark-edit.ts';
export { type MarkChange } from './mark.ts';
export { editableNote, editedNote, type NoteChange, type NoteWords } from './note.ts';
export { type OrderChange } from './order.ts';
export { PRESENCES, type Presence } from './presence.ts';
export { ALL_RELATIONS, NOTHING_SAID, RELATIONS, sayable, type Relation, type Said } from './relate.ts';
export { READING_STATES, type ReadingState } from './reading.ts';
export { SETTLED, settledKey, type Settled, type SettleChange } from './settle.ts';
export { HIGHEST_RATING } from './rate.ts';
export { movesUnder, nameable, type Term, type TermChange } from './term.ts';
export * from './registry.ts';
export { countSources } from './words.ts';
export { yieldTo } from './yield.ts';
