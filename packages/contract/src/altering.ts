/** One field of many sources altered in one way, seen before it is done. */
import { IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';
import type { Way } from '@pandecta/core/altering';
import type { FieldValue } from '@pandecta/core/source';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { ListOf, Optional } from './shape.ts';
import { Chosen } from './sources.ts';

const WAYS: Way[] = ['set', 'clear', 'append', 'prepend', 'replace'];

/** So many sources are altered at once, as one change. */
export const MOST_ALTERED = 10_000;

export class AlterField extends Chosen {
  /** A variable of CSL, or "type". */
  @IsString() @MaxLength(60) field!: string;
  @IsIn(WAYS) way!: Way;
  /** As the field holds it. */
  @Optional() value?: FieldValue;
  @Optional() @IsString() @MaxLength(1000) find?: string;
  @Optional() @IsBoolean() expression?: boolean;
  @Optional() @IsBoolean() exactCase?: boolean;
  @Optional() @IsBoolean() onlyEmpty?: boolean;
}

export class FieldAltered {
  @IsUUID() source!: string;
  @IsString() title!: string;
  /** What the field holds, null where nothing. */
  @IsOptional() before!: FieldValue | null;
  @IsOptional() after!: FieldValue | null;
}

export class AlterPreview {
  /** How many would be another, how many stay. */
  @IsInt() altered!: number;
  @IsInt() same!: number;
  /** The first of them. */
  @ListOf(() => FieldAltered) first!: FieldAltered[];
}

export const alteringRoutes = {
  preview: route({
    method: 'POST',
    path: '/w/:workspace/altering/preview',
    may: 'edit',
    heavy: true,
    summary: 'What a field of the chosen sources would hold.',
    body: AlterField,
    most: MANY_IDS,
    reply: AlterPreview,
  }),
  alter: route({
    method: 'POST',
    path: '/w/:workspace/altering',
    may: 'edit',
    heavy: true,
    summary: 'Alter a field of the chosen sources in one way, as one change.',
    body: AlterField,
    most: MANY_IDS,
    reply: Changed,
  }),
};
