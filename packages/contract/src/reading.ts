import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsString,
  IsUrl,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { COLOURS, type Colour, type Quote, type Rect, type Sense } from '@pandecta/core/marks';
import { Changed } from './changes.ts';
import { RECORDS, route } from './route.ts';
import { ListOf, Optional, OptionalPart, Part } from './shape.ts';
import { FILE_STATES, LitSpan, type FileState } from './sources.ts';

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
}

/** What a mark held when one began. */
export class MarkSeen {
  @Optional() @IsString() @MaxLength(20_000) gloss?: string;
  @Optional() @IsUUID() sense?: string;
}

export class EditMark {
  @Optional() @IsString() @MaxLength(20_000) gloss?: string;
  @Optional() @IsUUID() sense?: string;
  /** What gloss and sense were when one began: where one of them is another by now, nothing is changed. */
  @OptionalPart(() => MarkSeen) seen?: MarkSeen;
}

export class Mark {
  @IsUUID() id!: string;
  @IsUUID() fileId!: string;
  @IsUUID() sourceId!: string;
  @IsInt() page!: number;
  @IsUUID() sense!: string;
  @Part(() => QuoteBody) quote!: QuoteBody;
  @ListOf(() => RectBody) rects!: RectBody[];
  @IsString() gloss!: string;
  @IsString() by!: string;
  @IsString() at!: string;
}

export class SenseInfo implements Sense {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsInt() key!: number;
  @IsIn(COLOURS) colour!: Colour;
}

export class DocumentReply {
  @IsUUID() fileId!: string;
  @IsUUID() sourceId!: string;
  @IsString() name!: string;
  @IsIn(FILE_STATES) state!: FileState;
  @IsString() mediaType!: string;
  @IsInt() pages!: number;
  @ListOf(() => Mark) marks!: Mark[];
  @ListOf(() => SenseInfo) senses!: SenseInfo[];
}

export class PageHit {
  @IsInt() page!: number;
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
    path: '/w/:workspace/files/:file/within',
    may: 'read',
    bounded: true,
    summary: 'Where words stand in a document: pages, spans and rectangles.',
    query: WithinQuery,
    reply: WithinReply,
  }),
};

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
    may: 'mark',
    summary: 'Mark a passage.',
    body: NewMark,
    most: RECORDS,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/marks/:mark',
    may: 'mark',
    summary: 'Write the gloss of a mark, or give it another sense.',
    body: EditMark,
    most: RECORDS,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/marks/:mark',
    may: 'mark',
    summary: 'Remove a mark with its gloss; it can be undone.',
    reply: Changed,
  }),
};
