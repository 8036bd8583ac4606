import { IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';
import { ALL_RELATIONS, type Relation } from '@pandecta/core/changes';
import { KINDS, type Kind } from '@pandecta/core/source';
import { Changed } from './changes.ts';
import { route } from './route.ts';
import { ListOf, OrNull, Part } from './shape.ts';

export class RelatedSource {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsIn(Object.keys(KINDS)) kind!: Kind;
  @IsString() who!: string;
  @OrNull() @IsInt() year!: number | null;
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
  @IsOptional() @IsString() @MaxLength(4000) note?: string;
  @IsOptional() @IsString() @MaxLength(100) page?: string;
  /** False takes it back. */
  @IsBoolean() present!: boolean;
}

export const relationRoutes = {
  of: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/relations',
    may: 'read',
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
