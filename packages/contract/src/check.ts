import {
  ArrayMaxSize,
  ArrayMinSize,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
} from 'class-validator';
import { RELATIONS, type Relation } from '@pandecta/core/changes';
import { SEVERITIES, type Mend, type Severity } from '@pandecta/core/proofing';
import { Changed } from './changes.ts';
import { Reason } from './intake.ts';
import { RECORDS, route } from './route.ts';
import { Ids, ListOf, OrNull, Texts } from './shape.ts';

export const GROUP_CLASSES = ['certain', 'likely', 'look closely'] as const;
export type GroupClass = (typeof GROUP_CLASSES)[number];

/** Sources that may be of one work. */
export class DuplicateGroup {
  /** Of its first two members, in their order. */
  @IsString() id!: string;
  @Ids() members!: string[];
  @IsString() title!: string;
  @IsNumber() probability!: number;
  @IsIn(GROUP_CLASSES) class!: GroupClass;
  /** They are rather versions of one work than one record twice. */
  @IsBoolean() versions!: boolean;
  @ListOf(() => Reason) reasons!: Reason[];
}

export class Duplicates {
  @ListOf(() => DuplicateGroup) groups!: DuplicateGroup[];
  /** How many sources were compared. */
  @IsInt() compared!: number;
}

/** Sources become one. */
export class Merge {
  @IsUUID() into!: string;
  /** The others, in the order they are shown. */
  @Ids() @ArrayMinSize(1) @ArrayMaxSize(9) sources!: string[];
  /** For each field the source whose value stands; by the rules where nothing is said. */
  @IsOptional() @IsObject() take?: Record<string, string>;
}

export class MergeGroups {
  /** Each the sources of one work. */
  @ListOf(() => MergeGroup) groups!: MergeGroup[];
}
export class MergeGroup {
  @Ids() @ArrayMinSize(2) @ArrayMaxSize(50) members!: string[];
}

export class Merged {
  @Texts() changeIds!: string[];
  @IsString() says!: string;
}

/** How every two of the sources stand to each other. */
export class Relate {
  @Ids() @ArrayMinSize(2) @ArrayMaxSize(10) sources!: string[];
  @IsIn(RELATIONS) as!: Relation;
  @IsBoolean() present!: boolean;
}

export class FindingsAsked {
  @IsString() @Length(1, 200) style!: string;
  @IsOptional() @IsString() @Length(1, 100) rule?: string;
}

export class RuleCount {
  @IsString() id!: string;
  @IsString() title!: string;
  @IsString() why!: string;
  @IsIn(SEVERITIES) severity!: Severity;
  @IsInt() count!: number;
}

export class FindingOf {
  @IsUUID() source!: string;
  @IsString() title!: string;
  @IsString() who!: string;
  @IsString() field!: string;
  @IsString() what!: string;
  @IsNumber() sure!: number;
  @OrNull() @IsObject() mend!: Mend | null;
  /** What the fields of the mend hold now. */
  @OrNull() @IsObject() before!: Mend | null;
}

export class Findings {
  @ListOf(() => RuleCount) rules!: RuleCount[];
  /** Of the rule that was asked for. */
  @ListOf(() => FindingOf) findings!: FindingOf[];
  @IsInt() looked!: number;
}

export class MendOne {
  @IsUUID() source!: string;
  @IsObject() before!: Mend;
  @IsObject() after!: Mend;
}
export class MendMany {
  @IsString() @Length(1, 100) rule!: string;
  @ListOf(() => MendOne) @ArrayMaxSize(500) mends!: MendOne[];
}

export class LooseSource {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsString() who!: string;
}
export class LooseQueue {
  @IsString() id!: string;
  @IsString() title!: string;
  @IsString() why!: string;
  @IsInt() count!: number;
  /** The first of them. */
  @ListOf(() => LooseSource) sources!: LooseSource[];
  /** What is not a source: names of tags, collections, watches. */
  @Texts() names!: string[];
}
export class Loose {
  @ListOf(() => LooseQueue) queues!: LooseQueue[];
}

export const checkRoutes = {
  duplicates: route({
    method: 'GET',
    path: '/w/:workspace/duplicates',
    may: 'read',
    summary: 'Sources that may be of one work, in groups, the surest first.',
    reply: Duplicates,
  }),
  merge: route({
    method: 'POST',
    path: '/w/:workspace/merges',
    may: 'edit',
    summary: 'Merge sources into one: all that hangs on them is kept, what led to them leads there.',
    body: Merge,
    most: RECORDS,
    reply: Changed,
  }),
  mergeMany: route({
    method: 'POST',
    path: '/w/:workspace/merges/many',
    may: 'edit',
    summary: 'Merge each of several groups by the rules; each is a change of its own.',
    body: MergeGroups,
    most: RECORDS,
    reply: Merged,
  }),
  relate: route({
    method: 'POST',
    path: '/w/:workspace/relations',
    may: 'edit',
    summary: 'Say how sources stand to each other: versions of one work, or not the same; or take it back.',
    body: Relate,
    reply: Changed,
  }),
  findings: route({
    method: 'GET',
    path: '/w/:workspace/findings',
    may: 'read',
    summary: 'What proofing finds in the records as a style prints them, by rule.',
    query: FindingsAsked,
    reply: Findings,
  }),
  mend: route({
    method: 'POST',
    path: '/w/:workspace/mends',
    may: 'edit',
    summary: 'Make mends that proofing proposes, as one change.',
    body: MendMany,
    most: RECORDS,
    reply: Changed,
  }),
  loose: route({
    method: 'GET',
    path: '/w/:workspace/loose-ends',
    may: 'read',
    summary: 'What lies loose: in no collection, without tag or file, unread for long, waiting, hardly used.',
    reply: Loose,
  }),
};
