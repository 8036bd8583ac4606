import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import type { Quote, Rect, Sense } from '@pandecta/core/marks';

export class RectBody {
  @IsNumber() x0!: number;
  @IsNumber() y0!: number;
  @IsNumber() x1!: number;
  @IsNumber() y1!: number;
}

export class QuoteBody {
  @IsString() @MaxLength(20_000) exact!: string;
  @IsString() @MaxLength(200) prefix!: string;
  @IsString() @MaxLength(200) suffix!: string;
}

export class NewMark {
  @IsInt() @Min(1) page!: number;
  @IsUUID() sense!: string;
  @ValidateNested() @Type(() => QuoteBody) quote!: QuoteBody;
  @IsArray() @ArrayMaxSize(500) @ValidateNested({ each: true }) @Type(() => RectBody) rects!: RectBody[];
  @IsOptional() @IsString() @MaxLength(20_000) gloss?: string;
}

export class EditMark {
  @IsOptional() @IsString() @MaxLength(20_000) gloss?: string;
  @IsOptional() @IsUUID() sense?: string;
}

export class Mark {
  @IsUUID() id!: string;
  @IsUUID() fileId!: string;
  @IsUUID() sourceId!: string;
  @IsInt() page!: number;
  @IsUUID() sense!: string;
  @IsObject() quote!: Quote;
  @IsArray() rects!: Rect[];
  @IsString() gloss!: string;
  @IsString() by!: string;
  @IsString() at!: string;
}

export class DocumentReply {
  @IsUUID() fileId!: string;
  @IsUUID() sourceId!: string;
  @IsString() name!: string;
  @IsString() state!: string;
  @IsInt() pages!: number;
  @IsArray() marks!: Mark[];
  @IsArray() senses!: Sense[];
}

export class PageHit {
  @IsInt() page!: number;
  @IsString() text!: string;
  @IsArray() lit!: { start: number; end: number }[];
  @IsArray() rects!: Rect[];
}

export class WithinQuery {
  @IsString() @MaxLength(2000) q!: string;
}

export class WithinReply {
  @IsArray() hits!: PageHit[];
  @IsInt() total!: number;
}
