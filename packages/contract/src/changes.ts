import { IsArray, IsBoolean, IsInt, IsObject, IsString, IsUUID, MaxLength } from 'class-validator';
import type { Change } from '@pandecta/core/changes';
import type { SourceRecord } from '@pandecta/core/source';
import { route } from './route.ts';
import { ListOf, Optional, OptionalPart, OrNull } from './shape.ts';

/** What a request that changes something answers. */
export class Changed {
  /** Null when nothing needed to change, or a job is to do it. */
  @OrNull() @IsUUID() changeId!: string | null;
  /** The sentence to show: what happened, and what stays. */
  @IsString() says!: string;
  /** The job that carries it out, where it touches so many sources that it takes a while. */
  @Optional() @IsUUID() jobId?: string;
  @Optional() @IsUUID() id?: string;
}

/** A source a change touched. */
export class TouchedSource {
  @IsUUID() id!: string;
  @IsString() title!: string;
}

export class HistoryEntry {
  @IsUUID() id!: string;
  @IsString() by!: string;
  @IsUUID() byId!: string;
  @IsString() at!: string;
  @IsString() says!: string;
  /** Of a very large change only its kind. */
  @IsObject() change!: Change;
  @IsBoolean() undone!: boolean;
  @OrNull() @IsUUID() undoes!: string | null;
  /** The one source it was done to, where its sentence does not name it. */
  @OptionalPart(() => TouchedSource) on?: TouchedSource;
}

/** Which changes are wanted. */
export class AskActivity {
  /** Those one member made. */
  @Optional() @IsUUID() by?: string;
  /** Those whose sentence has these words. */
  @Optional() @IsString() @MaxLength(200) words?: string;
  /** Those before this one. */
  @Optional() @IsUUID() before?: string;
}

/** What a change touched: the first of its sources, and how many they are. */
export class TouchedByChange {
  @ListOf(() => TouchedSource) sources!: TouchedSource[];
  @IsInt() count!: number;
  /** Why it cannot be undone, in a sentence; empty where it can. */
  @IsString() stays!: string;
}

/** A record as it stood until a change. */
export class RecordVersion {
  @IsUUID() changeId!: string;
  @IsString() at!: string;
  @IsString() by!: string;
  /** What the change did. */
  @IsString() says!: string;
  /** The fields it altered. */
  @IsArray() @IsString({ each: true }) fields!: string[];
  @IsObject() record!: SourceRecord;
}

/** The newest first. */
export class VersionsReply {
  @ListOf(() => RecordVersion) versions!: RecordVersion[];
}

export class HistoryReply {
  @ListOf(() => HistoryEntry) entries!: HistoryEntry[];
}

export const changeRoutes = {
  undo: route({
    method: 'POST',
    path: '/w/:workspace/undo',
    may: 'own',
    bounded: true,
    summary: 'Undo your last change that stands.',
    reply: Changed,
  }),
  redo: route({
    method: 'POST',
    path: '/w/:workspace/redo',
    may: 'own',
    bounded: true,
    summary: 'Do again what you undid last.',
    reply: Changed,
  }),
  undoOne: route({
    method: 'POST',
    path: '/w/:workspace/changes/:change/undo',
    may: 'own',
    bounded: true,
    summary: 'Undo one change.',
    reply: Changed,
  }),
  activity: route({
    method: 'GET',
    path: '/w/:workspace/changes',
    may: 'read',
    bounded: true,
    summary: 'The last changes in the workspace, or of one member, or with these words in what is said of them.',
    query: AskActivity,
    reply: HistoryReply,
  }),
  touched: route({
    method: 'GET',
    path: '/w/:workspace/changes/:change/sources',
    may: 'read',
    bounded: true,
    summary: 'The sources a change touched.',
    reply: TouchedByChange,
  }),
  versions: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/versions',
    may: 'read',
    bounded: true,
    summary: 'The record of a source as it stood before each change to it.',
    reply: VersionsReply,
  }),
  history: route({
    method: 'GET',
    path: '/w/:workspace/sources/:source/history',
    may: 'read',
    bounded: true,
    summary: 'Every change to a source.',
    reply: HistoryReply,
  }),
};
