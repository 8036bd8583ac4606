import { IsBoolean, IsInt, IsOptional, IsString, IsUUID, Length } from 'class-validator';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { ListOf } from './shape.ts';
import { Chosen } from './sources.ts';

export class TagSources extends Chosen {
  @IsString() @Length(1, 200) name!: string;
  @IsBoolean() present!: boolean;
  @IsOptional() @IsBoolean() subject?: boolean;
}

export class TagSuggestion {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsBoolean() subject!: boolean;
  @IsInt() count!: number;
}

export class SuggestQuery {
  @IsOptional() @IsString() @Length(0, 100) begins?: string;
}

export class TagList {
  @ListOf(() => TagSuggestion) tags!: TagSuggestion[];
}

export const tagRoutes = {
  suggest: route({
    method: 'GET',
    path: '/w/:workspace/tags',
    may: 'read',
    byKey: true,
    summary: 'Tags and subject terms that begin so.',
    query: SuggestQuery,
    reply: TagList,
  }),
  tag: route({
    method: 'POST',
    path: '/w/:workspace/tagging',
    may: 'edit',
    summary: 'Put a tag on sources, or take it from them.',
    body: TagSources,
    most: MANY_IDS,
    reply: Changed,
  }),
};
