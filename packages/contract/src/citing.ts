import { IsArray, IsBoolean, IsIn, IsOptional, IsString, IsUUID, ArrayMaxSize, Length, Matches } from 'class-validator';
import type { StyleInfo } from '@pandecta/core/citing';
import { EXPORT_FORMATS, type ExportFormat } from '@pandecta/core/formats';
import { SourceIds } from './sources.ts';

export class StyleQuery {
  @IsOptional() @IsString() @Length(0, 100) like?: string;
}

export class StyleList {
  @IsArray() styles!: StyleInfo[];
  @IsArray() locales!: string[];
}

export class CiteRequest {
  @IsArray() @ArrayMaxSize(2000) @IsUUID('all', { each: true }) ids!: string[];
  @IsString() @Matches(/^[a-z0-9][\w.+-]{0,120}$/i) style!: string;
  /** The language to write in; the one the style is made for when not given. */
  @IsOptional() @Matches(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})?$/) locale?: string;
  /** Also give the citation as it stands in the text. */
  @IsOptional() @IsBoolean() inText?: boolean;
}

export class CiteReply {
  @IsArray() entries!: { id: string; html: string; text: string }[];
  @IsBoolean() hangingIndent!: boolean;
  /** The sources the style prints nothing for. */
  @IsArray() unprinted!: string[];
  @IsOptional() @IsString() citationHtml?: string;
  @IsOptional() @IsString() citationText?: string;
}

export class ExportRequest extends SourceIds {
  @IsIn(EXPORT_FORMATS) format!: ExportFormat;
}
