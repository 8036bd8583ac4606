/** Questions to the sources, and what is told of the answer besides its lines. */
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsString, IsUUID, Max, MaxLength, Min } from 'class-validator';
import { QUERY_FIELDS, type QueryField } from '@pandecta/core/query';
import { Ids, IsPlace, IsYear, ListOf, Optional } from './shape.ts';

/**
 * What sources are sorted by, with its name, each declared once. Text stands in the order of the language, which the
 * database keeps; numbers and times, of which the highest come first when they are asked for, are told from the columns; what is
 * said of a source by the facets it bears, the most telling first.
 */
export const SORTS = {
  relevance: { name: 'Relevance', by: 'rank' },
  title: { name: 'Title', by: 'text' },
  author: { name: 'Author', by: 'text' },
  year: { name: 'Year', by: 'number' },
  container: { name: 'Published in', by: 'text' },
  kind: { name: 'Kind', by: 'text' },
  added: { name: 'Added', by: 'number' },
  changed: { name: 'Changed', by: 'number' },
  rating: { name: 'Rating', by: 'facet' },
  reading: { name: 'Reading state', by: 'facet' },
  marks: { name: 'Marks', by: 'facet' },
} as const;
export type SortKey = keyof typeof SORTS;
export const SORT_KEYS = Object.keys(SORTS) as SortKey[];
export const MOST_IDS = 100_000;

/** Where is asked: in the sources, in the bin, in those that stand in no collection; in the intake, in what was set aside. */
export const SCOPES = ['live', 'bin', 'loose', 'intake', 'aside'] as const;
export type Scope = (typeof SCOPES)[number];

/** What is searched for words that name no field: all there is, the record, the pages of files, or notes and glosses. */
export const LOOK_IN = ['all', 'record', 'pages', 'notes'] as const;
export type LookIn = (typeof LOOK_IN)[number];

/** A question to the sources: the ask line's text, what is narrowed to, and where. */
export class Ask {
  /** The text of the ask line, in the query language. */
  @Optional() @IsString() @MaxLength(2000) q?: string;
  /** Facets to include, as "type=key", comma-separated values are not split: repeat the parameter. */
  @Optional() @IsArray() @ArrayMaxSize(50) @MaxLength(2000, { each: true }) include?: string[];
  @Optional() @IsArray() @ArrayMaxSize(50) @MaxLength(2000, { each: true }) exclude?: string[];
  /** The collection in scope, with all below it. */
  @Optional() @IsUUID() collection?: string;
  /** False where only what is filed in the collection itself is wanted. */
  @Optional() @IsBoolean() below?: boolean;
  @Optional() @IsIn(LOOK_IN) look?: LookIn;
  @Optional() @IsIn(SCOPES) scope?: Scope;
  @Optional() @IsYear() yearFrom?: number;
  @Optional() @IsYear() yearTo?: number;
  /** Sort keys in order, each with an optional leading minus for descending: "-year,title". */
  @Optional() @IsString() @MaxLength(200) sort?: string;
  /** What the lines stand in groups of: a kind of facet that is offered, or "year". Sorted within each group. */
  @Optional() @IsString() @MaxLength(40) group?: string;
  /** True while the person is still typing: the last word is read as a beginning. */
  @Optional() @IsBoolean() typing?: boolean;
}

/** A stretch of the answer. */
export class AskPage extends Ask {
  /** The place of the first line that is wanted, from 0. */
  @Optional() @IsPlace() from?: number;
  @Optional() @IsInt() @Min(1) @Max(200) count?: number;
  /** A source whose place in the answer is wanted as well. */
  @Optional() @IsUUID() find?: string;
  /** Set where the beginnings of abstracts are wanted. */
  @Optional() @IsBoolean() abstracts?: boolean;
}

export class AskIds extends Ask {
  @IsPlace() from!: number;
  @IsInt() @Min(1) @Max(MOST_IDS) count!: number;
}

/** Sources of which those are wanted that match. */
export class AmongRequest extends Ask {
  @IsArray() @ArrayMaxSize(MOST_IDS) @IsUUID('all', { each: true }) ids!: string[];
}

/** So many lines are looked for at once. */
export const MOST_PLACES = 100;

export class PlacesRequest extends Ask {
  @IsArray() @ArrayMaxSize(MOST_PLACES) @IsUUID('all', { each: true }) ids!: string[];
}

/** Where each stands in the order of the answer, from 0; -1 where it is not in it. */
export class PlacesInAnswer {
  @IsArray() @IsInt({ each: true }) places!: number[];
}

export class IdList {
  @Ids() ids!: string[];
}

/** What is being written in the ask line: the beginning of a value of a field. */
export class SuggestValues {
  @IsIn(QUERY_FIELDS) field!: QueryField;
  @Optional() @IsString() @MaxLength(200) begins?: string;
}

export class SuggestedValue {
  /** As it is written in a query. */
  @IsString() value!: string;
  /** What else is to be said of it: what a label means, what a search is for. */
  @Optional() @IsString() says?: string;
  @Optional() @IsInt() count?: number;
}

export class SuggestedValues {
  @ListOf(() => SuggestedValue) values!: SuggestedValue[];
}

export class FacetValue {
  @IsString() key!: string;
  @IsString() name!: string;
  @IsInt() count!: number;
}

export class Facet {
  @IsString() type!: string;
  @IsString() name!: string;
  @ListOf(() => FacetValue) values!: FacetValue[];
}

export class YearCount {
  @IsInt() year!: number;
  @IsInt() count!: number;
}

/** A question, and which kinds of facets are wanted: all that are offered where none is named. */
export class AskNarrow extends Ask {
  @Optional() @IsArray() @ArrayMaxSize(60) @MaxLength(60, { each: true }) facets?: string[];
}

/** All values of one kind of facet. */
export class AskFacet extends Ask {
  @IsString() @MaxLength(40) facet!: string;
  /** Only those whose names have this. */
  @Optional() @IsString() @MaxLength(200) within?: string;
}

export class FacetReply {
  /** The most frequent first, so many at most. */
  @ListOf(() => FacetValue) values!: FacetValue[];
  /** How many fit in all. */
  @IsInt() inAll!: number;
}

/** A kind of facet that may be asked for. */
export class OfferedFacet {
  @IsString() type!: string;
  @IsString() name!: string;
}

export class NarrowReply {
  @IsInt() total!: number;
  @ListOf(() => OfferedFacet) offered!: OfferedFacet[];
  /** Counted in the answer; of a kind a source has one value of, without what is chosen of that kind. */
  @ListOf(() => Facet) facets!: Facet[];
  /** In order, without the narrowing by year. */
  @ListOf(() => YearCount) years!: YearCount[];
  /** How many have no year, whatever is narrowed to by year. */
  @IsInt() undated!: number;
}

/** What a overview is looked at by: a kind of facet, or years. */
export const OVERVIEW_SIDES = [
  'tag',
  'subject',
  'label',
  'in',
  'person',
  'container',
  'kind',
  'court',
  'sense',
  'year',
] as const;
export type OverviewSide = (typeof OVERVIEW_SIDES)[number];

export class AskOverview extends Ask {
  @IsIn(OVERVIEW_SIDES) rows!: OverviewSide;
  @IsIn(OVERVIEW_SIDES) columns!: OverviewSide;
  /** How many of either, the most frequent first. */
  @Optional() @IsInt() @Min(1) @Max(200) most?: number;
}

/** A value of a side: how many of the sources that match bear it. */
export class OverviewValue {
  @IsString() key!: string;
  @IsString() name!: string;
  @IsInt() count!: number;
}

/** How many bear both: places in rows and columns. Those that none bears are left out. */
export class OverviewCell {
  @IsInt() row!: number;
  @IsInt() column!: number;
  @IsInt() count!: number;
}

export class OverviewReply {
  @IsInt() total!: number;
  @ListOf(() => OverviewValue) rows!: OverviewValue[];
  @ListOf(() => OverviewValue) columns!: OverviewValue[];
  @ListOf(() => OverviewCell) cells!: OverviewCell[];
  /** How many values there are of either side in all. */
  @IsInt() rowsInAll!: number;
  @IsInt() columnsInAll!: number;
}
