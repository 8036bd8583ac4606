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
import { Type } from 'class-transformer';
import { TURNS, type Turn } from '@pandecta/core/marks';
import { READING_STATES, type ReadingState } from '@pandecta/core/changes';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { ListOf, Optional, OrNull } from './shape.ts';
import { Chosen } from './sources.ts';

export class SetReading extends Chosen {
  @IsOptional() @IsIn(READING_STATES) state!: ReadingState | null;
}

export class SetStar extends Chosen {
  @IsBoolean() present!: boolean;
}

/** A document that stands in a tab of the reader. */
export class OpenDocument {
  @IsUUID() source!: string;
  @IsUUID() file!: string;
  @IsString() @MaxLength(1000) title!: string;
}

/** Where a member was in a document, and how they had it shown. */
export class PlaceInDocument {
  @IsUUID() file!: string;
  @IsInt() @Min(1) @Max(100_000) page!: number;
  /** Pixels a point; none to fit the width. */
  @IsOptional() @IsNumber() @Min(0.05) @Max(20) zoom?: number | null;
  @Optional() @IsIn(TURNS) turn?: Turn;
  /** Of pages that were looked through one by one: first and last of each run, in their order. */
  @Optional()
  @IsArray()
  @ArrayMaxSize(1000)
  @IsInt({ each: true })
  @Min(1, { each: true })
  @Max(100_000, { each: true })
  looked?: number[];
}

const MOST_OPEN = 60;
/** The place is kept in so many documents, those read last. */
export const MOST_PLACES_KEPT = 300;

export class OpenDocuments {
  @IsArray()
  @ArrayMaxSize(MOST_OPEN)
  @ValidateNested({ each: true })
  @Type(() => OpenDocument)
  open!: OpenDocument[];
  @IsArray()
  @ArrayMaxSize(MOST_PLACES_KEPT)
  @ValidateNested({ each: true })
  @Type(() => PlaceInDocument)
  places!: PlaceInDocument[];
  /** The one that is looked at. */
  @Optional() @IsUUID() last?: string;
}

export class KeptOpen {
  @ListOf(() => OpenDocument) open!: OpenDocument[];
  @ListOf(() => PlaceInDocument) places!: PlaceInDocument[];
  @IsOptional() @IsUUID() last!: string | null;
}

/** None where nothing is kept. */
export class FilePassword {
  @OrNull() @IsString() @Length(1, 500) password!: string | null;
}

export const ownRoutes = {
  openDocuments: route({
    method: 'GET',
    path: '/w/:workspace/open-documents',
    may: 'read',
    summary: 'The documents you have open, and your place in each.',
    reply: KeptOpen,
  }),
  keepOpen: route({
    method: 'PUT',
    path: '/w/:workspace/open-documents',
    may: 'own',
    summary: 'Keep which documents you have open, and your place in each.',
    body: OpenDocuments,
    most: MANY_IDS,
    reply: KeptOpen,
  }),
  filePassword: route({
    method: 'GET',
    path: '/w/:workspace/files/:file/password',
    may: 'own',
    bounded: true,
    summary: 'The password by which you opened a locked file.',
    reply: FilePassword,
  }),
  keepFilePassword: route({
    method: 'PUT',
    path: '/w/:workspace/files/:file/password',
    may: 'own',
    bounded: true,
    summary: 'Keep the password of a locked file for yourself, or forget it.',
    body: FilePassword,
    reply: FilePassword,
  }),
  reading: route({
    method: 'POST',
    path: '/w/:workspace/reading',
    may: 'own',
    bounded: true,
    summary: 'Set or clear your reading state of sources.',
    body: SetReading,
    most: MANY_IDS,
    reply: Changed,
  }),
  star: route({
    method: 'POST',
    path: '/w/:workspace/stars',
    may: 'own',
    bounded: true,
    summary: 'Star sources, or take your star from them.',
    body: SetStar,
    most: MANY_IDS,
    reply: Changed,
  }),
};
