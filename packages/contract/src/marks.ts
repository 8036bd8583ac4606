/** Marks on the pages of documents, and the senses a workspace gives them. */
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { MARK_FORMATS, type MarkFormat } from '@pandecta/core/mark-export';
import { COLOURS, SHAPES, type Colour, type Quote, type Rect, type Sense, type Shape } from '@pandecta/core/marks';
import {
  NUMBER_ORIGINS,
  NUMBER_STYLES,
  type CitedPages,
  type NumberedParagraph,
  type NumberOrigin,
  type NumberRun,
  type NumberStyle,
} from '@pandecta/core/page-numbers';
import { Ask } from './asking.ts';
import { Changed } from './changes.ts';
import { RECORDS, route } from './route.ts';
import { Ids, IsPlace, ListOf, Optional, OptionalPart, OrNull, Part } from './shape.ts';
import { FILE_STATES, type FileState } from './sources.ts';

/** In points, from a corner of the page, which is no longer than 14,400 (ISO 32000-1, annex C). */
const OnPage = (): PropertyDecorator => (target, key) =>
  [IsNumber(), Min(-14_400), Max(14_400)].forEach((d) => d(target, key));

export class RectBody implements Rect {
  @OnPage() x0!: number;
  @OnPage() y0!: number;
  @OnPage() x1!: number;
  @OnPage() y1!: number;
}

export class QuoteBody implements Quote {
  @IsString() @MaxLength(20_000) exact!: string;
  @IsString() @MaxLength(200) prefix!: string;
  @IsString() @MaxLength(200) suffix!: string;
}

export class NewMark {
  @IsInt() @Min(1) @Max(100_000) page!: number;
  @IsUUID() sense!: string;
  @ValidateNested() @Type(() => QuoteBody) quote!: QuoteBody;
  @IsArray() @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => RectBody) rects!: RectBody[];
  @Optional() @IsString() @MaxLength(20_000) gloss?: string;
  /** Highlighted where nothing is said. */
  @Optional() @IsIn(SHAPES) shape?: Shape;
  /** True where only the member who makes it is to see it. */
  @Optional() @IsBoolean() personal?: boolean;
}

/** What a mark held when one began. */
export class MarkSeen {
  @Optional() @IsString() @MaxLength(20_000) gloss?: string;
  @Optional() @IsUUID() sense?: string;
  @Optional() @IsIn(SHAPES) shape?: Shape;
}

/** A new place for a mark: page, words and rectangles. */
export class NewPlace {
  @IsInt() @Min(1) @Max(100_000) page!: number;
  @ValidateNested() @Type(() => QuoteBody) quote!: QuoteBody;
  @IsArray() @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => RectBody) rects!: RectBody[];
}

export class EditMark {
  @Optional() @IsString() @MaxLength(20_000) gloss?: string;
  @Optional() @IsUUID() sense?: string;
  @Optional() @IsIn(SHAPES) shape?: Shape;
  /** Placed anew by a person, in the same document. */
  @OptionalPart(() => NewPlace) place?: NewPlace;
  /** What they were when one began: where one of them is another by now, nothing is changed. */
  @OptionalPart(() => MarkSeen) seen?: MarkSeen;
}

export class Mark {
  @IsUUID() id!: string;
  @IsUUID() fileId!: string;
  @IsUUID() sourceId!: string;
  /** Counted from 1. */
  @IsInt() page!: number;
  /** Its place as it is cited: the number of the page, “12r” of a leaf, “para 33” of a judgment. */
  @IsString() cited!: string;
  /** The sense it counts as: where its own was merged into another, that one. */
  @IsUUID() sense!: string;
  @IsIn(SHAPES) shape!: Shape;
  @Part(() => QuoteBody) quote!: QuoteBody;
  @ListOf(() => RectBody) rects!: RectBody[];
  @IsString() gloss!: string;
  /** Who made it; of one from the file the name that stands there. */
  @IsString() by!: string;
  /** Whether it was read from an annotation of the file. */
  @IsBoolean() fromFile!: boolean;
  /** It could not be placed again where its document changed. */
  @IsBoolean() unplaced!: boolean;
  /** Whether its maker alone sees it. */
  @IsBoolean() personal!: boolean;
  @IsString() at!: string;
}

/** What marks of a sense have in common. */
export class NewSense {
  @IsString() @Length(1, 60) name!: string;
  /** 1 to 9; null where none chooses it. */
  @OrNull() @IsInt() @Min(1) @Max(9) key!: number | null;
  @IsIn(COLOURS) colour!: Colour;
  /** What it is for, as a sentence. */
  @Optional() @IsString() @MaxLength(500) says?: string;
  /** No longer offered for new marks. */
  @Optional() @IsBoolean() retired?: boolean;
}

export class SenseInfo implements Sense {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsOptional() @IsInt() key!: number | null;
  @IsIn(COLOURS) colour!: Colour;
  @IsString() says!: string;
  @IsBoolean() retired!: boolean;
  /** The sense it was merged into. */
  @IsOptional() @IsUUID() into!: string | null;
}

export class SenseList {
  @ListOf(() => SenseInfo) senses!: SenseInfo[];
}

export class MergeSense {
  @IsUUID() into!: string;
}

/** The senses in their order: each gets the key of its place, those after the ninth none. */
export class OrderSenses {
  @Ids() @ArrayMaxSize(200) senses!: string[];
}

export class RunOfNumbers implements NumberRun {
  @IsInt() page!: number;
  @IsIn(NUMBER_STYLES) style!: NumberStyle;
  @IsString() prefix!: string;
  @IsInt() start!: number;
}

export class ParagraphNumber implements NumberedParagraph {
  @IsInt() number!: number;
  /** Counted from 1. */
  @IsInt() page!: number;
  /** How far down the page it begins, in points. */
  @IsNumber() y!: number;
}

/** The numbers by which the pages of a document are cited. */
export class PageNumbers implements CitedPages {
  @ListOf(() => RunOfNumbers) runs!: RunOfNumbers[];
  @IsIn(NUMBER_ORIGINS) origin!: NumberOrigin;
  /** Of a judgment that counts its paragraphs, which is cited by them. */
  @Optional() @ListOf(() => ParagraphNumber) paragraphs?: ParagraphNumber[];
}

export class DocumentReply {
  @IsUUID() fileId!: string;
  @IsUUID() sourceId!: string;
  @IsString() name!: string;
  @IsIn(FILE_STATES) state!: FileState;
  @IsString() mediaType!: string;
  @IsInt() pages!: number;
  @Part(() => PageNumbers) numbers!: PageNumbers;
  @ListOf(() => Mark) marks!: Mark[];
  /** Of one whose words were recognised: on how many of its pages lines were corrected. */
  @Optional() @IsInt() corrected?: number;
  /** How many annotations of the file were not read in as marks. */
  @IsInt() annotations!: number;
  /** All of them, those that are retired or merged too: marks may have one. */
  @ListOf(() => SenseInfo) senses!: SenseInfo[];
}

export class AnnotatedAsked {
  /** With one's own too that nobody else sees. */
  @Optional() @IsIn(['yes', 'no']) personal?: 'yes' | 'no';
}

/** What marks are sorted by; the place is by source, document and page. */
export const MARK_SORTS = ['place', 'newest', 'oldest', 'sense', 'person'] as const;
export type MarkSort = (typeof MARK_SORTS)[number];

/** Which marks: those in the sources a question finds, of some senses, shapes and people, with some words. */
export class MarksAsked {
  /** Without it, in all sources. */
  @OptionalPart(() => Ask) sources?: Ask;
  /** These words, as they stand there, in the marked text or the gloss. */
  @Optional() @IsString() @MaxLength(200) words?: string;
  @Optional() @Ids() @ArrayMaxSize(200) senses?: string[];
  @Optional() @IsArray() @ArrayMaxSize(SHAPES.length) @IsIn(SHAPES, { each: true }) shapes?: Shape[];
  /** Who made them. */
  @Optional() @Ids() @ArrayMaxSize(200) people?: string[];
  /** Only with a gloss. */
  @Optional() @IsBoolean() glossed?: boolean;
  @Optional() @IsIn(MARK_SORTS) sort?: MarkSort;
}

export const MOST_MARKS_AT_ONCE = 200;

export class AskMarks extends MarksAsked {
  @Optional() @IsPlace() from?: number;
  @Optional() @IsInt() @Min(1) @Max(MOST_MARKS_AT_ONCE) count?: number;
}

/** A mark with what it is in. */
export class MarkRow extends Mark {
  @IsString() title!: string;
  /** Author and year, as one names the source in passing. */
  @IsString() source!: string;
}

export class MarkCount {
  @IsString() key!: string;
  @IsString() name!: string;
  @IsInt() count!: number;
}

export class MarksReply {
  @IsInt() total!: number;
  @ListOf(() => MarkRow) marks!: MarkRow[];
  /** How many of them have each sense, shape and maker. */
  @ListOf(() => MarkCount) senses!: MarkCount[];
  @ListOf(() => MarkCount) shapes!: MarkCount[];
  @ListOf(() => MarkCount) people!: MarkCount[];
}

/** Marks as a file, each with citation and page. */
export class ExportMarks extends MarksAsked {
  @IsIn(MARK_FORMATS) format!: MarkFormat;
  /** The style the sources are cited in. */
  @IsString() @Length(1, 120) style!: string;
}

export const markRoutes = {
  document: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file',
    may: 'read',
    bounded: true,
    summary: 'A document of a source: its state, marks and the senses they may have.',
    reply: DocumentReply,
  }),
  make: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/files/:file/marks',
    may: 'own',
    summary: 'Mark a passage or a place; for oneself alone, any member may.',
    body: NewMark,
    most: RECORDS,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/marks/:mark',
    may: 'own',
    summary: 'Write the gloss of a mark, or give it another sense or shape.',
    body: EditMark,
    most: RECORDS,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/marks/:mark',
    may: 'own',
    summary: 'Remove a mark with its gloss; it can be undone.',
    reply: Changed,
  }),
  share: route({
    method: 'POST',
    path: '/w/:workspace/marks/:mark/share',
    may: 'mark',
    summary: 'Show a mark of one’s own to all members.',
    reply: Changed,
  }),
  picture: route({
    method: 'GET',
    path: '/w/:workspace/marks/:mark/picture',
    may: 'read',
    bounded: true,
    summary: 'What a region shows, cut out of its page.',
    produces: 'image/png',
  }),
  readAnnotations: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/files/:file/annotations',
    may: 'mark',
    summary: 'Read the annotations of a PDF in as marks, where they were not yet.',
    reply: Changed,
  }),
  annotated: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file/annotated',
    may: 'read',
    bounded: true,
    heavy: true,
    summary: 'The PDF with its marks as annotations; with those for oneself alone where they are asked for.',
    query: AnnotatedAsked,
    produces: 'application/pdf',
  }),
  list: route({
    method: 'POST',
    path: '/w/:workspace/marks/list',
    may: 'read',
    bounded: true,
    summary: 'Marks across sources: filtered, sorted, a stretch of them, with counts.',
    body: AskMarks,
    reply: MarksReply,
  }),
  export: route({
    method: 'POST',
    path: '/w/:workspace/marks/export',
    may: 'cite',
    bounded: true,
    heavy: true,
    summary: 'Marks across sources as a file, each with citation and page.',
    body: ExportMarks,
    produces: 'application/octet-stream',
  }),
};

export const senseRoutes = {
  list: route({
    method: 'GET',
    path: '/w/:workspace/senses',
    may: 'read',
    bounded: true,
    summary: 'The senses marks may have.',
    reply: SenseList,
  }),
  make: route({
    method: 'POST',
    path: '/w/:workspace/senses',
    may: 'arrange',
    summary: 'Add a sense.',
    body: NewSense,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/senses/:sense',
    may: 'arrange',
    summary: 'Alter a sense, retire it, or offer it again.',
    body: NewSense,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/senses/:sense',
    may: 'arrange',
    summary: 'Remove a sense no mark has.',
    reply: Changed,
  }),
  merge: route({
    method: 'POST',
    path: '/w/:workspace/senses/:sense/merge',
    may: 'arrange',
    summary: 'Merge a sense into another: its marks count as marks of that one.',
    body: MergeSense,
    reply: Changed,
  }),
  order: route({
    method: 'POST',
    path: '/w/:workspace/senses/order',
    may: 'arrange',
    summary: 'Put the senses in an order, by which they get their keys.',
    body: OrderSenses,
    reply: Changed,
  }),
};
