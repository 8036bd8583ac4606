/** Glosses on the whole of a source. */
import { IsBoolean, IsString, IsUUID, Length, MaxLength } from 'class-validator';
import { Changed } from './changes.ts';
import { RECORDS, route } from './route.ts';
import { ListOf, Optional } from './shape.ts';

export const LONGEST_GLOSS = 20_000;

export class Gloss {
  @IsUUID() id!: string;
  @IsString() text!: string;
  @IsString() by!: string;
  @IsString() at!: string;
  /** Whether its writer alone sees it. */
  @IsBoolean() personal!: boolean;
}

export class Glosses {
  @ListOf(() => Gloss) glosses!: Gloss[];
}

export class NewGloss {
  @IsString() @Length(1, LONGEST_GLOSS) text!: string;
  /** Whether its writer alone is to see it. */
  @Optional() @IsBoolean() personal?: boolean;
}

export class EditGloss {
  @IsString() @Length(1, LONGEST_GLOSS) text!: string;
  /** What it was when one began: where it is another by now, nothing is changed. */
  @Optional() @IsString() @MaxLength(LONGEST_GLOSS) seen?: string;
}

export const glossRoutes = {
  list: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/glosses',
    may: 'read',
    bounded: true,
    summary: 'The glosses on the whole of a source, in the order they were written.',
    reply: Glosses,
  }),
  write: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/glosses',
    may: 'own',
    summary: 'Write a gloss on the whole of a source; whoever may not mark writes for themselves alone.',
    body: NewGloss,
    most: RECORDS,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/glosses/:gloss',
    may: 'own',
    summary: 'Rewrite a gloss on a source.',
    body: EditGloss,
    most: RECORDS,
    reply: Changed,
  }),
  share: route({
    method: 'POST',
    path: '/w/:workspace/glosses/:gloss/share',
    may: 'mark',
    summary: 'Show a gloss that its writer alone sees to all members.',
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/glosses/:gloss',
    may: 'own',
    summary: 'Remove a gloss on a source; it can be undone.',
    reply: Changed,
  }),
};
