/** Research notes: their text with its quotations, what they are about, and asking for them. */
import { ArrayMaxSize, ArrayMinSize, IsArray, IsBoolean, IsIn, IsInt, IsNumber, IsObject, IsString, IsUUID, Length, Max, MaxLength, Min } from 'class-validator'; // prettier-ignore
import { HEADING_KINDS, type HeadingKind } from '@pandecta/core/headings';
import { HOWS, LARGEST_TEXT, LINKED, type DocNode, type How, type Linked, type Origin } from '@pandecta/core/notes';
import { Changed } from './changes.ts';
import { RECORDS, route } from './route.ts';
import { Ids, IsPlace, IsYear, ListOf, Optional, OrNull, Part, Texts } from './shape.ts';

const LONGEST_TITLE = 300;
const MOST_HEADINGS = 100;
/** Bytes a note may come in: its text, and what stands beside it. */
const NOTES = LARGEST_TEXT + RECORDS;

export class OriginBody implements Origin {
  @IsUUID() source!: string;
  @OrNull() @IsUUID() file!: string | null;
  @OrNull() @IsInt() @Min(1) @Max(100_000) page!: number | null;
  @IsString() @MaxLength(60) cited!: string;
  @OrNull() @IsUUID() mark!: string | null;
}

export class NewNote {
  @Optional() @IsString() @MaxLength(LONGEST_TITLE) title?: string;
  /** A document of nodes; see the description of notes. Without it, it begins with what the marks quote. */
  @Optional() @IsObject() text?: DocNode;
  @Optional() @OrNull() @IsString() @Length(1, 100) event?: string | null;
  @Optional() @Ids() @ArrayMaxSize(MOST_HEADINGS) about?: string[];
  @Optional() @Texts() @ArrayMaxSize(MOST_HEADINGS) @MaxLength(100, { each: true }) tags?: string[];
  @Optional() @ListOf(() => OriginBody) @ArrayMaxSize(100) from?: OriginBody[];
  /** Each becomes a quotation with its page, and its gloss a paragraph below. */
  @Optional() @Ids() @ArrayMaxSize(500) marks?: string[];
  /** Whether its writer alone is to see it. */
  @Optional() @IsBoolean() personal?: boolean;
}

/** What of a note one had before one: where it is another by now, nothing is changed. */
export class NoteSeen {
  @Optional() @IsString() @MaxLength(LONGEST_TITLE) title?: string;
  @Optional() @IsObject() text?: DocNode;
}

export class EditNote {
  @Optional() @IsString() @MaxLength(LONGEST_TITLE) title?: string;
  @Optional() @IsObject() text?: DocNode;
  @Optional() @OrNull() @IsString() @Length(1, 100) event?: string | null;
  @Optional() @Ids() @ArrayMaxSize(MOST_HEADINGS) about?: string[];
  /** By their names; one that is new is made. */
  @Optional() @Texts() @ArrayMaxSize(MOST_HEADINGS) @MaxLength(100, { each: true }) tags?: string[];
  @Optional() @Part(() => NoteSeen) seen?: NoteSeen;
}

export class NoteHeading {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsIn(HEADING_KINDS) kind!: HeadingKind;
}

/** A source the note quotes or comes from. */
export class NoteSource {
  @IsUUID() id!: string;
  /** Author and year. */
  @IsString() name!: string;
  @IsString() title!: string;
  /** The first of its pages the note names, as it is cited; empty where it names none. */
  @IsString() cited!: string;
  @OrNull() @IsUUID() file!: string | null;
  @OrNull() @IsInt() page!: number | null;
  @OrNull() @IsUUID() mark!: string | null;
}

export class NoteRow {
  @IsUUID() id!: string;
  @IsString() title!: string;
  /** The beginning of its text, or what was looked for in it. */
  @IsString() excerpt!: string;
  @OrNull() @IsString() event!: string | null;
  @ListOf(() => NoteSource) sources!: NoteSource[];
  @IsString() by!: string;
  @IsString() changed!: string;
  @IsBoolean() personal!: boolean;
  /** In how many outlines it stands. */
  @IsInt() outlines!: number;
}

export class NoteLink {
  @IsIn(LINKED) to!: Linked;
  @IsUUID() id!: string;
  @IsString() title!: string;
  @OrNull() @IsIn(HOWS) how!: How | null;
}

export class NoteReply {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsObject() text!: DocNode;
  @OrNull() @IsString() event!: string | null;
  /** Whether the date was read: one that was not sorts last. */
  @IsBoolean() dated!: boolean;
  @ListOf(() => NoteHeading) about!: NoteHeading[];
  @Texts() tags!: string[];
  @ListOf(() => NoteSource) sources!: NoteSource[];
  /** The notes that link to it, and how. */
  @ListOf(() => NoteLink) leadsHere!: NoteLink[];
  @IsString() by!: string;
  @IsString() made!: string;
  @IsString() changed!: string;
  @IsBoolean() personal!: boolean;
}

/** `found`: by how well the words of the question fit, those in titles before others; best from the end. */
export const NOTE_SORTS = ['event', 'changed', 'title', 'author', 'found'] as const;
export type NoteSort = (typeof NOTE_SORTS)[number];
/** What a note comes from. */
export const NOTE_FROMS = ['mark', 'source', 'neither'] as const;
export type NoteFrom = (typeof NOTE_FROMS)[number];

export class NotesAsked {
  /** In the language of the ask line. */
  @Optional() @IsString() @MaxLength(2000) q?: string;
  /** About all of these. */
  @Optional() @Ids() @ArrayMaxSize(MOST_HEADINGS) about?: string[];
  @Optional() @Ids() @ArrayMaxSize(MOST_HEADINGS) tags?: string[];
  @Optional() @IsArray() @ArrayMaxSize(NOTE_FROMS.length) @IsIn(NOTE_FROMS, { each: true }) from?: NoteFrom[];
  @Optional() @IsUUID() source?: string;
  @Optional() @IsUUID() outline?: string;
  @Optional() @IsIn(['own', 'shared']) whose?: 'own' | 'shared';
  /** Years the event may lie in. */
  @Optional() @IsYear() yearFrom?: number;
  @Optional() @IsYear() yearTo?: number;
}

export class AskNotes extends NotesAsked {
  /** The first is asked first; a minus before one turns it round. */
  @Optional()
  @IsArray()
  @ArrayMaxSize(4)
  @IsIn(NOTE_SORTS.flatMap((s) => [s, `-${s}`]), { each: true })
  sort?: string[];
  @Optional() @IsPlace() place?: number;
  @Optional() @IsInt() @Min(1) @Max(200) count?: number;
}

export class HeadingCount extends NoteHeading {
  @IsInt() count!: number;
}
export class NoteCount {
  @IsString() key!: string;
  @IsString() name!: string;
  @IsInt() count!: number;
}
export class NoteYear {
  @IsInt() year!: number;
  @IsInt() count!: number;
}

export class NotesReply {
  @IsInt() total!: number;
  @ListOf(() => NoteRow) notes!: NoteRow[];
  @ListOf(() => HeadingCount) about!: HeadingCount[];
  @ListOf(() => NoteCount) tags!: NoteCount[];
  @ListOf(() => NoteCount) from!: NoteCount[];
  @ListOf(() => NoteCount) whose!: NoteCount[];
  /** How many begin in each year. */
  @ListOf(() => NoteYear) years!: NoteYear[];
}

/** All notes one sees. */
export class NotesCount {
  @IsInt() total!: number;
}

export class TimedNote {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsString() event!: string;
  /** Days since 1970-01-01. */
  @IsNumber() from!: number;
  @IsNumber() to!: number;
  @Ids() about!: string[];
}
export class TimelineReply {
  @ListOf(() => TimedNote) notes!: TimedNote[];
  /** How many match and have no date that is read. */
  @IsInt() undated!: number;
  @IsBoolean() more!: boolean;
}

export const WEB_KINDS = ['note', 'source', ...HEADING_KINDS] as const;
export type WebKind = (typeof WEB_KINDS)[number];
export class WebNode {
  @IsUUID() id!: string;
  @IsIn(WEB_KINDS) kind!: WebKind;
  @IsString() name!: string;
}
export class WebLink {
  @IsUUID() from!: string;
  @IsUUID() to!: string;
  /** “about”, “quotes”, or how a link says. */
  @IsString() how!: string;
}
export class WebReply {
  @ListOf(() => WebNode) nodes!: WebNode[];
  @ListOf(() => WebLink) links!: WebLink[];
  @IsBoolean() more!: boolean;
}
export class AskWeb extends NotesAsked {
  /** Of one note alone, and what is tied to it. */
  @Optional() @IsUUID() around?: string;
}

export class SplitNote {
  /** Characters from the beginning; a reference counts as one. What stands between becomes a note of its own. */
  @IsPlace() start!: number;
  @IsPlace() end!: number;
  @IsString() @MaxLength(LONGEST_TITLE) title!: string;
  @Optional() @Part(() => NoteSeen) seen?: NoteSeen;
}
export class JoinNotes {
  @Ids() @ArrayMinSize(1) @ArrayMaxSize(50) notes!: string[];
}

export class QuotationDifference {
  @IsString() quoted!: string;
  @IsString() page!: string;
  @IsBoolean() misread!: boolean;
}
export const STANDS = ['yes', 'nearly', 'no', 'unknown'] as const;
export class CheckedQuotation {
  /** Its place among the quotations of the note, from 0. */
  @IsInt() place!: number;
  /** `unknown` where there is no text of the document to compare it with. */
  @IsIn(STANDS) stands!: (typeof STANDS)[number];
  @ListOf(() => QuotationDifference) differences!: QuotationDifference[];
  @IsString() asThere!: string;
  @OrNull() @IsInt() elsewhere!: number | null;
  /** The other page as it is cited. */
  @IsString() citedElsewhere!: string;
}
export class CheckedQuotations {
  @ListOf(() => CheckedQuotation) quotations!: CheckedQuotation[];
}

export const NOTE_FORMATS = ['markdown', 'json'] as const;
export type NoteFormat = (typeof NOTE_FORMATS)[number];
export class ExportNotes extends NotesAsked {
  @IsIn(NOTE_FORMATS) format!: NoteFormat;
}

/** A note in an outline, or a title without one, with what stands below it. */
export class OutlineNode {
  @OrNull() @IsUUID() note!: string | null;
  @IsString() @MaxLength(LONGEST_TITLE) title!: string;
  @IsBoolean() used!: boolean;
  @ListOf(() => OutlineNode) @ArrayMaxSize(1000) children!: OutlineNode[];
}
export class NewOutline {
  @IsString() @Length(1, 200) name!: string;
  @ListOf(() => OutlineNode) @ArrayMaxSize(1000) nodes!: OutlineNode[];
  @Optional() @IsBoolean() personal?: boolean;
}
export class OutlineInfo {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @ListOf(() => OutlineNode) nodes!: OutlineNode[];
  @IsBoolean() personal!: boolean;
}
export class OutlineList {
  @ListOf(() => OutlineInfo) outlines!: OutlineInfo[];
}

export const noteRoutes = {
  list: route({
    method: 'POST',
    path: '/w/:workspace/notes/list',
    may: 'read',
    summary: 'Notes: asked for, sorted, a stretch of them, with counts.',
    body: AskNotes,
    reply: NotesReply,
  }),
  count: route({
    method: 'GET',
    path: '/w/:workspace/notes/count',
    may: 'read',
    summary: 'How many notes there are.',
    reply: NotesCount,
  }),
  timeline: route({
    method: 'POST',
    path: '/w/:workspace/notes/timeline',
    may: 'read',
    summary: 'When what notes tell of happened, in days.',
    body: NotesAsked,
    reply: TimelineReply,
  }),
  web: route({
    method: 'POST',
    path: '/w/:workspace/notes/web',
    may: 'read',
    summary: 'Notes with the headings, sources and notes they are tied to.',
    body: AskWeb,
    reply: WebReply,
  }),
  one: route({
    method: 'GET',
    path: '/w/:workspace/notes/:note',
    may: 'read',
    summary: 'A note.',
    reply: NoteReply,
  }),
  make: route({
    method: 'POST',
    path: '/w/:workspace/notes',
    may: 'own',
    summary: 'Write a note, of marks where they are named; for oneself alone, any member may.',
    body: NewNote,
    most: NOTES,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/notes/:note',
    may: 'own',
    summary: 'Rewrite a note, its date, what it is about or its tags.',
    body: EditNote,
    most: 2 * NOTES,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/notes/:note',
    may: 'own',
    summary: 'Remove a note; it can be undone.',
    reply: Changed,
  }),
  share: route({
    method: 'POST',
    path: '/w/:workspace/notes/:note/share',
    may: 'mark',
    summary: 'Show a note of one’s own to all members.',
    reply: Changed,
  }),
  split: route({
    method: 'POST',
    path: '/w/:workspace/notes/:note/split',
    may: 'own',
    summary: 'Part of a note becomes a note of its own, with its headings, tags, date and the way back.',
    body: SplitNote,
    most: NOTES,
    reply: Changed,
  }),
  join: route({
    method: 'POST',
    path: '/w/:workspace/notes/:note/join',
    may: 'own',
    summary: 'Other notes become part of this one.',
    body: JoinNotes,
    reply: Changed,
  }),
  check: route({
    method: 'GET',
    path: '/w/:workspace/notes/:note/check',
    may: 'read',
    heavy: true,
    summary: 'Whether the words of its quotations stand on the pages they name.',
    reply: CheckedQuotations,
  }),
  export: route({
    method: 'POST',
    path: '/w/:workspace/notes/export',
    may: 'cite',
    heavy: true,
    summary: 'Notes as a folder of Markdown files, or as JSON.',
    body: ExportNotes,
    produces: 'application/octet-stream',
  }),
};

export const outlineRoutes = {
  list: route({
    method: 'GET',
    path: '/w/:workspace/outlines',
    may: 'read',
    summary: 'The outlines: notes in an order made by hand.',
    reply: OutlineList,
  }),
  make: route({
    method: 'POST',
    path: '/w/:workspace/outlines',
    may: 'own',
    summary: 'Make an outline.',
    body: NewOutline,
    most: RECORDS,
    reply: Changed,
  }),
  edit: route({
    method: 'PUT',
    path: '/w/:workspace/outlines/:outline',
    may: 'own',
    summary: 'Write an outline anew: its name, and what stands in it in which order.',
    body: NewOutline,
    most: RECORDS,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/outlines/:outline',
    may: 'own',
    summary: 'Remove an outline; its notes stay.',
    reply: Changed,
  }),
};
