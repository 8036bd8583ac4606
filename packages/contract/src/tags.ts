import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  MaxLength,
} from 'class-validator';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { Ids, ListOf, Optional, OrNull } from './shape.ts';
import { Chosen } from './sources.ts';

export class TagSources extends Chosen {
  @IsString() @Length(1, 200) name!: string;
  @IsBoolean() present!: boolean;
  @Optional() @IsBoolean() subject?: boolean;
}

export class TagSuggestion {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsBoolean() subject!: boolean;
  @IsInt() count!: number;
}

export class SuggestQuery {
  @Optional() @IsString() @Length(0, 100) begins?: string;
}

export class TagList {
  @ListOf(() => TagSuggestion) tags!: TagSuggestion[];
}

/** A tag or a subject term of the workspace's vocabulary. */
export class VocabularyTerm extends TagSuggestion {
  /** What it means here. */
  @IsString() says!: string;
  /** Under which heading it stands; empty for none. */
  @IsString() heading!: string;
  /** The term it stands under as the narrower one. */
  @OrNull() @IsUUID() broader!: string | null;
}

/** Terms that are one word in several spellings. */
export class AlikeTerms {
  @Ids() ids!: string[];
}

export class Vocabulary {
  @ListOf(() => VocabularyTerm) terms!: VocabularyTerm[];
  @ListOf(() => AlikeTerms) alike!: AlikeTerms[];
}

/** What is to be another; the rest stays. */
export class EditTerm {
  @Optional() @IsString() @Length(1, 200) name?: string;
  @Optional() @IsString() @MaxLength(1000) says?: string;
  @Optional() @IsString() @MaxLength(200) heading?: string;
  /** The term it is to stand under; null for none. */
  @IsOptional() @IsUUID() broader?: string | null;
  /** A subject term becomes a tag, or a tag a subject term. */
  @Optional() @IsBoolean() subject?: boolean;
}

export class MergeTerms {
  @IsUUID() into!: string;
  @IsArray() @ArrayMaxSize(1000) @IsUUID('all', { each: true }) terms!: string[];
}

export const VOCABULARY_FORMATS = {
  skos: { name: 'SKOS (Turtle)', extension: 'ttl', mediaType: 'text/turtle' },
  csv: { name: 'CSV', extension: 'csv', mediaType: 'text/csv' },
} as const;
export type VocabularyFormat = keyof typeof VOCABULARY_FORMATS;

export class VocabularyQuery {
  @IsIn(Object.keys(VOCABULARY_FORMATS)) format!: VocabularyFormat;
  /** Subject terms; tags where it is not said. */
  @Optional() @IsBoolean() subject?: boolean;
}

/** So much of a vocabulary comes in at once. */
export const MOST_VOCABULARY = 4_000_000;

export class BringVocabulary {
  /** SKOS as Turtle, N-Triples or RDF/XML; or a table. */
  @IsString() @Length(1, MOST_VOCABULARY) text!: string;
  /** As subject terms; as tags where it is not said. */
  @Optional() @IsBoolean() subject?: boolean;
}

export class BroughtVocabulary extends Changed {
  /** What was left out, and why. */
  @IsString({ each: true }) messages!: string[];
}

/** Subject terms of which tags are made. */
export class TermsToTags {
  @Ids() @ArrayMinSize(1) @ArrayMaxSize(1000) terms!: string[];
  /** Whether the terms stay on the records besides. */
  @IsBoolean() keep!: boolean;
}

export const tagRoutes = {
  saveVocabulary: route({
    method: 'GET',
    path: '/w/:workspace/vocabulary-file',
    may: 'read',
    heavy: true,
    summary: 'The tags or subject terms as SKOS or as a table.',
    query: VocabularyQuery,
    produces: 'text/plain',
  }),
  bringVocabulary: route({
    method: 'POST',
    path: '/w/:workspace/vocabulary-file',
    may: 'arrange',
    heavy: true,
    summary:
      'Bring a vocabulary in: what is new is added, what is known is completed, nothing is altered that someone said.',
    body: BringVocabulary,
    most: 2 * MOST_VOCABULARY,
    reply: BroughtVocabulary,
  }),
  toTags: route({
    method: 'POST',
    path: '/w/:workspace/vocabulary-tags',
    may: 'arrange',
    heavy: true,
    summary: 'Make tags of subject terms: what bears the term bears the tag.',
    body: TermsToTags,
    most: MANY_IDS,
    reply: Changed,
  }),
  suggest: route({
    method: 'GET',
    path: '/w/:workspace/tags',
    may: 'read',
    bounded: true,
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
  vocabulary: route({
    method: 'GET',
    path: '/w/:workspace/vocabulary',
    may: 'read',
    bounded: true,
    summary: 'All tags and subject terms, with how many sources bear each, and those that are near-identical.',
    reply: Vocabulary,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/vocabulary/:tag',
    may: 'arrange',
    summary: 'Rename a tag or subject term, say what it means, put it under a heading.',
    body: EditTerm,
    reply: Changed,
  }),
  merge: route({
    method: 'POST',
    path: '/w/:workspace/vocabulary-merges',
    may: 'arrange',
    summary: 'Merge tags into one: what bears any of them bears that one.',
    body: MergeTerms,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/vocabulary/:tag',
    may: 'arrange',
    summary: 'Remove a tag from the vocabulary and from all sources; the sources stay.',
    reply: Changed,
  }),
};
