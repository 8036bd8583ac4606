/** The files of a source: added, named, numbered; what stands on their pages. */
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUrl,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { Changed } from './changes.ts';
import { RectBody } from './marks.ts';
import { RECORDS, route } from './route.ts';
import { PARAGRAPH_KINDS, type ParagraphKind } from '@pandecta/core/documents';
import { ListOf, Optional, OptionalPart, OrNull, Part, Texts } from './shape.ts';
import { LitSpan } from './sources.ts';

export class PageHit {
  /** Counted from 1. */
  @IsInt() page!: number;
  /** The place as it is cited: the number of the page, “12r” of a leaf, “para 33” of a judgment. */
  @IsString() cited!: string;
  @IsString() text!: string;
  @ListOf(() => LitSpan) lit!: LitSpan[];
  @ListOf(() => RectBody) rects!: RectBody[];
}

export class WithinQuery {
  @IsString() @MaxLength(2000) q!: string;
}

export class WithinReply {
  @ListOf(() => PageHit) hits!: PageHit[];
  @IsInt() total!: number;
}

/** What is to be another; the rest stays. */
export class EditFile {
  @Optional() @IsString() @Length(1, 200) name?: string;
  /** It is opened first. */
  @Optional() @IsBoolean() main?: boolean;
}

/** The number of a page, from which the next are counted on. Without a number, what was set by hand for the page is removed. */
export class NumberPage {
  @IsInt() @Min(1) @Max(100_000) page!: number;
  /** As it is printed: "12", "xii", "A-3". */
  @Optional() @IsString() @Length(1, 40) number?: string;
}

/** Which words of a line the recognition was unsure of, as offsets into it. */
export class UnsureWord {
  @IsInt() start!: number;
  @IsInt() end!: number;
  /** A word that looks like it and may stand in its place; missing where there is none. */
  @Optional() @IsString() proposal?: string;
}

export class LineOfPage {
  /** Counted from 0, among the lines that were recognised. */
  @IsInt() line!: number;
  @Part(() => RectBody) box!: RectBody;
  @IsString() recognised!: string;
  /** As it reads now. */
  @IsString() text!: string;
  @ListOf(() => UnsureWord) unsure!: UnsureWord[];
}

export class LinesOfPage {
  @IsInt() page!: number;
  /** In points. */
  @IsNumber() width!: number;
  @IsNumber() height!: number;
  @ListOf(() => LineOfPage) lines!: LineOfPage[];
}

export class PageAsked {
  @IsInt() @Min(1) @Max(100_000) page!: number;
}

export class CorrectLine extends PageAsked {
  @IsInt() @Min(0) @Max(10_000) line!: number;
  /** Without it the line reads as it was recognised. */
  @Optional() @IsString() @MaxLength(2000) text?: string;
  /** How it read when one began: where it reads otherwise by now, nothing is changed. */
  @IsString() @MaxLength(2000) seen!: string;
}

/** A language in which text can be recognised here, by the name Tesseract has for it. */
export class RecognitionLanguage {
  @IsString() code!: string;
  @IsString() name!: string;
}

export class RecognitionLanguages {
  @ListOf(() => RecognitionLanguage) installed!: RecognitionLanguage[];
  /** Those the workspace recognises text in, by code. */
  @Texts() chosen!: string[];
}

const IsLanguages = (): PropertyDecorator => (of, key) => {
  for (const one of [IsArray(), ArrayMinSize(1), ArrayMaxSize(6), Matches(/^[a-z]{3}(?:_\w{1,20})?$/, { each: true })])
    one(of, key);
};

export class ChooseLanguages {
  @IsLanguages() languages!: string[];
}

/** What becomes of pages on which lines were corrected: they stay as they are, or are recognised as the others. */
const CORRECTED = ['keep', 'anew'] as const;

export class RecogniseAnew {
  /** Those of the workspace and of the source where they are not said. */
  @Optional() @IsLanguages() languages?: string[];
  /** Needed where lines were corrected. */
  @Optional() @IsIn(CORRECTED) corrected?: (typeof CORRECTED)[number];
}

/** So many pages are read at once. */
export const MOST_PLAIN_PAGES = 20;

export class PagesAsked {
  /** Counted from 1. */
  @IsInt() @Min(1) @Max(100_000) from!: number;
  @IsInt() @Min(1) @Max(MOST_PLAIN_PAGES) count!: number;
}

export class PlainParagraph {
  @IsIn(PARAGRAPH_KINDS) kind!: ParagraphKind;
  @IsString() text!: string;
  @IsInt() start!: number;
}

export class PlainPage {
  @IsInt() page!: number;
  @IsString() cited!: string;
  @ListOf(() => PlainParagraph) paragraphs!: PlainParagraph[];
}

export class PlainReply {
  @ListOf(() => PlainPage) pages!: PlainPage[];
}

/** What was decided of a page. */
export class SortedPage {
  /** Counted from 1. */
  @IsInt() page!: number;
  @IsBoolean() used!: boolean;
  /** It is to be looked at again. */
  @IsBoolean() check!: boolean;
  @IsOptional() @IsUUID() sense!: string | null;
  /** By name, in the order they were given. */
  @Texts() tags!: string[];
}

export class SortedPages {
  @ListOf(() => SortedPage) pages!: SortedPage[];
}

/** What is to be another; the rest stays. */
export class SortPage extends PageAsked {
  @Optional() @IsBoolean() used?: boolean;
  @Optional() @IsBoolean() check?: boolean;
  /** None where it is null. */
  @Optional() @OrNull() @IsUUID() sense?: string | null;
  /** A tag that is given, or taken back where it has it. */
  @Optional() @IsString() @Length(1, 200) tag?: string;
}

/** The most pages one new source can be made of. */
const MOST_TAKEN = 2000;

export class TakePages {
  /** Counted from 1. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_TAKEN)
  @IsInt({ each: true })
  @Min(1, { each: true })
  @Max(100_000, { each: true })
  pages!: number[];
  @IsObject() record!: Record<string, unknown>;
}

export class TakenAsSource {
  @IsUUID() source!: string;
  @IsString() title!: string;
  /** Counted from 1. */
  @IsArray() @IsInt({ each: true }) pages!: number[];
}

export class TakenPages {
  @ListOf(() => TakenAsSource) taken!: TakenAsSource[];
}

/** What is kept of a picture once it is turned, in shares of its width and height. */
export class Crop {
  @IsNumber() @Min(0) @Max(1) left!: number;
  @IsNumber() @Min(0) @Max(1) top!: number;
  @IsNumber() @Min(0.01) @Max(1) width!: number;
  @IsNumber() @Min(0.01) @Max(1) height!: number;
}

export const TURNS_OF_PICTURES = [0, 90, 180, 270] as const;

export class PageOfPictures {
  /** Which of the pictures that come, from 0; of one with several pages, all of them. */
  @IsInt() @Min(0) @Max(1000) picture!: number;
  /** Clockwise; where it is not said, the application finds out which way is up. */
  @Optional() @IsIn(TURNS_OF_PICTURES) turn?: (typeof TURNS_OF_PICTURES)[number];
  @OptionalPart(() => Crop) crop?: Crop;
}

/** Pictures as the pages of one document, in their order. */
export class PagesOfPictures {
  @ListOf(() => PageOfPictures) @ArrayMinSize(1) @ArrayMaxSize(300) pages!: PageOfPictures[];
}

/** A link in place of a file. */
export class LinkFile {
  @IsUrl({ protocols: ['http', 'https'], require_protocol: true, require_tld: false })
  @MaxLength(2000)
  address!: string;
  @Optional() @IsString() @MaxLength(200) name?: string;
}

export const fileRoutes = {
  add: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/files',
    may: 'edit',
    summary: 'Add a file to a source, as multipart; with the field “instead”, in place of another of its files.',
    reply: Changed,
  }),
  pictures: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/pictures',
    may: 'edit',
    summary:
      'Make one document of several pictures, as multipart: the fields “name” and “pages” before the pictures; a job does it.',
    reply: Changed,
  }),
  link: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/links',
    may: 'edit',
    summary: 'Add a link to a source, in place of a file.',
    body: LinkFile,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/sources/:source/files/:file',
    may: 'edit',
    summary: 'Rename a file of a source, or say that it is opened first.',
    body: EditFile,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/sources/:source/files/:file',
    may: 'edit',
    summary: 'Take a file from a source; it can be undone.',
    reply: Changed,
  }),
  number: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/files/:file/numbers',
    may: 'edit',
    summary: 'Say which number a page of a file has in print; the pages after it are counted on.',
    body: NumberPage,
    reply: Changed,
  }),
  lines: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file/lines',
    may: 'read',
    bounded: true,
    summary: 'The lines of a page as they were recognised and as they were corrected, with their places.',
    query: PageAsked,
    reply: LinesOfPage,
  }),
  correct: route({
    method: 'PUT',
    path: '/w/:workspace/sources/:source/files/:file/lines',
    may: 'edit',
    summary: 'Correct a line of a page, or put it back as it was recognised.',
    body: CorrectLine,
    reply: Changed,
  }),
  recogniseAnew: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/files/:file/recognise',
    may: 'edit',
    summary: 'Recognise the text of a scan anew; a job does it, and puts the result in place of the file.',
    body: RecogniseAnew,
    reply: Changed,
  }),
  hocr: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file/hocr',
    may: 'read',
    bounded: true,
    heavy: true,
    summary: 'The text of a document as it was recognised and corrected, with the place of every word (hOCR 1.2).',
    produces: 'application/xhtml+xml',
  }),
  languages: route({
    method: 'GET',
    path: '/w/:workspace/recognition',
    may: 'read',
    summary: 'The languages in which text is recognised here, and those that are installed.',
    reply: RecognitionLanguages,
  }),
  setLanguages: route({
    method: 'PUT',
    path: '/w/:workspace/recognition',
    may: 'steer',
    summary: 'Choose the languages in which text is recognised.',
    body: ChooseLanguages,
    reply: RecognitionLanguages,
  }),
  plain: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file/plain',
    may: 'read',
    bounded: true,
    summary: 'Pages as paragraphs in the order one reads them, without running heads.',
    query: PagesAsked,
    reply: PlainReply,
  }),
  sortedPages: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file/pages',
    may: 'read',
    bounded: true,
    summary: 'What was decided of the pages of a document.',
    reply: SortedPages,
  }),
  sortPage: route({
    method: 'PATCH',
    path: '/w/:workspace/sources/:source/files/:file/pages',
    may: 'mark',
    summary: 'Say of a page that it is used or to be checked again, give it a sense or a tag.',
    body: SortPage,
    reply: Changed,
  }),
  takePages: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/files/:file/parts',
    may: 'edit',
    summary: 'Make a source of pages of a document, as part of its source; a job does it.',
    body: TakePages,
    most: RECORDS,
    reply: Changed,
  }),
  takenPages: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file/parts',
    may: 'read',
    summary: 'Which pages of a document sources were made of.',
    reply: TakenPages,
  }),
  content: route({
    method: 'GET',
    path: '/w/:workspace/files/:file/content',
    may: 'read',
    bounded: true,
    summary: 'The content of a file; ranges are served.',
    produces: 'application/pdf',
  }),
  within: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/files/:file/within',
    may: 'read',
    bounded: true,
    summary: 'Where words stand in a document: pages, spans and rectangles.',
    query: WithinQuery,
    reply: WithinReply,
  }),
};
