import { type DocNode, type Origin, faultOf } from '../notes/document.ts';
import { isObject, same } from '../source/record.ts';
import { effectiveEdit, flipAll, joinedFields, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isFlag, isId, isIds, isOptional, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';

/** A note as it is. */
export interface NoteWords {
  title: string;
  text: DocNode;
  /** When what it tells of happened, as it was written; null where nothing is said. */
  event: string | null;
  /** The headings it is about. */
  about: Id[];
  tags: Id[];
  /** Where it comes from, beside the quotations in its text. */
  from: Origin[];
  /** The member who alone sees it; null where all members do. */
  owner: Id | null;
  present: boolean;
}

/** A note is written, rewritten, removed, brought back, or shown to all members. Its row was written before, as one that is not present. */
export interface NoteChange {
  do: 'note';
  note: Id;
  /** Its title when it was changed. */
  called: string;
  /** The sources it quotes or speaks of, before or after. */
  sources: Id[];
  fields: { [F in keyof NoteWords]?: BeforeAfter<NonNullable<NoteWords[F]>> };
  /** The member who alone sees the note, before and after the change. */
  own?: Id;
}

const CALLED: Record<keyof NoteWords, string> = {
  title: 'the title of the note',
  text: 'the text of the note',
  event: 'the date of the note',
  about: 'what the note is about',
  tags: 'the tags of the note',
  from: 'where the note comes from',
  owner: 'who sees the note',
  present: 'the note',
};
const isOrigin = (v: unknown): boolean =>
  isObject(v) &&
  isId(v.source) &&
  (v.file === null || isId(v.file)) &&
  (v.page === null || Number.isInteger(v.page)) &&
  isText(v.cited) &&
  (v.mark === null || isId(v.mark));
const FIELDS: Record<keyof NoteWords, (v: unknown) => boolean> = {
  title: isText,
  text: (v) => !faultOf(v),
  event: isText,
  about: isIds,
  tags: isIds,
  from: (v) => Array.isArray(v) && v.every(isOrigin),
  owner: isId,
  present: isFlag,
};
const isField = (f: string): f is keyof NoteWords => Object.hasOwn(FIELDS, f);
/** Those that are an entry of the history each time. */
const ALONE = ['owner', 'present', 'from'] as const;

export const note: Kind<NoteChange> = {
  do: 'note',
  version: 1,
  check: (json) =>
    shaped<NoteChange>(json, {
      note: isId,
      called: isText,
      sources: isIds,
      fields: (v) => isObject(v) && Object.entries(v).every(([f, x]) => isField(f) && isBeforeAfter(FIELDS[f])(x)),
      own: isOptional(isId),
    }),
  apply(library, change) {
    const known = library.notes.get(change.note);
    const done = known ? editableNote(known, change) : null;
    if (!known || !done) return null;
    Object.assign(known, editedNote(known, done));
    return done;
  },
  invert: ({ fields, ...change }) => ({ ...change, fields: flipAll(fields as Record<string, BeforeAfter<never>>) }),
  joined(earlier, later) {
    if (earlier.note !== later.note || ALONE.some((f) => earlier.fields[f] || later.fields[f])) return null;
    const fields = joinedFields(earlier.fields, later.fields);
    return fields ? { ...later, sources: [...new Set([...earlier.sources, ...later.sources])], fields } : null;
  },
  isEmpty: ({ fields }) => Object.values(fields).every((f) => same(f.before, f.after)),
  describe({ called, fields: { present, owner, title, text, event, about, tags } }) {
    const it = `the note “${called}”`;
    if (present) return `${present.after ? 'Wrote' : 'Removed'} ${it}`;
    if (owner) return owner.after ? `Kept ${it} for oneself alone` : `Showed ${it} to all members`;
    if (text) return `Changed ${it}`;
    if (title) return `Renamed the note “${title.before ?? ''}” to “${title.after ?? ''}”`;
    if (event) return event.after ? `Dated ${it} ${event.after}` : `Took the date from ${it}`;
    if (about) return `Changed what ${it} is about`;
    return tags ? `Changed the tags of ${it}` : `Changed where ${it} comes from`;
  },
  touches: ({ note: id, sources }) => [...subjects('source', sources), ...subjects('note', [id])],
  makes: ({ note: id, fields: { present } }) => (present?.after && !present.before ? subjects('note', [id]) : []),
  ownOf: ({ own }) => own,
  sample(draw) {
    const seen = [...draw.library.notes].filter(([, { owner }]) => !owner || owner === draw.member);
    const id = idOf(
      draw,
      seen.map(([one]) => one),
    );
    const known = draw.library.notes.get(id);
    const title = { before: draw.pick([known?.title ?? '', 'Another title']), after: draw.text() };
    const said = draw.text();
    const paragraph = { type: 'paragraph', ...(said && { content: [{ type: 'text', text: said }] }) };
    const text = { before: known?.text ?? { type: 'doc' }, after: { type: 'doc', content: [paragraph] } };
    const event = { before: known?.event ?? null, after: draw.pick([null, '1872-02', 'spring 1872']) };
    const headings = [...draw.library.entries.keys()].flatMap((key) => /^heading (.*)/.exec(key)?.[1] ?? []);
    const about = { before: known?.about ?? [], after: headings.length ? draw.some(headings) : [] };
    const owner = { before: known?.owner ?? null, after: draw.pick([draw.member, null]) };
    const present = { before: known?.present ?? false, after: draw.flag() };
    const fields = draw.pick([{ title }, { text }, { title, text }, { event }, { about }, { owner }, { present }]);
    const own = !('owner' in fields) && known?.owner ? { own: known.owner } : {};
    return { do: 'note', note: id, called: known?.title ?? '', sources: [], fields, ...own };
  },
};

/** The note after the edit. */
export const editedNote = (now: NoteWords, { fields }: NoteChange): NoteWords => ({
  ...now,
  ...(Object.fromEntries(Object.entries(fields).map(([f, { after }]) => [f, after])) as Partial<NoteWords>),
});

/**
 * The edit as far as it alters the note, or null.
 * @throws Conflict where something of it is another meanwhile
 */
export const editableNote = (now: NoteWords, change: NoteChange): NoteChange | null =>
  effectiveEdit(
    change,
    { kind: 'note', id: change.note },
    (field) => now[field as keyof NoteWords],
    (field) => ({ what: CALLED[field as keyof NoteWords], field }),
  );
