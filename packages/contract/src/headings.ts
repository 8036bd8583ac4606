/** Headings: the people, bodies, places, events and themes that notes and sources are about. */
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsString, IsUUID, Length, MaxLength } from 'class-validator';
import { HEADING_KINDS, type Heading, type HeadingKind } from '@pandecta/core/headings';
import { Changed } from './changes.ts';
import { RECORDS, route } from './route.ts';
import { ListOf, Optional, OrNull, Part, Texts } from './shape.ts';

export class NewHeading {
  @IsString() @Length(1, 200) name!: string;
  @IsIn(HEADING_KINDS) kind!: HeadingKind;
  @Optional() @IsArray() @IsString({ each: true }) @MaxLength(200, { each: true }) @ArrayMaxSize(50) others?: string[];
  @Optional() @IsString() @MaxLength(100) dates?: string;
  @Optional() @IsString() @MaxLength(200) place?: string;
  @Optional() @IsString() @MaxLength(500) says?: string;
  @Optional() @OrNull() @IsUUID() parent?: string | null;
  @Optional() @IsString() @MaxLength(60) orcid?: string;
}

export class HeadingInfo implements Heading {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsIn(HEADING_KINDS) kind!: HeadingKind;
  @Texts() others!: string[];
  @IsString() dates!: string;
  @IsString() place!: string;
  @IsString() says!: string;
  @OrNull() @IsUUID() parent!: string | null;
  @OrNull() @IsUUID() into!: string | null;
  @IsString() orcid!: string;
}

export class HeadingList {
  @ListOf(() => HeadingInfo) headings!: HeadingInfo[];
}

/** A heading there is, or a name of a record that may become one. */
export class HeadingOffer {
  @OrNull() @IsUUID() id!: string | null;
  @IsString() name!: string;
  @IsIn(HEADING_KINDS) kind!: HeadingKind;
  /** What it was found by, where that is another of its names. */
  @IsString() by!: string;
}

export class HeadingOffers {
  @ListOf(() => HeadingOffer) offers!: HeadingOffer[];
}

export class AskHeadings {
  @IsString() @Length(1, 100) q!: string;
}

export class MergeHeading {
  @IsUUID() into!: string;
}

/** A note that stands under a heading. */
export class NoteBrief {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @OrNull() @IsString() event!: string | null;
}

/** Sources in which it has a role. */
export class HeadingRole {
  /** “Author or editor”, “Court”. */
  @IsString() role!: string;
  /** What of Sources asks for them. */
  @IsString() query!: string;
  @IsInt() count!: number;
}

export class HeadingBeside {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsInt() count!: number;
}

export class HeadingPage {
  @Part(() => HeadingInfo) heading!: HeadingInfo;
  /** Those that were merged into it. */
  @ListOf(() => HeadingInfo) merged!: HeadingInfo[];
  @ListOf(() => HeadingInfo) narrower!: HeadingInfo[];
  @ListOf(() => NoteBrief) notes!: NoteBrief[];
  @ListOf(() => HeadingRole) roles!: HeadingRole[];
  /** How many marks stand in the sources its notes speak of. */
  @IsInt() marks!: number;
  /** Those that occur in the same notes. */
  @ListOf(() => HeadingBeside) beside!: HeadingBeside[];
  /** The first and last date of what its notes tell of, as they were written. */
  @OrNull() @IsString() first!: string | null;
  @OrNull() @IsString() last!: string | null;
}

export const headingRoutes = {
  list: route({
    method: 'GET',
    path: '/w/:workspace/headings',
    may: 'read',
    summary: 'The headings of the workspace, those that were merged too.',
    reply: HeadingList,
  }),
  offer: route({
    method: 'POST',
    path: '/w/:workspace/headings/offer',
    may: 'read',
    summary: 'Headings by the beginning of any of their names, and names of records that are none yet.',
    body: AskHeadings,
    reply: HeadingOffers,
  }),
  page: route({
    method: 'GET',
    path: '/w/:workspace/headings/:heading',
    may: 'read',
    summary: 'A heading with its notes, the sources it has a role in, and what occurs beside it.',
    reply: HeadingPage,
  }),
  make: route({
    method: 'POST',
    path: '/w/:workspace/headings',
    may: 'arrange',
    summary: 'Add a heading.',
    body: NewHeading,
    most: RECORDS,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/headings/:heading',
    may: 'arrange',
    summary: 'Alter a heading.',
    body: NewHeading,
    most: RECORDS,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/headings/:heading',
    may: 'arrange',
    summary: 'Remove a heading that no note has.',
    reply: Changed,
  }),
  merge: route({
    method: 'POST',
    path: '/w/:workspace/headings/:heading/merge',
    may: 'arrange',
    summary: 'Merge a heading into another: its notes count as notes of that one, and its names find it.',
    body: MergeHeading,
    reply: Changed,
  }),
  part: route({
    method: 'POST',
    path: '/w/:workspace/headings/:heading/part',
    may: 'arrange',
    summary: 'A heading that was merged into another is one of its own again.',
    reply: Changed,
  }),
};
