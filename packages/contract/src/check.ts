import {
  ArrayMaxSize,
  ArrayMinSize,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsString,
  IsUUID,
  Length,
  Matches,
} from 'class-validator';
import { SETTLED, type Relation, type Settled } from '@pandecta/core/changes';
import { CASES, SEVERITIES, type Mend, type Severity, type TitleCasing } from '@pandecta/core/proofing';
import { Changed } from './changes.ts';
import { Reason } from './intake.ts';
import { MANY_IDS, RECORDS, route } from './route.ts';
import { Ids, ListOf, Optional, OrNull, Part, Texts } from './shape.ts';
import { Chosen } from './sources.ts';

export const GROUP_CLASSES = ['certain', 'likely', 'look closely'] as const;
export type GroupClass = (typeof GROUP_CLASSES)[number];

/** So many are merged, mended or set aside at one go. */
export const MOST_AT_ONCE = 500;
const MOST_GROUPS = 10_000;

/** In the place of the id of one source: the values of all of them, put together. */
export const OF_ALL = 'all';

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
  /** How many sources stand compared. */
  @IsInt() compared!: number;
  /** How many wait to be. */
  @IsInt() behind!: number;
}

/** Sources become one. */
export class Merge {
  @IsUUID() into!: string;
  /** The others, in the order they are shown. */
  @Ids() @ArrayMinSize(1) @ArrayMaxSize(9) sources!: string[];
  /** For each field the source whose value stands, or `OF_ALL`; by the rules where nothing is said. */
  @Optional() @IsObject() take?: Record<string, string>;
}

export class MergeGroups {
  /** Each the sources of one work. */
  @ListOf(() => MergeGroup) @ArrayMaxSize(MOST_GROUPS) groups!: MergeGroup[];
}
export class MergeGroup {
  @Ids() @ArrayMinSize(2) @ArrayMaxSize(50) members!: string[];
}

export class Merged {
  @Texts() changeIds!: string[];
  @IsString() says!: string;
}

/** What is laid beside a collection: any sources. */
export class Consolidate extends Chosen {
  @IsUUID() collection!: string;
}
/** A source as it is told in a list. */
export class Told {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsString() who!: string;
}
/** A work that is in the collection and, as another source, among the others. */
export class Twice {
  @Part(() => Told) here!: Told;
  @Part(() => Told) other!: Told;
  @IsIn(GROUP_CLASSES) class!: GroupClass;
  @IsBoolean() versions!: boolean;
  @ListOf(() => Reason) reasons!: Reason[];
}
export class Consolidation {
  @IsInt() both!: number;
  @IsInt() onlyHere!: number;
  @IsInt() onlyThere!: number;
  @ListOf(() => Twice) twice!: Twice[];
}
export class Pair {
  @IsUUID() here!: string;
  @IsUUID() other!: string;
}
export class Bring extends Consolidate {
  /** Those that are merged on the way. */
  @ListOf(() => Pair) @ArrayMaxSize(MOST_AT_ONCE) merge!: Pair[];
}
export class Brought extends Changed {
  @Texts() changeIds!: string[];
}

/** How every two of the sources stand to each other. */
/** What is said of sources that look alike. */
const DECIDED = ['version of', 'other than'] as const satisfies readonly Relation[];

/** So many sources are looked at beside each other, and so many said to be of one work at once. */
export const MOST_BESIDE = 10;

export class Relate {
  @Ids() @ArrayMinSize(2) @ArrayMaxSize(MOST_BESIDE) sources!: string[];
  @IsIn(DECIDED) as!: (typeof DECIDED)[number];
  @IsBoolean() present!: boolean;
}

export class FindingsAsked {
  @IsString() @Length(1, 200) style!: string;
  /** Those of this rule alone, to the first few hundred; of all where none is named. */
  @Optional() @IsString() @Length(1, 100) rule?: string;
  /** In the sources of a collection and those under it. */
  @Optional() @IsUUID() collection?: string;
  /** What was set aside, in place of what stands open. */
  @Optional() @IsIn(['aside']) only?: 'aside';
}
export class OneAsked {
  @IsString() @Length(1, 200) style!: string;
}

export class RuleCount {
  @IsString() id!: string;
  @IsString() title!: string;
  @IsString() why!: string;
  @IsIn(SEVERITIES) severity!: Severity;
  /** What stands open of it. */
  @IsInt() count!: number;
  /** What was set aside of it. */
  @IsInt() aside!: number;
  /** All it finds is set aside. */
  @IsBoolean() whole!: boolean;
}

export class FindingOf {
  @IsUUID() source!: string;
  @IsString() rule!: string;
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
  @ListOf(() => FindingOf) findings!: FindingOf[];
  @IsInt() looked!: number;
  /** Words that keep their form in whatever case. */
  @Texts() words!: string[];
}
export class FindingsOfOne {
  @ListOf(() => RuleCount) rules!: RuleCount[];
  @ListOf(() => FindingOf) findings!: FindingOf[];
}

/** What is said once and for good. */
export class Settle {
  @IsIn(SETTLED) what!: Settled;
  /** A rule by its id, or a word as it is to be written. */
  @IsString() @Length(1, 100) @Matches(/\S/) name!: string;
  /** The sources it holds for; everywhere where none is named. */
  @Optional() @Ids() @ArrayMaxSize(MOST_AT_ONCE) sources?: string[];
  @IsBoolean() present!: boolean;
}

/** Titles in another case. */
export class Case extends Chosen {
  @IsIn(CASES) to!: TitleCasing;
}
export class CaseOf {
  @IsUUID() source!: string;
  @IsString() who!: string;
  @IsString() before!: string;
  @IsString() after!: string;
}
export class CasesOf {
  /** Those that would change. */
  @ListOf(() => CaseOf) titles!: CaseOf[];
  /** How many are so already. */
  @IsInt() same!: number;
  @Texts() words!: string[];
}

export class MendOne {
  @IsUUID() source!: string;
  @IsObject() before!: Mend;
  @IsObject() after!: Mend;
}
export class MendMany {
  @IsString() @Length(1, 100) rule!: string;
  @ListOf(() => MendOne) @ArrayMaxSize(MOST_AT_ONCE) mends!: MendOne[];
}

/** A collection or a tag that may fit a source. */
export class Suggestion {
  /** Of a collection. */
  @OrNull() @IsUUID() id!: string | null;
  @IsString() name!: string;
  /** What the sources that have it share with this one: "2 by Okonjo, Marit". */
  @IsString() reason!: string;
}
export class Suggestions {
  @ListOf(() => Suggestion) collections!: Suggestion[];
  @ListOf(() => Suggestion) tags!: Suggestion[];
}

export class LooseThing {
  @IsUUID() id!: string;
  @IsString() name!: string;
}
export class LooseQueue {
  @IsString() id!: string;
  @IsString() title!: string;
  @IsString() why!: string;
  @IsInt() count!: number;
  /** The first of them. */
  @ListOf(() => Told) sources!: Told[];
  /** What is not a source: tags, collections, watches. */
  @ListOf(() => LooseThing) things!: LooseThing[];
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
  compare: route({
    method: 'POST',
    path: '/w/:workspace/duplicates/compare',
    may: 'edit',
    heavy: true,
    summary: 'Compares all sources with each other once more, as a job.',
    reply: Changed,
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
    heavy: true,
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
  consolidation: route({
    method: 'POST',
    path: '/w/:workspace/consolidations/ask',
    may: 'read',
    heavy: true,
    summary:
      'A collection and other sources beside each other: what is in both, only here, only there, and there twice.',
    body: Consolidate,
    most: MANY_IDS,
    reply: Consolidation,
  }),
  bring: route({
    method: 'POST',
    path: '/w/:workspace/consolidations',
    may: 'edit',
    heavy: true,
    summary: 'Bring other sources into a collection; what is there twice is merged first, each a change of its own.',
    body: Bring,
    most: MANY_IDS,
    reply: Brought,
  }),
  findings: route({
    method: 'GET',
    path: '/w/:workspace/findings',
    may: 'read',
    summary: 'What proofing finds in the records as a style prints them, by rule.',
    query: FindingsAsked,
    reply: Findings,
  }),
  findingsIn: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/findings',
    may: 'read',
    summary: 'What proofing finds in one source, as a style prints it, looked at by itself.',
    query: OneAsked,
    reply: FindingsOfOne,
  }),
  settle: route({
    method: 'POST',
    path: '/w/:workspace/settled',
    may: 'edit',
    summary: 'Set a rule aside, or what it finds in some sources; or say that a word keeps its form; or take it back.',
    body: Settle,
    reply: Changed,
  }),
  cases: route({
    method: 'POST',
    path: '/w/:workspace/cases',
    may: 'edit',
    heavy: true,
    summary: 'The titles of chosen sources in another case, before anything is changed.',
    body: Case,
    reply: CasesOf,
  }),
  mend: route({
    method: 'POST',
    path: '/w/:workspace/mends',
    may: 'edit',
    heavy: true,
    summary: 'Make mends that proofing proposes, as one change.',
    body: MendMany,
    most: RECORDS,
    reply: Changed,
  }),
  suggestions: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/suggestions',
    may: 'read',
    summary: 'Collections and tags a source may belong to, from the sources it is like.',
    reply: Suggestions,
  }),
  loose: route({
    method: 'GET',
    path: '/w/:workspace/loose-ends',
    may: 'read',
    summary: 'What lies loose: in no collection, without tag or file, unread for long, waiting, hardly used.',
    reply: Loose,
  }),
};
