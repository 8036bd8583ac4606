import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsString, IsUUID, Length, MaxLength } from 'class-validator';
import { READING_STATES, type ReadingState } from '@pandecta/core/changes';
import { MOST_TYPED } from '@pandecta/core/door';
import { JobInfo } from './jobs.ts';
import { route } from './route.ts';
import { Ids, IsPlace, ListOf, Optional, OptionalPart, OrNull, Part, Texts } from './shape.ts';

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
  @Optional() @IsBoolean() folders?: boolean;
  /** What is here already is brought there as well; else it stays where it is. */
  @Optional() @IsBoolean() known?: boolean;
  /** What one wants to remember of the gathering. */
  @Optional() @IsString() @MaxLength(2000) note?: string;
}

/** In bytes and in number, for one gathering. */
export const MOST_FILE_BYTES = 500 * 1024 ** 2;
export const MOST_FILES = 5000;
/** A page, in UTF-16 units. */
export const MOST_PAGE = 8_000_000;
/** Of what a browser sends beside a page, in characters of base64: 4 MB of picture, 30 MB of PDF. */
export const MOST_CLIPPED_PICTURE = Math.ceil((4 * 1024 ** 2 * 4) / 3);
export const MOST_CLIPPED_PDF = Math.ceil((30 * 1024 ** 2 * 4) / 3);

export class ImportFileReport {
  @IsString() name!: string;
  @IsString() format!: string;
  /** What became of the file in one sentence. */
  @IsString() outcome!: string;
  @IsInt() added!: number;
  @IsInt() known!: number;
  @IsInt() messages!: number;
  @Optional() @IsString() trouble?: string;
  @Optional() @IsUUID() sourceId?: string;
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

/** A source that a gathering added. */
export class ImportedSource {
  @IsUUID() id!: string;
  @IsString() title!: string;
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
  /** The first of those that are new. */
  @ListOf(() => ImportedSource) fresh!: ImportedSource[];
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
  @Optional() @IsIn(THROUGH) through?: Through;
}

/** A page as the browser has it, or the PDF it shows. */
export class Clip {
  @IsString() @Length(1, 4000) address!: string;
  /** As the browser shows it, without what its scripts would do; none where it shows a PDF. */
  @Optional() @IsString() @Length(1, MOST_PAGE) html?: string;
  /** Of a page that lists several works, the places of those that are wanted; the page itself where none is. */
  @Optional() @IsArray() @ArrayMaxSize(500) @IsPlace({ each: true }) items?: number[];
  /** How it looked: a PNG or JPEG in base64. */
  @Optional() @IsString() @Length(1, MOST_CLIPPED_PICTURE) picture?: string;
  /** The PDF it is, or links as its full text, as the browser's session has it: in base64. */
  @Optional() @IsString() @Length(1, MOST_CLIPPED_PDF) pdf?: string;
  @OptionalPart(() => Destination) destination?: Destination;
}

/** What came of a clip, as soon as it is known. */
export class Clipped {
  @IsUUID() importId!: string;
  /** What the page holds: its title and kind. */
  @IsString() title!: string;
  /** What its citation lacks, in words; empty where it is complete. */
  @IsString() missing!: string;
}

/** A key for gathering: it opens the way in, and nothing else. */
export class GatherKey {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsString() madeAt!: string;
  @OrNull() @IsString() usedAt!: string | null;
}

export class GatherKeys {
  @ListOf(() => GatherKey) keys!: GatherKey[];
}

export class NewGatherKey {
  @IsString() @Length(1, 100) name!: string;
}

export class MadeGatherKey extends GatherKeys {
  /** Shown once: only its hash is kept. */
  @IsString() key!: string;
}

/** Whose key it is, for whoever holds it. */
export class KeyHolder {
  @IsString() name!: string;
  @IsString() workspace!: string;
}

/** Files that were sent and wait for the gathering they are named in; for a day. */
export class Uploaded {
  @Ids() uploads!: string[];
}

/** A gathering of files that were sent before. */
export class Gathering {
  @Ids() @ArrayMaxSize(MOST_FILES) uploads!: string[];
  @OptionalPart(() => Destination) destination?: Destination;
  @Optional() @IsIn(THROUGH) through?: Through;
}

/** What the workspace lets pass the intake. */
export class GatherSettings {
  /** Complete and new records go straight to the sources. */
  @IsBoolean() passComplete!: boolean;
  /** Reference files wait in the intake too, instead of coming in with a report. */
  @IsBoolean() holdReferences!: boolean;
}

const KEYS = '/w/:workspace/gathering-keys';

export const gatherRoutes = {
  clip: route({
    method: 'POST',
    path: '/w/:workspace/clips',
    may: 'gather',
    heavy: true,
    byKey: true,
    summary: 'Bring in a page as the browser has it.',
    body: Clip,
    most: 4 * MOST_PAGE + MOST_CLIPPED_PICTURE + MOST_CLIPPED_PDF,
    reply: Clipped,
  }),
  keys: route({ method: 'GET', path: KEYS, may: 'gather', summary: 'Your keys for gathering.', reply: GatherKeys }),
  makeKey: route({
    method: 'POST',
    path: KEYS,
    may: 'gather',
    summary: 'Make a key for gathering, which a browser can hold; it is told this once.',
    body: NewGatherKey,
    reply: MadeGatherKey,
  }),
  revokeKey: route({
    method: 'DELETE',
    path: '/w/:workspace/gathering-keys/:key',
    may: 'gather',
    summary: 'Revoke a key: it opens nothing from now on.',
    reply: GatherKeys,
  }),
  holder: route({
    method: 'GET',
    path: '/w/:workspace/gathering-key',
    may: 'gather',
    byKey: true,
    summary: 'Whose key one holds.',
    reply: KeyHolder,
  }),
  typed: route({
    method: 'POST',
    path: '/w/:workspace/gatherings',
    may: 'gather',
    heavy: true,
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
    byKey: true,
    summary:
      'Bring in files (multipart/form-data: any number of parts "file"; before them a part "destination" (JSON) says where to, and a part "through" whether they wait in the intake or go straight).',
    reply: Started,
  }),
  upload: route({
    method: 'POST',
    path: '/w/:workspace/uploads',
    may: 'gather',
    summary:
      'Send files for a gathering that is begun later (multipart/form-data: parts "file", before a table a part "columns"): very many go in shares.',
    reply: Uploaded,
  }),
  begin: route({
    method: 'POST',
    path: '/w/:workspace/uploads/gathering',
    may: 'gather',
    summary: 'Bring in files that were sent before, in the order they are named.',
    body: Gathering,
    most: MOST_FILES * 50,
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
