import { ArrayMaxSize, IsBoolean, IsIn, IsObject, IsString, IsUUID, Length, Matches, MaxLength } from 'class-validator';
import type { StyleInfo } from '@pandecta/core/citing';
import { AUTHOR_FORMS, LOCATOR_KINDS, type AuthorForm, type CiteItem, type LocatorKind } from '@pandecta/core/source';
import { EXPORT_FORMATS, type ExportFormat } from '@pandecta/core/formats';
import { PRINT_FORMATS, type PrintFormat } from '@pandecta/core/printing';
import { MANY_IDS, RECORDS, route } from './route.ts';
import { Ids, ListOf, Optional, Texts } from './shape.ts';
import { Chosen } from './sources.ts';

export class StyleQuery {
  @Optional() @IsString() @Length(0, 100) like?: string;
}

export class Style implements StyleInfo {
  @IsString() id!: string;
  @IsString() title!: string;
  @IsString() manner!: string;
  @Optional() @IsString() parent?: string;
  @Optional() @IsString() language?: string;
}

export class StyleList {
  @ListOf(() => Style) styles!: Style[];
  @Texts() locales!: string[];
}

/** How many sources are cited at once. */
export const MOST_CITED = 2000;

/** What a citation says of a source beside the source itself. */
export class CitedWith implements CiteItem {
  @IsUUID() id!: string;
  @Optional() @IsString() @MaxLength(200) locator?: string;
  /** What the locator is of: the kinds of CSL 1.0.2; a page where it is not said. */
  @Optional() @IsIn(LOCATOR_KINDS) label?: LocatorKind;
  @Optional() @IsString() @MaxLength(500) before?: string;
  @Optional() @IsString() @MaxLength(500) after?: string;
  /** How its author is named: as the style does, not at all, or before the citation as part of the sentence. */
  @Optional() @IsIn(AUTHOR_FORMS) author?: AuthorForm;
}

export class CiteRequest extends Chosen {
  @IsString() @Matches(/^[a-z0-9][\w.+-]{0,120}$/i) style!: string;
  /** The language to write in; the one the style is made for when not given. */
  @Optional() @Matches(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})?$/) locale?: string;
  /** Also give the citation as it stands in the text. */
  @Optional() @IsBoolean() inText?: boolean;
  /** Of the sources of which something is said beside: where in them, words around, how their author is named. */
  @Optional() @ListOf(() => CitedWith) @ArrayMaxSize(200) items?: CitedWith[];
}

/** A record as it might be: nobody has it yet. */
export class CiteRecord {
  @IsObject() record!: Record<string, unknown>;
  @IsString() @Matches(/^[a-z0-9][\w.+-]{0,120}$/i) style!: string;
  @Optional() @Matches(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})?$/) locale?: string;
}

export class CitedRecord {
  @IsString() html!: string;
}

export class CitedEntry {
  @IsUUID() id!: string;
  @IsString() html!: string;
  @IsString() text!: string;
}

export class CiteReply {
  @ListOf(() => CitedEntry) entries!: CitedEntry[];
  @IsBoolean() hangingIndent!: boolean;
  /** The sources the style prints nothing for. */
  @Ids() unprinted!: string[];
  @Optional() @IsString() citationHtml?: string;
  @Optional() @IsString() citationText?: string;
}

/** A bibliography as a file. */
export class PrintRequest extends CiteRequest {
  @IsIn(PRINT_FORMATS) format!: PrintFormat;
}

export class ExportRequest extends Chosen {
  @IsIn(EXPORT_FORMATS) format!: ExportFormat;
}

export const citeRoutes = {
  record: route({
    method: 'POST',
    path: '/w/:workspace/cited-record',
    may: 'cite',
    bounded: true,
    summary: 'A record that is not kept yet, as it would print.',
    body: CiteRecord,
    most: RECORDS,
    reply: CitedRecord,
  }),
  styles: route({
    method: 'GET',
    path: '/styles',
    may: 'signed in',
    summary: 'Citation styles: the usual ones, or those whose name has these words.',
    query: StyleQuery,
    reply: StyleList,
  }),
  cite: route({
    method: 'POST',
    path: '/w/:workspace/cite',
    may: 'cite',
    bounded: true,
    heavy: true,
    summary: 'The bibliography of sources in a style, as HTML and as text.',
    body: CiteRequest,
    most: MANY_IDS,
    reply: CiteReply,
  }),
  print: route({
    method: 'POST',
    path: '/w/:workspace/bibliography',
    may: 'cite',
    bounded: true,
    heavy: true,
    summary: 'The bibliography of sources in a style, as a file: DOCX, RTF, HTML, Markdown or plain text.',
    body: PrintRequest,
    most: MANY_IDS,
    produces: 'application/octet-stream',
  }),
  export: route({
    method: 'POST',
    path: '/w/:workspace/export',
    may: 'read',
    bounded: true,
    heavy: true,
    summary: 'Sources as RIS, BibTeX, BibLaTeX or CSL-JSON.',
    body: ExportRequest,
    most: MANY_IDS,
    produces: 'text/plain',
  }),
};
