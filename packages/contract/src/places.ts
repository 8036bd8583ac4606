import { ArrayMaxSize, IsArray, IsBoolean, IsInt, IsOptional, IsString, IsUUID, Length } from 'class-validator';
import { SourceIds } from './sources.ts';

export class CollectionNode {
  @IsUUID() id!: string;
  @IsString() name!: string;
  /** Sources in it and in all below it, each counted once. */
  @IsInt() count!: number;
}

export class Placement {
  @IsUUID() id!: string;
  @IsUUID() collection!: string;
  @IsOptional() @IsUUID() parent!: string | null;
}

export class PlacesReply {
  @IsArray() collections!: CollectionNode[];
  @IsArray() placements!: Placement[];
  @IsInt() loose!: number;
  @IsInt() bin!: number;
  @IsInt() total!: number;
}

export class NewCollection {
  @IsString() @Length(1, 200) name!: string;
  @IsOptional() @IsUUID() parent?: string;
}

export class RenameCollection {
  @IsString() @Length(1, 200) name!: string;
}

export class PlaceCollection {
  @IsUUID() collection!: string;
  @IsOptional() @IsUUID() parent?: string | null;
  /** The placement it moves from; without one it gets a further placement. */
  @IsOptional() @IsUUID() movedFrom?: string;
}

export class FileSources extends SourceIds {
  @IsUUID() collection!: string;
  @IsBoolean() present!: boolean;
}

export class TagSources extends SourceIds {
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
  @IsArray() @ArrayMaxSize(50) tags!: TagSuggestion[];
}
