import { ArrayMaxSize, IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID, Length, MaxLength } from 'class-validator';
import { READING_STATES, type ReadingState } from '@pandecta/core/changes';
import { MOST_TYPED } from '@pandecta/core/door';
import { JobInfo } from './jobs.ts';
import { route } from './route.ts';
import { Ids, ListOf, OptionalPart, OrNull, Part, Texts } from './shape.ts';

/** By which way sources come in. */
export const WAYS = ['files', 'typed', 'search', 'watch', 'browser'] as const;
export type Way = (typeof WAYS)[number];

/** Where what is gathered goes, chosen before it arrives. */
export class Destination {
  @Ids() @ArrayMaxSize(50) collections!: string[];
  @Texts() @ArrayMaxSize(50) @Length(1, 200, { each: true }) tags!: string[];
  /** Of whoever gathers. */
  @OrNull() @IsIn(READING_STATES) reading!: ReadingState | null;
  /** Folders that are dropped become collections, below the first of those chosen. */
  @IsOptional() @IsBoolean() folders?: boolean;
  /** What one wants to remember of the gathering. */
  @IsOptional() @IsString() @MaxLength(2000) note?: string;
}

/** In bytes and in number, for one gathering. */
export const MOST_FILE_BYTES = 500 * 1024 ** 2;
export const MOST_FILES = 5000;

export class ImportFileReport {
  @IsString() name!: string;
  @IsString() format!: string;
  /** What became of the file in one sentence. */
  @IsString() outcome!: string;
  @IsInt() added!: number;
  @IsInt() known!: number;
  @IsInt() messages!: number;
  @IsOptional() @IsString() trouble?: string;
  @IsOptional() @IsUUID() sourceId?: string;
}

export const SEVERITIES = ['info', 'warning', 'error'] as const;

export class ImportMessage {
  @IsString() file!: string;
  @IsIn(SEVERITIES) severity!: (typeof SEVERITIES)[number];
  @IsString() rule!: string;
  @IsInt() line!: number;
  @IsInt() column!: number;
  @IsString() what!: string;
  @IsString() done!: string;
}

export class ImportReport {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsString() at!: string;
  @IsString() by!: string;
  @Part(() => JobInfo) job!: JobInfo;
  @IsInt() added!: number;
  @IsInt() known!: number;
  @IsInt() attached!: number;
  /** How many went to the intake. */
  @IsInt() waiting!: number;
  @IsInt() withMessages!: number;
  @IsInt() messagesInAll!: number;
  @ListOf(() => ImportFileReport) files!: ImportFileReport[];
  @ListOf(() => ImportMessage) messages!: ImportMessage[];
  @OrNull() @IsUUID() changeId!: string | null;
  /** True while the change that brought the sources stands. */
  @IsBoolean() undoable!: boolean;
  /** In words: "Licensing › Chapter 2, to read". */
  @OrNull() @IsString() destination!: string | null;
  @IsIn(WAYS) way!: Way;
  @OrNull() @IsString() note!: string | null;
}

export class ImportList {
  @ListOf(() => ImportReport) imports!: ImportReport[];
}

export class Started {
  @IsUUID() jobId!: string;
  @IsUUID() importId!: string;
}

export const THROUGH = ['intake', 'straight'] as const;
export type Through = (typeof THROUGH)[number];

/** What was typed or pasted, with where it goes. */
export class Typed {
  @IsString() @Length(1, MOST_TYPED) text!: string;
  @OptionalPart(() => Destination) destination?: Destination;
  @IsOptional() @IsIn(THROUGH) through?: Through;
}

/** What the workspace lets pass the intake. */
export class GatherSettings {
  /** What is complete and new goes straight to the sources. */
  @IsBoolean() passComplete!: boolean;
  /** Files of references wait in the intake too, instead of coming in with a report. */
  @IsBoolean() holdReferences!: boolean;
}

export const gatherRoutes = {
  typed: route({
    method: 'POST',
    path: '/w/:workspace/gatherings',
    may: 'gather',
    summary: 'Bring in what is typed or pasted: identifiers, links, references, records, in any mix.',
    body: Typed,
    most: 4 * MOST_TYPED,
    reply: Started,
  }),
  settings: route({
    method: 'GET',
    path: '/w/:workspace/gathering-settings',
    may: 'gather',
    summary: 'What the workspace lets pass the intake.',
    reply: GatherSettings,
  }),
  set: route({
    method: 'PUT',
    path: '/w/:workspace/gathering-settings',
    may: 'steer',
    summary: 'Say what passes the intake.',
    body: GatherSettings,
    reply: GatherSettings,
  }),
  import: route({
    method: 'POST',
    path: '/w/:workspace/imports',
    may: 'gather',
    summary:
      'Bring in files (multipart/form-data: any number of parts "file"; before them a part "destination" (JSON) says where to, and a part "through" whether they wait in the intake or go straight).',
    reply: Started,
  }),
  imports: route({
    method: 'GET',
    path: '/w/:workspace/imports',
    may: 'read',
    summary: 'The last imports with their reports.',
    reply: ImportList,
  }),
  report: route({
    method: 'GET',
    path: '/w/:workspace/imports/:import',
    may: 'read',
    summary: 'One import with its messages.',
    reply: ImportReport,
  }),
};
