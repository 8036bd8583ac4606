import { ArrayMaxSize, ArrayMinSize, IsBoolean, IsIn, IsInt, IsString, IsUUID, MaxLength } from 'class-validator';
import { ALL_RELATIONS, type Relation } from '@pandecta/core/changes';
import { KINDS, type Kind } from '@pandecta/core/source';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { Ids, ListOf, Optional, OrNull, Part } from './shape.ts';

export class RelatedSource {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsIn(Object.keys(KINDS)) kind!: Kind;
  @IsString() who!: string;
  @OrNull() @IsInt() year!: number | null;
}

/** A source that is like another, and by what. */
export class LikeSource extends RelatedSource {
  /** Rare words both have, as the other writes them. */
  @IsString({ each: true }) words!: string[];
  @IsString({ each: true }) people!: string[];
  /** How many sources both cite, or are both cited by. */
  @IsInt() references!: number;
}

export class LikeReply {
  /** The most alike first. */
  @ListOf(() => LikeSource) like!: LikeSource[];
}

/** The sources it was said of, where they became part of others since. */
class SaidOf {
  @IsUUID() from!: string;
  @IsUUID() to!: string;
}

export class RelationOfSource {
  @IsUUID() from!: string;
  @IsUUID() to!: string;
  @IsIn(ALL_RELATIONS) as!: Relation;
  @IsString() note!: string;
  @IsString() page!: string;
  @Part(() => SaidOf) saidOf!: SaidOf;
}

/** What stands around a source: the sources, itself among them, and how they stand to each other. */
export class RelationsOf {
  @ListOf(() => RelatedSource) sources!: RelatedSource[];
  @ListOf(() => RelationOfSource) relations!: RelationOfSource[];
}

export class SayRelation {
  @IsUUID() from!: string;
  @IsUUID() to!: string;
  @IsIn(ALL_RELATIONS) as!: Relation;
  @Optional() @IsString() @MaxLength(4000) note?: string;
  @Optional() @IsString() @MaxLength(100) page?: string;
  /** False takes it back. */
  @IsBoolean() present!: boolean;
}

/** A reference a document lists, as it is printed there. */
export class ListedSource {
  @IsString() text!: string;
  /** The page it stands on, counted from 1. */
  @IsInt() page!: number;
  /** The source here it is, where there is one. */
  @OrNull() @Part(() => RelatedSource) here!: RelatedSource | null;
  /** True where it may be another. */
  @IsBoolean() unsure!: boolean;
  /** True where it is said already that the one cites the other. */
  @IsBoolean() said!: boolean;
}

export class ListedSources {
  @ListOf(() => ListedSource) listed!: ListedSource[];
  /** The file that was read; null where none of the source has text. */
  @OrNull() @IsString() file!: string | null;
}

export class SayCited {
  @ArrayMinSize(1) @ArrayMaxSize(600) @Ids() cited!: string[];
}

export const relationRoutes = {
  like: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/like',
    may: 'read',
    bounded: true,
    summary: 'Sources that share rare words, people or references with one, the most alike first.',
    reply: LikeReply,
  }),
  listed: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/listed',
    may: 'read',
    bounded: true,
    heavy: true,
    summary: 'The references a document lists at its end, and which of them are sources here.',
    reply: ListedSources,
  }),
  cites: route({
    method: 'POST',
    path: '/w/:workspace/sources/:source/cites',
    may: 'edit',
    summary: 'Say that a source cites these, as one change.',
    body: SayCited,
    most: MANY_IDS,
    reply: Changed,
  }),
  of: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/relations',
    may: 'read',
    bounded: true,
    summary: 'How a source stands to others, and they to each other.',
    reply: RelationsOf,
  }),
  say: route({
    method: 'PUT',
    path: '/w/:workspace/relation',
    may: 'edit',
    summary: 'Say how one source stands to another, with a note and a page; or take it back.',
    body: SayRelation,
    reply: Changed,
  }),
};
