import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Max,
  Min,
} from 'class-validator';
import {
  AmongRequest,
  PlacesInAnswer,
  PlacesRequest,
  Ask,
  AskFacet,
  AskOverview,
  AskIds,
  AskNarrow,
  AskPage,
  FacetReply,
  OverviewReply,
  IdList,
  MOST_IDS,
  NarrowReply,
  SuggestedValues,
  SuggestValues,
} from './asking.ts';
import { Changed } from './changes.ts';
import { Destination } from './gathering.ts';
import { MANY_IDS, RECORDS, route } from './route.ts';
import { Ids, IsPlace, ListOf, Optional, OptionalPart, OrNull, Texts } from './shape.ts';
import type { Lit } from '@pandecta/core/words';
import type { Provenance } from '@pandecta/core/documents';
import { PRESENCES, READING_STATES, type Presence, type ReadingState } from '@pandecta/core/changes';
import { KINDS, type Kind, type SourceRecord } from '@pandecta/core/source';

/** Sources that something is done to: those named, or all that match a question but a few. */
export class Chosen {
  @Optional() @IsArray() @ArrayMaxSize(MOST_IDS) @IsUUID('all', { each: true }) ids?: string[];
  @OptionalPart(() => Ask) matching?: Ask;
  @Optional() @IsArray() @ArrayMaxSize(MOST_IDS) @IsUUID('all', { each: true }) except?: string[];
}

export class TagOnSource {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsBoolean() subject!: boolean;
  /** What it means, where that was said. */
  @IsOptional() @IsString() says?: string | null;
}

export class LabelOnSource {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsString() letter!: string;
  @IsString() tint!: string;
  @IsString() says!: string;
}

/** A stretch of a text, in UTF-16 units. */
export class LitSpan implements Lit {
  @IsInt() start!: number;
  @IsInt() end!: number;
}

/** Where a source matched: a field of its record, a gloss, or a page of a file. */
export class Hit {
  @IsString() where!: string;
  @IsString() text!: string;
  @ListOf(() => LitSpan) lit!: LitSpan[];
  @Optional() @IsUUID() fileId?: string;
  @Optional() @IsInt() page?: number;
}

/** The fields of a record that a line does not show, and that make most of its weight. */
export const LEFT_OUT = ['abstract', 'note', 'custom'] as const satisfies (keyof SourceRecord)[];

/** How a source came into the bin. */
export class InBin {
  @IsString() at!: string;
  @IsString() by!: string;
  /** When it goes for good. */
  @IsString() goes!: string;
}

/** The group a line stands in, where it is asked for in groups. */
export class SourceGroup {
  /** The value of the facet, or the year; empty where the source has none. */
  @IsString() key!: string;
  @IsString() name!: string;
  /** How many of the answer stand in it. */
  @IsInt() count!: number;
}

/** A line of the ledger. */
export class SourceRow {
  @IsUUID() id!: string;
  /** Without its abstract, notes and fields of other programs. */
  @IsObject() record!: Omit<SourceRecord, (typeof LEFT_OUT)[number]>;
  @ListOf(() => TagOnSource) tags!: TagOnSource[];
  /** Your own. */
  @OrNull() @IsIn(READING_STATES) reading!: ReadingState | null;
  @IsBoolean() starred!: boolean;
  @OrNull() @IsInt() rating!: number | null;
  /** Why it is to be checked again. */
  @OrNull() @IsString() recheck!: string | null;
  @ListOf(() => LabelOnSource) labels!: LabelOnSource[];
  /** The collections it is filed in. */
  @Ids() places!: string[];
  @OptionalPart(() => InBin) bin?: InBin;
  @IsInt() pages!: number;
  @IsInt() marks!: number;
  @IsInt() files!: number;
  @OrNull() @IsUUID() fileId!: string | null;
  /** Why its main file has no text to be searched: "image only", "encrypted", "damaged". */
  @Optional() @IsString() fileTrouble?: string;
  @IsString() addedAt!: string;
  /** Up to three places at which it matched, and how many more there are. */
  @ListOf(() => Hit) hits!: Hit[];
  @IsInt() moreHits!: number;
  @ListOf(() => LitSpan) titleLit!: LitSpan[];
  /** How its abstract begins, where that was asked for. */
  @Optional() @IsString() abstract?: string;
  @OptionalPart(() => SourceGroup) group?: SourceGroup;
}

export class QueryNote {
  @IsInt() start!: number;
  @IsInt() end!: number;
  @IsString() says!: string;
}

export class SourcePage {
  @IsInt() total!: number;
  /** The place of the first line. */
  @IsInt() from!: number;
  /** The place of the source that was to be found, where it is in the answer. */
  @Optional() @IsInt() at?: number;
  @ListOf(() => SourceRow) rows!: SourceRow[];
  @ListOf(() => QueryNote) notes!: QueryNote[];
  /** Why nothing matches, in sentences, where nothing does. */
  @Optional() @Texts() why?: string[];
  /** True while words just written are not yet findable: ask again in a moment. */
  @Optional() @IsBoolean() settling?: boolean;
}

export const FILE_STATES = ['waiting', 'text', 'image only', 'encrypted', 'damaged', 'empty', 'other'] as const;
export type FileState = (typeof FILE_STATES)[number];

export class FileOfSource {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsInt() bytes!: number;
  @IsString() mediaType!: string;
  @IsIn(FILE_STATES) state!: FileState;
  @IsInt() pages!: number;
  @IsInt() marks!: number;
  /** Of a link in place of a file: where it leads. */
  @OrNull() @IsString() address!: string | null;
  /** It is opened first. */
  @IsBoolean() main!: boolean;
}

export class PlaceOfSource {
  @IsUUID() id!: string;
  @IsString() path!: string;
}

/** Another form of the work that is here as well. */
export class VersionOfSource {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsIn(Object.keys(KINDS)) kind!: Kind;
  @OrNull() @IsInt() year!: number | null;
}

/** All there is to say of one source. */
/** Where a record came from that became part of another. */
export class MergedFrom {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @OrNull() @IsString() cameFrom!: string | null;
  @IsString() addedAt!: string;
  @IsString() addedBy!: string;
}

export class SourceDetail {
  @IsUUID() id!: string;
  @IsObject() record!: SourceRecord;
  @IsObject() provenance!: Provenance;
  @IsIn(PRESENCES) presence!: Presence;
  /** Your own. */
  @OrNull() @IsIn(READING_STATES) reading!: ReadingState | null;
  @IsBoolean() starred!: boolean;
  @OrNull() @IsInt() rating!: number | null;
  /** Why it is to be checked again. */
  @OrNull() @IsString() recheck!: string | null;
  @ListOf(() => LabelOnSource) labels!: LabelOnSource[];
  @ListOf(() => TagOnSource) tags!: TagOnSource[];
  @ListOf(() => PlaceOfSource) places!: PlaceOfSource[];
  @ListOf(() => FileOfSource) files!: FileOfSource[];
  /** Sources said to be versions of the same work. */
  @ListOf(() => VersionOfSource) versions!: VersionOfSource[];
  /** How many words of its pages there is no room for in the index: they are not found. */
  @IsInt() leftOut!: number;
  @IsString() addedAt!: string;
  @IsString() addedBy!: string;
  @OrNull() @IsString() cameFrom!: string | null;
  /** Where what was merged into it came from. */
  @ListOf(() => MergedFrom) mergedFrom!: MergedFrom[];
}

/** New values for some fields of a record; null takes a field away. */
export class EditRecord {
  @IsObject() fields!: Record<string, unknown>;
  /** What the fields held when one began; where one of them holds something else by now, nothing is changed. */
  @Optional() @IsObject() seen?: Record<string, unknown>;
}

export class NewSource {
  @IsObject() record!: Record<string, unknown>;
  @OptionalPart(() => Destination) destination?: Destination;
}

export class SetPresence extends Chosen {
  @IsIn(['live', 'bin']) to!: 'live' | 'bin';
}

export class KindCount {
  @IsString() name!: string;
  @IsInt() count!: number;
}

export class TagCount extends TagOnSource {
  @IsInt() count!: number;
}

export class LabelCount extends LabelOnSource {
  @IsInt() count!: number;
}

export class PlaceCount extends PlaceOfSource {
  @IsInt() count!: number;
}

export class StateCount {
  @IsIn([...READING_STATES, 'none']) state!: ReadingState | 'none';
  @IsInt() count!: number;
}

/** What several sources share, for the batch slip. */
export class BatchSummary {
  @IsInt() count!: number;
  @ListOf(() => KindCount) kinds!: KindCount[];
  @ListOf(() => TagCount) tags!: TagCount[];
  @ListOf(() => PlaceCount) collections!: PlaceCount[];
  @ListOf(() => LabelCount) labels!: LabelCount[];
  @IsInt() withFile!: number;
  @IsInt() starred!: number;
  @ListOf(() => StateCount) reading!: StateCount[];
  @OrNull() @IsInt() yearFrom!: number | null;
  @OrNull() @IsInt() yearTo!: number | null;
}

/** What is in the bin, and how many days each waits there. */
export class BinState {
  @IsInt() sources!: number;
  /** Held by nothing else, so that they go along. */
  @IsInt() files!: number;
  @IsInt() marks!: number;
  @IsInt() days!: number;
}
export class EmptyBin {
  /** How many there were when it was decided. */
  @IsPlace() seen!: number;
}
export class BinDays {
  @IsInt() @Min(1) @Max(3650) days!: number;
}

/** A source as its archive keeps it. */
export class ArchivedSource {
  @IsUUID() id!: string;
  @IsString() title!: string;
  /** The variables archive, archive_collection and archive_location of its record; empty where they are not said. */
  @IsString() archive!: string;
  @IsString() collection!: string;
  @IsString() location!: string;
  /** The pages of its documents: none where nothing of it was scanned. */
  @IsInt() pages!: number;
  /** How many of them sources of their own were made of. */
  @IsInt() taken!: number;
  /** How many were looked at by somebody going through them. */
  @IsInt() sorted!: number;
}

export class ArchivesReply {
  /** In the archives' own order: archive, collection, location, numbers in it by their size. */
  @ListOf(() => ArchivedSource) sources!: ArchivedSource[];
  /** Whether there are more than are told. */
  @IsBoolean() more!: boolean;
}

export const sourceRoutes = {
  archives: route({
    method: 'GET',
    path: '/w/:workspace/archives',
    may: 'read',
    bounded: true,
    summary:
      'Sources that are kept in archives, in the order of archive, collection and place in it, with what was scanned of them.',
    reply: ArchivesReply,
  }),
  bin: route({
    method: 'GET',
    path: '/w/:workspace/bin',
    may: 'read',
    summary: 'How many sources are in the bin, and what would go with them.',
    reply: BinState,
  }),
  emptyBin: route({
    method: 'POST',
    path: '/w/:workspace/bin/empty',
    may: 'arrange',
    heavy: true,
    summary: 'Remove for good all that is in the bin.',
    body: EmptyBin,
    reply: Changed,
  }),
  binDays: route({
    method: 'PUT',
    path: '/w/:workspace/bin/days',
    may: 'steer',
    summary: 'Say how many days removed sources wait in the bin.',
    body: BinDays,
    reply: Changed,
  }),
  one: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source',
    may: 'read',
    bounded: true,
    summary: 'One source in full.',
    reply: SourceDetail,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/sources/:source',
    may: 'edit',
    summary: 'Set or take away fields of a record.',
    body: EditRecord,
    most: RECORDS,
    reply: Changed,
  }),
  add: route({
    method: 'POST',
    path: '/w/:workspace/sources',
    may: 'gather',
    summary: 'Add a source by hand.',
    body: NewSource,
    most: RECORDS,
    reply: Changed,
  }),
  presence: route({
    method: 'POST',
    path: '/w/:workspace/presence',
    may: 'edit',
    summary: 'Move sources to the bin, or restore them from it.',
    body: SetPresence,
    most: MANY_IDS,
    reply: Changed,
  }),
  summary: route({
    method: 'POST',
    path: '/w/:workspace/summary',
    may: 'read',
    bounded: true,
    summary: 'What several sources share.',
    body: Chosen,
    most: MANY_IDS,
    reply: BatchSummary,
  }),
};

export const searchRoutes = {
  page: route({
    method: 'GET',
    path: '/w/:workspace/sources',
    may: 'read',
    bounded: true,
    summary: 'A stretch of the sources that match, in order, with how many there are.',
    query: AskPage,
    reply: SourcePage,
  }),
  ids: route({
    method: 'GET',
    path: '/w/:workspace/ids',
    may: 'read',
    bounded: true,
    summary: 'The ids of a stretch of the sources that match, in order.',
    query: AskIds,
    reply: IdList,
  }),
  among: route({
    method: 'POST',
    path: '/w/:workspace/among',
    may: 'read',
    bounded: true,
    summary: 'Those of the sources named that match.',
    body: AmongRequest,
    most: MANY_IDS,
    reply: IdList,
  }),
  places: route({
    method: 'POST',
    path: '/w/:workspace/places-in-answer',
    may: 'read',
    bounded: true,
    summary: 'Where the sources named stand in the order of an answer.',
    body: PlacesRequest,
    reply: PlacesInAnswer,
  }),
  suggest: route({
    method: 'GET',
    path: '/w/:workspace/suggest',
    may: 'read',
    bounded: true,
    summary: 'Values of a field that begin so, the most frequent first.',
    query: SuggestValues,
    reply: SuggestedValues,
  }),
  overview: route({
    method: 'GET',
    path: '/w/:workspace/overview',
    may: 'read',
    bounded: true,
    summary: 'What goes together in the sources that match: values of two facets, or of one by year, with counts.',
    query: AskOverview,
    reply: OverviewReply,
  }),
  narrow: route({
    method: 'GET',
    path: '/w/:workspace/narrow',
    may: 'read',
    bounded: true,
    summary: 'What the sources that match may be narrowed by, with counts, and their years.',
    query: AskNarrow,
    reply: NarrowReply,
  }),
  facet: route({
    method: 'GET',
    path: '/w/:workspace/facet',
    may: 'read',
    bounded: true,
    summary: 'All values of one kind of facet of the sources that match, with counts.',
    query: AskFacet,
    reply: FacetReply,
  }),
};
