import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsObject, IsString, IsUUID } from 'class-validator';
import { SPAN_FIELDS, type Span, type SpanField } from '@pandecta/core/references';
import { LACKS, type Lack } from '@pandecta/core/intake';
import { VERDICTS, type Verdict } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { Changed } from './changes.ts';
import { Started, WAYS, type Way } from './gathering.ts';
import { MANY_IDS, route } from './route.ts';
import { IsPlace, ListOf, Optional, OptionalPart, OrNull, Part, Texts } from './shape.ts';
import { AskPage } from './asking.ts';
import { Chosen, QueryNote, SourceDetail, SourceRow } from './sources.ts';

const ALL_LACKS = Object.keys(LACKS) as Lack[];

/** A gathering of which something waits. */
export class Batch {
  @IsUUID() id!: string;
  @IsString() title!: string;
  @IsIn(WAYS) way!: Way;
  @IsString() at!: string;
  @IsString() by!: string;
  @OrNull() @IsString() note!: string | null;
  /** How many came with it, and how many of them wait. */
  @IsInt() came!: number;
  @IsInt() waiting!: number;
}

/** That a source is here already, as the line says it. */
export class HereAlready {
  @IsUUID() id!: string;
  @IsIn(VERDICTS) verdict!: Verdict;
  @IsInt() places!: number;
}

/** A line of the intake. */
export class IntakeRow extends SourceRow {
  @IsUUID() batch!: string;
  @IsIn(ALL_LACKS, { each: true }) @IsArray() lacks!: Lack[];
  /** What proofing finds in it beside what it lacks: the titles of the rules. */
  @Texts() finds!: string[];
  @OptionalPart(() => HereAlready) here?: HereAlready;
  /** The title of the gathering with which the same work waits once more. */
  @Optional() @IsString() twice?: string;
  /** What was read of a text, a page or a file name, and not surely enough to be taken unseen. */
  @Texts() guessed!: string[];
  /** Set where it had to be looked up: what came of it. */
  @OrNull() @IsString() lookedUp!: string | null;
  /** Why the record could not be completed: which service did not answer, or which check digit is wrong. */
  @OrNull() @IsString() trouble!: string | null;
  /** True where a text could not be read as a reference. */
  @IsBoolean() unread!: boolean;
}

export class IntakePage {
  @IsInt() total!: number;
  @IsInt() from!: number;
  @Optional() @IsInt() at?: number;
  @ListOf(() => IntakeRow) rows!: IntakeRow[];
  @ListOf(() => QueryNote) notes!: QueryNote[];
  /** Of the lines of this stretch. */
  @ListOf(() => Batch) batches!: Batch[];
}

export class IntakeSummary {
  @IsInt() waiting!: number;
  /** Those that lack nothing, were read surely, are not here and do not wait twice. */
  @IsInt() complete!: number;
  /** Those that are one source here for certain. */
  @IsInt() certain!: number;
  @IsInt() aside!: number;
}

/** One of which many are decided on together. */
export class ListedOne {
  @IsUUID() id!: string;
  @IsObject() record!: SourceRecord;
  /** The title of the gathering it came with. */
  @IsString() batch!: string;
  /** The title of the source it would be joined to. */
  @Optional() @IsString() to?: string;
}

export class ListedOnes {
  @IsInt() total!: number;
  /** The first of them. */
  @ListOf(() => ListedOne) rows!: ListedOne[];
}

export class Reason {
  @IsString() field!: string;
  @IsString() says!: string;
  @IsBoolean() for!: boolean;
}

/** A source here that may be the same work, and why. */
export class Match {
  @IsUUID() id!: string;
  @IsIn(VERDICTS) verdict!: Verdict;
  @ListOf(() => Reason) reasons!: Reason[];
  @IsObject() record!: SourceRecord;
  @IsString() addedAt!: string;
  @IsInt() places!: number;
  /** Fields that joining would fill. */
  @IsString({ each: true }) @IsArray() fills!: string[];
}

export class SpanOf implements Span {
  @IsString() field!: Span['field'];
  @IsInt() start!: number;
  @IsInt() end!: number;
}

/** Where a source came from. */
export class Origin {
  @OrNull() @IsString() came!: string | null;
  @ListOf(() => SpanOf) spans!: SpanOf[];
  @OrNull() @IsString() database!: string | null;
  @OrNull() @IsString() accession!: string | null;
  @OrNull() @IsString() query!: string | null;
  @OrNull() @IsString() address!: string | null;
  @OrNull() @IsString() lookedUp!: string | null;
  /** Why the record could not be completed: which service did not answer, or which check digit is wrong. */
  @OrNull() @IsString() trouble!: string | null;
  /** The works the page lists. */
  @IsArray() @IsObject({ each: true }) items!: SourceRecord[];
  /** Where it says its full text is. */
  @OrNull() @IsString() pdf!: string | null;
}

export class IntakeDetail {
  @Part(() => SourceDetail) source!: SourceDetail;
  @Part(() => Batch) batch!: Batch;
  @Part(() => Origin) origin!: Origin;
  @IsIn(ALL_LACKS, { each: true }) @IsArray() lacks!: Lack[];
  /** The likeliest first. */
  @ListOf(() => Match) here!: Match[];
  /** Others that wait and may be the same work. */
  @ListOf(() => Match) waiting!: Match[];
  @Texts() guessed!: string[];
}

export class TakeIn extends Chosen {
  /** Only those of them that are complete. */
  @Optional() @IsBoolean() complete?: boolean;
}

export class JoinTo {
  @IsUUID() to!: string;
}

/** A stretch of the text as it came is given to a field; to none where that is null. */
export class Respan {
  @IsPlace() start!: number;
  @IsPlace() end!: number;
  @OrNull() @IsIn(Object.keys(SPAN_FIELDS)) field!: SpanField | null;
}

/** Of the works a page lists, those that are wanted, by their places. */
export class ListedWorks {
  @IsArray() @ArrayMaxSize(500) @IsPlace({ each: true }) items!: number[];
}

export class SetAside extends Chosen {
  @IsBoolean() aside!: boolean;
}

export const intakeRoutes = {
  page: route({
    method: 'GET',
    path: '/w/:workspace/intake',
    may: 'gather',
    summary: 'A stretch of what waits to be taken in, or was set aside, with what each lacks and whether it is here.',
    query: AskPage,
    reply: IntakePage,
  }),
  summary: route({
    method: 'GET',
    path: '/w/:workspace/intake-summary',
    may: 'gather',
    summary: 'How many wait, and how many of them are complete and new.',
    reply: IntakeSummary,
  }),
  complete: route({
    method: 'GET',
    path: '/w/:workspace/intake-complete',
    may: 'gather',
    summary: 'Those that are complete: they lack nothing, were read surely, are not here and do not wait twice.',
    reply: ListedOnes,
  }),
  one: route({
    method: 'GET',
    path: '/w/:workspace/intake/:source',
    may: 'gather',
    summary: 'One that waits: its record, where from, what it lacks, and the sources here that may be the same.',
    reply: IntakeDetail,
  }),
  takeIn: route({
    method: 'POST',
    path: '/w/:workspace/taking-in',
    may: 'gather',
    summary: 'What waits becomes sources.',
    body: TakeIn,
    most: MANY_IDS,
    reply: Changed,
  }),
  certain: route({
    method: 'GET',
    path: '/w/:workspace/intake-certain',
    may: 'gather',
    summary: 'Those that are one source here for certain, with that source.',
    reply: ListedOnes,
  }),
  joinCertain: route({
    method: 'POST',
    path: '/w/:workspace/joining',
    may: 'gather',
    summary: 'Join those of these that are one source here for certain, each to it.',
    body: Chosen,
    most: MANY_IDS,
    reply: Changed,
  }),
  join: route({
    method: 'POST',
    path: '/w/:workspace/intake/:source/join',
    may: 'gather',
    summary: 'Join one to the source that is here: its places, tags and files are added, what is empty is filled.',
    body: JoinTo,
    reply: Changed,
  }),
  setAside: route({
    method: 'POST',
    path: '/w/:workspace/setting-aside',
    may: 'gather',
    summary: 'Set aside what waits, for 30 days, or put it back.',
    body: SetAside,
    most: MANY_IDS,
    reply: Changed,
  }),
  respan: route({
    method: 'POST',
    path: '/w/:workspace/intake/:source/respan',
    may: 'gather',
    summary: 'Give a stretch of the text one was read from to another field: the record follows.',
    body: Respan,
    reply: Changed,
  }),
  listed: route({
    method: 'POST',
    path: '/w/:workspace/intake/:source/listed',
    may: 'gather',
    summary: 'Bring in works that a page lists.',
    body: ListedWorks,
    reply: Started,
  }),
  fetchPdf: route({
    method: 'POST',
    path: '/w/:workspace/intake/:source/pdf',
    may: 'gather',
    summary: 'Fetch the full text a page leads to, and attach it.',
    reply: Changed,
  }),
  lookUp: route({
    method: 'POST',
    path: '/w/:workspace/intake/:source/look-up',
    may: 'gather',
    summary: 'Ask the registry or the catalogues for one: by its identifier, where it stands, or its title and people.',
    reply: Changed,
  }),
  lookUpMany: route({
    method: 'POST',
    path: '/w/:workspace/looking-up',
    may: 'gather',
    summary: 'Ask the registry and the catalogues for many of what waits, as a job.',
    body: Chosen,
    most: MANY_IDS,
    reply: Changed,
  }),
};
