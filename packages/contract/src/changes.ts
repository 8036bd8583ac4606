import { IsArray, IsBoolean, IsInt, IsObject, IsOptional, IsString, IsUUID } from 'class-validator';
import type { Change } from '@pandecta/core/source';

/** What a request that changes something answers. */
export class Changed {
  @IsOptional() @IsUUID() changeId!: string | null;
  /** The sentence to show: what happened, and what stays. */
  @IsString() says!: string;
  @IsOptional() @IsUUID() id?: string;
  @IsOptional() @IsInt() version?: number;
}

export class HistoryEntry {
  @IsUUID() id!: string;
  @IsString() by!: string;
  @IsString() at!: string;
  @IsString() says!: string;
  @IsObject() change!: Change;
  @IsBoolean() undone!: boolean;
  @IsOptional() @IsUUID() undoes!: string | null;
}

export class HistoryReply {
  @IsArray() entries!: HistoryEntry[];
}
