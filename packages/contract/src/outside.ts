import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsString,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import {
  LISTING_KINDS,
  PROTOCOL_NAMES,
  type Fate,
  type Flow,
  type ListingKind,
  type OutsideQuestion,
  type ProtocolName,
} from '@pandecta/core/catalogues';
import { VERDICTS, type Verdict } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { Destination, Started } from './gathering.ts';
import { route } from './route.ts';
import { Ids, IsPlace, IsYear, ListOf, Optional, OptionalPart, OrNull, Part, Texts } from './shape.ts';

export class CatalogueError {
  @IsString() at!: string;
  @IsString() says!: string;
}

export class Catalogue {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsIn(PROTOCOL_NAMES) protocol!: ProtocolName;
  @IsString() address!: string;
  @ListOf(() => CatalogueError) errors!: CatalogueError[];
}

export class CatalogueList {
  @ListOf(() => Catalogue) catalogues!: Catalogue[];
}

export class NewCatalogue {
  @IsString() @Length(1, 100) name!: string;
  @IsIn(PROTOCOL_NAMES) protocol!: ProtocolName;
  @IsString() @Length(1, 500) address!: string;
}

/** A catalogue to be tried with a word, before it is added. */
export class TryCatalogue {
  @IsIn(PROTOCOL_NAMES) protocol!: ProtocolName;
  @IsString() @Length(1, 500) address!: string;
  @IsString() @Length(1, 200) word!: string;
}

export class Tried {
  /** "42 records for “test”", or what was wrong. */
  @IsString() says!: string;
  @IsBoolean() answered!: boolean;
}

export class Outside implements OutsideQuestion {
  @IsString() @MaxLength(1000) words!: string;
  @Optional() @IsString() @MaxLength(200) author?: string;
  @Optional() @IsString() @MaxLength(300) title?: string;
  @Optional() @IsYear() yearFrom?: number;
  @Optional() @IsYear() yearTo?: number;
}

export class NewSearch {
  @Part(() => Outside) question!: Outside;
  @Ids() @ArrayMaxSize(30) catalogues!: string[];
}

export const ASKED_STATES = ['asking', 'done', 'failed'] as const;

export class AskedCatalogue {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsIn(ASKED_STATES) state!: (typeof ASKED_STATES)[number];
  @IsInt() total!: number;
  @IsInt() fetched!: number;
  @Optional() @IsString() says?: string;
  @Optional() @IsInt() ms?: number;
}

export class FlowCatalogue {
  @IsString() name!: string;
  @IsInt() records!: number;
  @IsInt() works!: number;
  @IsInt() taken!: number;
}

/** A line of the log. */
export class Search {
  @IsUUID() id!: string;
  @Part(() => Outside) question!: Outside;
  /** The question in one line. */
  @IsString() words!: string;
  @IsString() why!: string;
  @ListOf(() => AskedCatalogue) asked!: AskedCatalogue[];
  @IsString() at!: string;
  @IsString() by!: string;
  /** How many match, over all catalogues, and how many works were seen of them. */
  @IsInt() found!: number;
  @IsInt() works!: number;
  /** Works no search before had, those that went into the intake, and those that were taken in from there. */
  @IsInt() fresh!: number;
  @IsInt() gathered!: number;
  @IsInt() taken!: number;
  @OrNull() @IsUUID() watch!: string | null;
}

export class SearchLog {
  @ListOf(() => Search) searches!: Search[];
}

export class FoundIn {
  @IsUUID() catalogue!: string;
  @IsString() accession!: string;
}

/** A source here that is the work. */
export class FoundHere {
  @IsUUID() id!: string;
  @IsIn(VERDICTS) verdict!: Verdict;
  /** Where it stands. */
  @Texts() places!: string[];
}

/** What became of what searches found: see core/catalogues/flow. */
export class SearchFlow implements Flow {
  @ListOf(() => FlowCatalogue) catalogues!: FlowCatalogue[];
  /** How many the catalogues said they have. */
  @IsInt() matched!: number;
  @IsInt() records!: number;
  @IsInt() duplicates!: number;
  @IsInt() works!: number;
  /** How many works went where: `left` were not gathered. */
  @IsObject() fates!: Record<Fate | 'left', number>;
}

export class FlowQuery {
  /** The searches that are counted; all where none is named. */
  @Optional() @Ids() @ArrayMaxSize(1000) searches?: string[];
}

/** A work that was found, in one catalogue or several. */
export class FoundWork {
  /** Its number in the search, as text. */
  @IsString() id!: string;
  @IsObject() record!: SourceRecord;
  @ListOf(() => FoundIn) in!: FoundIn[];
  @OptionalPart(() => FoundHere) here?: FoundHere;
  @IsBoolean() isNew!: boolean;
  @IsBoolean() hasPdf!: boolean;
  /** It went into the intake already. */
  @IsBoolean() gathered!: boolean;
}

export class FoundPage {
  @Part(() => Search) search!: Search;
  @IsInt() total!: number;
  @IsInt() from!: number;
  @ListOf(() => FoundWork) rows!: FoundWork[];
}

export const FOUND_SORTS = ['found', 'title', '-year', 'year', 'author'] as const;

export class FoundQuery {
  @Optional() @IsPlace() from?: number;
  @Optional() @IsInt() @Min(1) @Max(200) count?: number;
  @Optional() @IsIn(FOUND_SORTS) sort?: (typeof FOUND_SORTS)[number];
  /** Only works no search before had; only what is not here. */
  @Optional() @IsBoolean() fresh?: boolean;
  @Optional() @IsBoolean() absent?: boolean;
}

export class GatherFound extends FoundQuery {
  /** Those of these numbers, or all that the question shows. */
  @Optional() @IsArray() @ArrayMaxSize(5000) @MaxLength(200, { each: true }) works?: string[];
  @OptionalPart(() => Destination) destination?: Destination;
}

export class DescribeSearch {
  @IsString() @MaxLength(2000) why!: string;
}

export const WATCH_EVERY = ['hour', 'day', 'week', 'month'] as const;

/** What a watch looks at: a search of catalogues, a feed, a page that lists works, a set of a repository (OAI-PMH). */
export const WATCH_KINDS = ['search', ...LISTING_KINDS] as const;

export class Watch {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsIn(WATCH_KINDS) kind!: (typeof WATCH_KINDS)[number];
  @OrNull() @IsString() address!: string | null;
  @IsBoolean() mail!: boolean;
  @IsString() words!: string;
  @IsIn(WATCH_EVERY) every!: (typeof WATCH_EVERY)[number];
  @IsString() nextAt!: string;
  @OrNull() @IsString() ranAt!: string | null;
  @IsInt() brought!: number;
  @IsString() says!: string;
  @IsBoolean() paused!: boolean;
}

export class WatchList {
  @ListOf(() => Watch) watches!: Watch[];
}

/** A search of catalogues, or an address. */
export class NewWatch {
  @IsString() @Length(1, 200) name!: string;
  @Optional() @IsIn(WATCH_KINDS) kind?: (typeof WATCH_KINDS)[number];
  @Optional() @IsString() @Length(1, 2000) address?: string;
  @OptionalPart(() => Outside) question?: Outside;
  @Optional() @Ids() @ArrayMaxSize(30) catalogues?: string[];
  @Optional() @IsBoolean() mail?: boolean;
  @IsIn(WATCH_EVERY) every!: (typeof WATCH_EVERY)[number];
  @OptionalPart(() => Destination) destination?: Destination;
}

/** An address to be looked at before it is watched. */
export class TryListing {
  @IsIn(LISTING_KINDS) kind!: ListingKind;
  @IsString() @Length(1, 2000) address!: string;
}

export class PauseWatch {
  @IsBoolean() paused!: boolean;
}

const CATALOGUES = '/w/:workspace/catalogues';
const SEARCHES = '/w/:workspace/outside';
const WATCHES = '/w/:workspace/watches';

export const outsideRoutes = {
  catalogues: route({
    method: 'GET',
    path: CATALOGUES,
    may: 'gather',
    summary: 'The outside catalogues.',
    reply: CatalogueList,
  }),
  addCatalogue: route({
    method: 'POST',
    path: CATALOGUES,
    may: 'steer',
    summary: 'Add an outside catalogue by its address and protocol.',
    body: NewCatalogue,
    reply: CatalogueList,
  }),
  tryCatalogue: route({
    method: 'POST',
    path: '/w/:workspace/catalogue-trial',
    may: 'steer',
    summary: 'Ask a catalogue for a word before it is added.',
    body: TryCatalogue,
    reply: Tried,
  }),
  removeCatalogue: route({
    method: 'DELETE',
    path: '/w/:workspace/catalogues/:catalogue',
    may: 'steer',
    summary: 'Ask a catalogue no more; what came of it stays.',
    reply: CatalogueList,
  }),
  search: route({
    method: 'POST',
    path: SEARCHES,
    may: 'gather',
    summary: 'Search several catalogues at once; what each answers is there as it comes.',
    body: NewSearch,
    reply: Search,
  }),
  log: route({
    method: 'GET',
    path: SEARCHES,
    may: 'gather',
    summary: 'The log of searches, the newest first.',
    reply: SearchLog,
  }),
  flow: route({
    method: 'POST',
    path: '/w/:workspace/search-flow',
    may: 'gather',
    summary: 'What became of what searches found: records, duplicates, works screened, works taken in.',
    body: FlowQuery,
    reply: SearchFlow,
  }),
  found: route({
    method: 'GET',
    path: '/w/:workspace/outside/:search',
    may: 'gather',
    summary: 'A stretch of the works a search found, folded over its catalogues.',
    query: FoundQuery,
    reply: FoundPage,
  }),
  more: route({
    method: 'POST',
    path: '/w/:workspace/outside/:search/more',
    may: 'gather',
    summary: 'Fetch more of what the catalogues have for a search.',
    reply: Search,
  }),
  gather: route({
    method: 'POST',
    path: '/w/:workspace/outside/:search/gathering',
    may: 'gather',
    summary: 'Bring works that were found into the intake.',
    body: GatherFound,
    reply: Started,
  }),
  describe: route({
    method: 'PATCH',
    path: '/w/:workspace/outside/:search',
    may: 'gather',
    summary: 'Say why a search was made.',
    body: DescribeSearch,
    reply: Search,
  }),
  watches: route({ method: 'GET', path: WATCHES, may: 'gather', summary: 'The watches.', reply: WatchList }),
  tryListing: route({
    method: 'POST',
    path: '/w/:workspace/watch-trial',
    may: 'gather',
    summary: 'Look at an address that lists works, before it is watched.',
    body: TryListing,
    reply: Tried,
  }),
  addWatch: route({
    method: 'POST',
    path: WATCHES,
    may: 'gather',
    summary: 'Run a search by itself from now on; what it finds new waits in the intake.',
    body: NewWatch,
    reply: WatchList,
  }),
  pauseWatch: route({
    method: 'PATCH',
    path: '/w/:workspace/watches/:watch',
    may: 'gather',
    summary: 'Pause a watch, or let it go on.',
    body: PauseWatch,
    reply: WatchList,
  }),
  removeWatch: route({
    method: 'DELETE',
    path: '/w/:workspace/watches/:watch',
    may: 'gather',
    summary: 'Stop watching; what it brought stays.',
    reply: WatchList,
  }),
  runWatch: route({
    method: 'POST',
    path: '/w/:workspace/watches/:watch/run',
    may: 'gather',
    summary: 'Run a watch now.',
    reply: WatchList,
  }),
};
