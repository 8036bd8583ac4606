import { IsArray, IsBoolean, IsInt, IsObject, IsOptional, IsString, IsUUID } from 'class-validator';
import type { Change } from '@pandecta/core/source';

/** What a request that changes something answers. */
export class Changed {
  @IsOptional() @IsUUID() changeId!: string | null;
  /** The sentence to show: what happened, and what stays. */
  @IsString() says!: string;
  /** The job that carries it out, where it touches so many sources that it takes a while. */
  @IsOptional() @IsUUID() jobId?: string;
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
