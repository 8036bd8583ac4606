import { Type } from 'class-transformer';
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
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import type { Lit } from '@pandecta/core/words';
import type { Provenance } from '@pandecta/core/documents';
import { READING_STATES, type Presence, type ReadingState, type SourceRecord } from '@pandecta/core/source';

export const SORT_KEYS = ['relevance', 'title', 'author', 'year', 'added', 'changed', 'kind', 'container'] as const;
export type SortKey = (typeof SORT_KEYS)[number];
export const MOST_IDS = 100_000;

/** A question to the sources: the ask line's text, what is narrowed to, and where. */
export class Ask {
  /** The text of the ask line, in the query language. */
  @IsOptional() @IsString() @MaxLength(2000) q?: string;
  /** Facets to include, as "type=key", comma-separated values are not split: repeat the parameter. */
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsString({ each: true }) include?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsString({ each: true }) exclude?: string[];
  /** The collection in scope, with all below it. */
  @IsOptional() @IsUUID() collection?: string;
  @IsOptional() @IsIn(['live', 'bin', 'loose']) scope?: 'live' | 'bin' | 'loose';
  @IsOptional() @IsInt() yearFrom?: number;
  @IsOptional() @IsInt() yearTo?: number;
  /** Sort keys in order, each with an optional leading minus for descending: "-year,title". */
  @IsOptional() @IsString() @MaxLength(200) sort?: string;
  /** True while the person is still typing: the last word is read as a beginning. */
  @IsOptional() @IsBoolean() typing?: boolean;
}

export class AskPage extends Ask {
  @IsOptional() @IsInt() @Min(1) @Max(200) limit?: number;
}

export class SourceIds {
  @IsArray() @ArrayMaxSize(MOST_IDS) @IsUUID('all', { each: true }) ids!: string[];
}

export class RowsRequest extends Ask {
  @IsArray() @ArrayMaxSize(200) @IsUUID('all', { each: true }) ids!: string[];
}

export class TagOnSource {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsBoolean() subject!: boolean;
}

/** Where a source matched: a field of its record, a gloss, or a page of a file. */
export class Hit {
  @IsString() where!: string;
  @IsString() text!: string;
  @IsArray() lit!: Lit[];
  @IsOptional() @IsUUID() fileId?: string;
  @IsOptional() @IsInt() page?: number;
}

/** The fields of a record that a line does not show, and that make most of its weight. */
export const LEFT_OUT = ['abstract', 'note', 'custom'] as const satisfies (keyof SourceRecord)[];

/** A line of the ledger. */
export class SourceRow {
  @IsUUID() id!: string;
  /** Without its abstract, notes and fields of other programs. */
  @IsObject() record!: Omit<SourceRecord, (typeof LEFT_OUT)[number]>;
  @IsArray() @ValidateNested({ each: true }) @Type(() => TagOnSource) tags!: TagOnSource[];
  @IsOptional() @IsIn(READING_STATES) reading!: ReadingState | null;
  @IsInt() places!: number;
  @IsInt() pages!: number;
  @IsInt() marks!: number;
  @IsInt() files!: number;
  @IsOptional() @IsUUID() fileId!: string | null;
  @IsString() addedAt!: string;
  @IsOptional() hit?: Hit;
  @IsArray() titleLit!: Lit[];
}

export class QueryNote {
  @IsInt() start!: number;
  @IsInt() end!: number;
  @IsString() says!: string;
}

export class SourcePage {
  @IsInt() total!: number;
  @IsArray() @ValidateNested({ each: true }) @Type(() => SourceRow) rows!: SourceRow[];
  @IsArray() @ValidateNested({ each: true }) @Type(() => QueryNote) notes!: QueryNote[];
  /** True while words just written are not yet findable: ask again in a moment. */
  @IsOptional() @IsBoolean() settling?: boolean;
}

export class FacetValue {
  @IsString() key!: string;
  @IsString() name!: string;
  @IsInt() count!: number;
}

export class Facet {
  @IsString() type!: string;
  @IsString() name!: string;
  @IsArray() @ValidateNested({ each: true }) @Type(() => FacetValue) values!: FacetValue[];
}

export class NarrowReply {
  @IsInt() total!: number;
  @IsArray() @ValidateNested({ each: true }) @Type(() => Facet) facets!: Facet[];
  /** [year, sources] in order of years, without the narrowing by year. */
  @IsArray() years!: [number, number][];
}

export class FileOfSource {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsInt() bytes!: number;
  @IsString() mediaType!: string;
  @IsString() state!: FileState;
  @IsInt() pages!: number;
  @IsInt() marks!: number;
}

export const FILE_STATES = ['waiting', 'text', 'image only', 'encrypted', 'damaged', 'empty', 'other'] as const;
export type FileState = (typeof FILE_STATES)[number];

export class PlaceOfSource {
  @IsUUID() id!: string;
  @IsString() path!: string;
}

/** All there is to say of one source. */
export class SourceDetail {
  @IsUUID() id!: string;
  @IsObject() record!: SourceRecord;
  @IsObject() provenance!: Provenance;
  @IsInt() version!: number;
  @IsString() presence!: Presence;
  @IsOptional() reading!: ReadingState | null;
  @IsArray() @ValidateNested({ each: true }) @Type(() => TagOnSource) tags!: TagOnSource[];
  @IsArray() @ValidateNested({ each: true }) @Type(() => PlaceOfSource) places!: PlaceOfSource[];
  @IsArray() @ValidateNested({ each: true }) @Type(() => FileOfSource) files!: FileOfSource[];
  @IsString() addedAt!: string;
  @IsString() addedBy!: string;
  @IsOptional() @IsString() cameFrom!: string | null;
}

/** New values for some fields of a record; null takes a field away. */
export class EditRecord {
  @IsObject() fields!: Record<string, unknown>;
  /** The version the edit was made on; a field changed by someone else since then is refused. */
  @IsOptional() @IsInt() version?: number;
}

export class NewSource {
  @IsObject() record!: Record<string, unknown>;
  @IsOptional() @IsUUID() collection?: string;
}

export class SetReading extends SourceIds {
  @IsOptional() @IsIn(READING_STATES) state!: ReadingState | null;
}

export class SetPresence extends SourceIds {
  @IsIn(['live', 'bin']) to!: 'live' | 'bin';
}

/** What several sources share, for the batch slip. */
export class BatchSummary {
  @IsInt() count!: number;
  @IsArray() kinds!: { name: string; count: number }[];
  @IsArray() tags!: { id: string; name: string; subject: boolean; count: number }[];
  @IsArray() collections!: { id: string; path: string; count: number }[];
  @IsInt() withFile!: number;
  @IsArray() reading!: { state: string; count: number }[];
  @IsOptional() @IsInt() yearFrom!: number | null;
  @IsOptional() @IsInt() yearTo!: number | null;
}
