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
import { Ask } from './asking.ts';
import { Changed } from './changes.ts';
import { MANY_IDS, route } from './route.ts';
import { Ids, IsPlace, ListOf, Optional, OptionalPart, OrNull, Part } from './shape.ts';

/** What is said of a saved search besides what it asks. */
class SaidOfSearch {
  /** What it is for. */
  @Optional() @IsString() @MaxLength(2000) describes?: string;
  @Optional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(100, { each: true })
  keywords?: string[];
  /** The folder it lies in; null for none. */
  @IsOptional() @IsUUID() folder?: string | null;
  /** Seen by all members; otherwise by its maker alone. */
  @Optional() @IsBoolean() shared?: boolean;
}

export class NewSavedSearch extends SaidOfSearch {
  @IsString() @Length(1, 200) name!: string;
  @Part(() => Ask) ask!: Ask;
}

/** What is to be another; the rest stays. */
export class EditSavedSearch extends SaidOfSearch {
  @Optional() @IsString() @Length(1, 200) name?: string;
  @OptionalPart(() => Ask) ask?: Ask;
}

/** What a member says of watching a search. */
export class WatchSearch {
  @IsBoolean() watched!: boolean;
  /** Whether what is new is told by mail. */
  @Optional() @IsBoolean() mail?: boolean;
}

/** Since when a member has not looked, and whether they are told by mail. */
export class WatchState {
  @IsString() since!: string;
  @IsBoolean() mail!: boolean;
  /** Why the mail could not be sent; empty where it could. */
  @IsString() says!: string;
}

/** What is done to several at once. */
export const TO_MANY = ['move', 'copy', 'remove'] as const;
export class ManySearches {
  @ArrayMinSize(1) @ArrayMaxSize(500) @Ids() ids!: string[];
  @IsIn(TO_MANY) to!: (typeof TO_MANY)[number];
  /** The folder they are moved or copied into; none where it is left out. */
  @IsOptional() @IsUUID() folder?: string | null;
}

export class SavedSearch {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsString() describes!: string;
  @IsArray() @IsString({ each: true }) keywords!: string[];
  @Part(() => Ask) ask!: Ask;
  @OrNull() @IsUUID() folder!: string | null;
  @IsBoolean() shared!: boolean;
  @IsString() madeBy!: string;
  @IsString() madeAt!: string;
  /** Set where you watch it. */
  @OrNull() @Part(() => WatchState) watch!: WatchState | null;
}

export class SavedFolder {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @OrNull() @IsUUID() parent!: string | null;
  @IsBoolean() shared!: boolean;
  /** Stewards alone alter what lies in it. */
  @IsBoolean() locked!: boolean;
}

export class SavedList {
  @ListOf(() => SavedSearch) searches!: SavedSearch[];
  @ListOf(() => SavedFolder) folders!: SavedFolder[];
}

export class SavedCount {
  @IsUUID() id!: string;
  @IsInt() count!: number;
  /** Of one you watch: how many you have not seen in it. */
  @Optional() @IsInt() fresh?: number;
}

export class SavedCounts {
  @ListOf(() => SavedCount) counts!: SavedCount[];
}

export class NewFolder {
  @IsString() @Length(1, 200) name!: string;
  @IsOptional() @IsUUID() parent?: string | null;
  @Optional() @IsBoolean() shared?: boolean;
}

export class EditFolder {
  @Optional() @IsString() @Length(1, 200) name?: string;
  @IsOptional() @IsUUID() parent?: string | null;
  @Optional() @IsBoolean() shared?: boolean;
  @Optional() @IsBoolean() locked?: boolean;
}

/** A question that was asked of the sources here, as it stands in the log of searches. */
export class AskedHere {
  @IsUUID() id!: string;
  @IsString() at!: string;
  @IsString() by!: string;
  /** As it would stand in the ask line. */
  @IsString() words!: string;
  @Part(() => Ask) ask!: Ask;
  @IsInt() found!: number;
}

export class AskedLog {
  /** Whether what you ask is logged. */
  @IsBoolean() logs!: boolean;
  /** The newest first. */
  @ListOf(() => AskedHere) asked!: AskedHere[];
}

export class LogAsked {
  @IsBoolean() logs!: boolean;
}

export class NoteAsked {
  @Part(() => Ask) ask!: Ask;
  @IsString() @Length(1, 4000) words!: string;
  @IsPlace() found!: number;
}

export const savedRoutes = {
  asked: route({
    method: 'GET',
    path: '/w/:workspace/asked',
    may: 'read',
    summary: 'What members who log it asked of the sources here.',
    reply: AskedLog,
  }),
  log: route({
    method: 'PUT',
    path: '/w/:workspace/asked',
    may: 'own',
    summary: 'Log what one asks from now on, or no more.',
    body: LogAsked,
    reply: AskedLog,
  }),
  note: route({
    method: 'POST',
    path: '/w/:workspace/asked',
    may: 'own',
    summary: 'Note a question in the log, where one logs what one asks.',
    body: NoteAsked,
    reply: AskedLog,
  }),
  many: route({
    method: 'POST',
    path: '/w/:workspace/saved-many',
    may: 'own',
    summary: 'Move, copy or remove several saved searches as one change.',
    body: ManySearches,
    most: MANY_IDS,
    reply: Changed,
  }),
  watch: route({
    method: 'PUT',
    path: '/w/:workspace/saved/:saved/watch',
    may: 'own',
    summary: 'Watch a saved search, or no more; and whether one is told by mail.',
    body: WatchSearch,
    reply: SavedList,
  }),
  see: route({
    method: 'PUT',
    path: '/w/:workspace/saved/:saved/seen',
    may: 'own',
    summary: 'Count what a watched search finds now as seen.',
    reply: SavedList,
  }),
  list: route({
    method: 'GET',
    path: '/w/:workspace/saved',
    may: 'read',
    bounded: true,
    summary: 'The saved searches one may see, and the folders they lie in.',
    reply: SavedList,
  }),
  counts: route({
    method: 'GET',
    path: '/w/:workspace/saved-counts',
    may: 'read',
    bounded: true,
    summary: 'How many sources each saved search finds.',
    reply: SavedCounts,
  }),
  keep: route({
    method: 'POST',
    path: '/w/:workspace/saved',
    may: 'own',
    summary: 'Keep a search.',
    body: NewSavedSearch,
    reply: Changed,
  }),
  edit: route({
    method: 'PATCH',
    path: '/w/:workspace/saved/:saved',
    may: 'own',
    summary: 'Alter a saved search: its name, what it asks, where it lies, who sees it.',
    body: EditSavedSearch,
    reply: Changed,
  }),
  remove: route({
    method: 'DELETE',
    path: '/w/:workspace/saved/:saved',
    may: 'own',
    summary: 'Remove a saved search; the sources it finds stay.',
    reply: Changed,
  }),
  makeFolder: route({
    method: 'POST',
    path: '/w/:workspace/folders',
    may: 'own',
    summary: 'Make a folder for saved searches.',
    body: NewFolder,
    reply: Changed,
  }),
  editFolder: route({
    method: 'PATCH',
    path: '/w/:workspace/folders/:folder',
    may: 'own',
    summary: 'Rename a folder, or move it.',
    body: EditFolder,
    reply: Changed,
  }),
  removeFolder: route({
    method: 'DELETE',
    path: '/w/:workspace/folders/:folder',
    may: 'own',
    summary: 'Remove a folder; what lies in it goes one up.',
    reply: Changed,
  }),
};
