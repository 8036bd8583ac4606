import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  MaxLength,
} from 'class-validator';
import { Ask } from './asking.ts';
import { Changed } from './changes.ts';
import { route } from './route.ts';
import { ListOf, OptionalPart, OrNull, Part } from './shape.ts';

/** What is said of a saved search besides what it asks. */
class SaidOfSearch {
  /** What it is for. */
  @IsOptional() @IsString() @MaxLength(2000) describes?: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(100, { each: true })
  keywords?: string[];
  /** The folder it lies in; null for none. */
  @IsOptional() @IsUUID() folder?: string | null;
  /** Seen by all members; otherwise by its maker alone. */
  @IsOptional() @IsBoolean() shared?: boolean;
}

export class NewSavedSearch extends SaidOfSearch {
  @IsString() @Length(1, 200) name!: string;
  @Part(() => Ask) ask!: Ask;
}

/** What is to be another; the rest stays. */
export class EditSavedSearch extends SaidOfSearch {
  @IsOptional() @IsString() @Length(1, 200) name?: string;
  @OptionalPart(() => Ask) ask?: Ask;
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
}

export class SavedFolder {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @OrNull() @IsUUID() parent!: string | null;
  @IsBoolean() shared!: boolean;
}

export class SavedList {
  @ListOf(() => SavedSearch) searches!: SavedSearch[];
  @ListOf(() => SavedFolder) folders!: SavedFolder[];
}

export class SavedCount {
  @IsUUID() id!: string;
  @IsInt() count!: number;
}

export class SavedCounts {
  @ListOf(() => SavedCount) counts!: SavedCount[];
}

export class NewFolder {
  @IsString() @Length(1, 200) name!: string;
  @IsOptional() @IsUUID() parent?: string | null;
  @IsOptional() @IsBoolean() shared?: boolean;
}

export class EditFolder {
  @IsOptional() @IsString() @Length(1, 200) name?: string;
  @IsOptional() @IsUUID() parent?: string | null;
  @IsOptional() @IsBoolean() shared?: boolean;
}

export const savedRoutes = {
  list: route({
    method: 'GET',
    path: '/w/:workspace/saved',
    may: 'read',
    summary: 'The saved searches one may see, and the folders they lie in.',
    reply: SavedList,
  }),
  counts: route({
    method: 'GET',
    path: '/w/:workspace/saved-counts',
    may: 'read',
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
