/**
 * Everything that alters data is a Change: a small JSON object that can be applied, inverted, described in a
 * sentence and stored. The server carries the same changes out in SQL; `library.ts` says what each one means.
 *
 * A change names the sources it really altered, so that its inverse alters those and no others.
 */
import { variableInWords } from './variables.ts';
import type { FieldValue } from './record.ts';

export type Id = string;

/** Where a source is: `none` before it was added or after its adding was undone; kept all the same. */
export type Presence = 'none' | 'live' | 'bin';
export type ReadingState = 'to read' | 'reading' | 'read';
export const READING_STATES: ReadingState[] = ['to read', 'reading', 'read'];

export interface BeforeAfter<T> {
  before: T | null;
  after: T | null;
}

export interface PresenceChange {
  do: 'presence';
  sources: Id[];
  from: Presence;
  to: Presence;
  /** Set while it is committed, never stored: the sources already stand as `to` says. */
  made?: boolean;
}
export interface EditChange {
  do: 'edit';
  source: Id;
  fields: Record<string, BeforeAfter<FieldValue>>;
}
export interface TagChange {
  do: 'tag';
  tag: Id;
  name: string;
  subject: boolean;
  sources: Id[];
  present: boolean;
}
export interface FileChange {
  do: 'file';
  collection: Id;
  name: string;
  sources: Id[];
  present: boolean;
}
export interface ReadingChange {
  do: 'reading';
  states: Record<Id, BeforeAfter<ReadingState>>;
}
export interface CollectionChange {
  do: 'collection';
  collection: Id;
  name: string;
  present: boolean;
}
export interface PlacementChange {
  do: 'placement';
  placement: Id;
  collection: Id;
  name: string;
  parent: Id | null;
  present: boolean;
}
export interface RenameChange {
  do: 'rename';
  collection: Id;
  name: BeforeAfter<string>;
}
export interface AttachChange {
  do: 'attach';
  source: Id;
  file: Id;
  name: string;
  present: boolean;
}
export interface MarkChange {
  do: 'mark';
  mark: Id;
  source: Id;
  present: boolean;
}
export interface MarkEditChange {
  do: 'mark-edit';
  mark: Id;
  source: Id;
  fields: { gloss?: BeforeAfter<string>; sense?: BeforeAfter<Id> };
}
export interface AllChange {
  do: 'all';
  says: string;
  changes: Change[];
}

export type Change =
  | PresenceChange
  | EditChange
  | TagChange
  | FileChange
  | ReadingChange
  | CollectionChange
  | PlacementChange
  | RenameChange
  | AttachChange
  | MarkChange
  | MarkEditChange
  | AllChange;

const flip = <T>(x: BeforeAfter<T>): BeforeAfter<T> => ({ before: x.after, after: x.before });
const flipAll = <T>(x: Record<string, BeforeAfter<T>>): Record<string, BeforeAfter<T>> =>
  Object.fromEntries(Object.entries(x).map(([k, v]) => [k, flip(v)]));

/** The change that takes this one back; `invert(invert(c))` equals `c`. */
export function invert(change: Change): Change {
  switch (change.do) {
    case 'presence':
      return { ...change, from: change.to, to: change.from };
    case 'edit':
      return { ...change, fields: flipAll(change.fields) };
    case 'reading':
      return { ...change, states: flipAll(change.states) };
    case 'rename':
      return { ...change, name: flip(change.name) };
    case 'mark-edit': {
      const { gloss, sense } = change.fields;
      return {
        ...change,
        fields: { ...(gloss ? { gloss: flip(gloss) } : {}), ...(sense ? { sense: flip(sense) } : {}) },
      };
    }
    case 'all':
      return { ...change, changes: change.changes.map(invert).reverse() };
    default:
      return { ...change, present: !change.present };
  }
}

/** The sources a change touches, each once, in the order they are first named. */
export function sourcesOf(change: Change): Id[] {
  switch (change.do) {
    case 'presence':
    case 'tag':
    case 'file':
      return change.sources;
    case 'reading':
      return Object.keys(change.states);
    case 'edit':
    case 'attach':
    case 'mark':
    case 'mark-edit':
      return [change.source];
    case 'all':
      return [...new Set(change.changes.flatMap(sourcesOf))];
    default:
      return [];
  }
}

/** True when the change alters nothing and need not be stored. */
export function isEmpty(change: Change): boolean {
  if (change.do === 'all') return change.changes.every(isEmpty);
  if (change.do === 'edit' || change.do === 'mark-edit') return Object.keys(change.fields).length === 0;
  return 'sources' in change || change.do === 'reading' ? sourcesOf(change).length === 0 : false;
}

export const countSources = (n: number): string => (n === 1 ? '1 source' : `${n.toLocaleString('en')} sources`);

/** The change as a sentence in the past tense: "Filed 3 sources in Chapter 2". */
export function describe(change: Change): string {
  switch (change.do) {
    case 'presence':
      return describePresence(change);
    case 'edit':
      return `Changed ${list(Object.keys(change.fields).map(variableInWords))}`;
    case 'tag': {
      const what = change.subject ? 'subject term' : 'tag';
      const n = countSources(change.sources.length);
      return change.present
        ? `Added the ${what} “${change.name}” to ${n}`
        : `Removed the ${what} “${change.name}” from ${n}`;
    }
    case 'file': {
      const n = countSources(change.sources.length);
      return change.present ? `Filed ${n} in ${change.name}` : `Removed ${n} from ${change.name}`;
    }
    case 'reading':
      return describeReading(change);
    case 'collection':
      return change.present ? `Made the collection ${change.name}` : `Removed the collection ${change.name}`;
    case 'placement':
      return change.present ? `Placed ${change.name}` : `Removed a placement of ${change.name}`;
    case 'rename':
      return `Renamed ${change.name.before} to ${change.name.after}`;
    case 'attach':
      return change.present ? `Attached ${change.name}` : `Detached ${change.name}`;
    case 'mark':
      return change.present ? 'Added a mark' : 'Removed a mark';
    case 'mark-edit':
      return change.fields.gloss ? 'Changed a gloss' : 'Changed the sense of a mark';
    case 'all':
      return change.says;
  }
}

function describePresence({ sources, from, to }: PresenceChange): string {
  const n = countSources(sources.length);
  if (to === 'bin') return `Moved ${n} to the bin`;
  if (to === 'none') return `Took back ${n}`;
  return from === 'bin' ? `Restored ${n} from the bin` : `Added ${n}`;
}

function describeReading(change: ReadingChange): string {
  const states = new Set(Object.values(change.states).map((s) => s.after));
  const n = countSources(Object.keys(change.states).length);
  if (states.size > 1) return `Changed the reading state of ${n}`;
  const [state] = states;
  return state ? `Set ${n} to “${state}”` : `Cleared the reading state of ${n}`;
}

function list(words: string[]): string {
  if (words.length > 3) return `${words.length} fields`;
  return words.length < 2 ? (words[0] ?? 'nothing') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
