import { IsBoolean, IsIn, IsInt, IsString, IsUUID, Length, Max, MaxLength, Min } from 'class-validator';
import { HIGHEST_RATING } from '@pandecta/core/changes';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { ListOf, Optional, OrNull } from './shape.ts';
import { Chosen } from './sources.ts';

/** What a label is tinted with; its letter and its name say which it is. */
export const TINTS = ['verdigris', 'ochre', 'madder', 'plum', 'slate', 'moss'] as const;
export type Tint = (typeof TINTS)[number];

export class NewLabel {
  @IsString() @Length(1, 60) name!: string;
  @IsString() @Length(1, 2) letter!: string;
  @IsIn(TINTS) tint!: Tint;
  /** What it means, for who has forgotten. */
  @Optional() @IsString() @MaxLength(500) says?: string;
}

export class Label extends NewLabel {
  @IsUUID() id!: string;
}

export class LabelList {
  @ListOf(() => Label) labels!: Label[];
}

export class LabelSources extends Chosen {
  @IsUUID() label!: string;
  @IsBoolean() present!: boolean;
}

export class RateSources extends Chosen {
  @OrNull() @IsInt() @Min(1) @Max(HIGHEST_RATING) rating!: number | null;
}

/** Null where they have been checked. */
export class RecheckSources extends Chosen {
  @OrNull() @IsString() @MaxLength(500) reason!: string | null;
}

export const assessmentRoutes = {
  labels: route({
    method: 'GET',
    path: '/w/:workspace/labels',
    may: 'read',
    bounded: true,
    summary: 'The labels of the workspace.',
    reply: LabelList,
  }),
  makeLabel: route({
    method: 'POST',
    path: '/w/:workspace/labels',
    may: 'arrange',
    summary: 'Make a label.',
    body: NewLabel,
    reply: Changed,
  }),
  editLabel: route({
    method: 'PATCH',
    path: '/w/:workspace/labels/:label',
    may: 'arrange',
    summary: 'Alter a label.',
    body: NewLabel,
    reply: Changed,
  }),
  removeLabel: route({
    method: 'DELETE',
    path: '/w/:workspace/labels/:label',
    may: 'arrange',
    summary: 'Remove a label from the workspace; undone, its sources bear it again.',
    reply: Changed,
  }),
  label: route({
    method: 'POST',
    path: '/w/:workspace/labelling',
    may: 'edit',
    summary: 'Label sources, or take a label from them.',
    body: LabelSources,
    most: MANY_IDS,
    reply: Changed,
  }),
  rate: route({
    method: 'POST',
    path: '/w/:workspace/ratings',
    may: 'edit',
    summary: 'Rate sources, or take their rating away.',
    body: RateSources,
    most: MANY_IDS,
    reply: Changed,
  }),
  recheck: route({
    method: 'POST',
    path: '/w/:workspace/rechecks',
    may: 'edit',
    summary: 'Say that sources are to be checked again, and why; or that they have been.',
    body: RecheckSources,
    most: MANY_IDS,
    reply: Changed,
  }),
};
