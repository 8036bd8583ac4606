import { IsArray, IsIn, IsInt, IsObject, IsOptional, IsString, IsUUID } from 'class-validator';

export const JOB_STATES = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];

/** Long work, as the page follows it. */
export class JobInfo {
  @IsUUID() id!: string;
  @IsString() kind!: string;
  @IsString() title!: string;
  @IsIn(JOB_STATES) state!: JobState;
  @IsInt() done!: number;
  @IsInt() total!: number;
  @IsString() says!: string;
  @IsString() createdAt!: string;
  @IsOptional() @IsUUID() importId!: string | null;
  /** The change it made, which can be undone. */
  @IsOptional() @IsUUID() changeId?: string | null;
}

export class JobList {
  @IsArray() jobs!: JobInfo[];
}

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

export class ImportMessage {
  @IsString() file!: string;
  @IsString() severity!: 'info' | 'warning' | 'error';
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
  @IsObject() job!: JobInfo;
  @IsInt() added!: number;
  @IsInt() known!: number;
  @IsInt() attached!: number;
  @IsInt() withMessages!: number;
  @IsInt() messagesInAll!: number;
  @IsArray() files!: ImportFileReport[];
  @IsArray() messages!: ImportMessage[];
  @IsOptional() @IsUUID() changeId!: string | null;
  /** True while the change that brought the sources stands. */
  undoable!: boolean;
  @IsOptional() @IsString() destination!: string | null;
}

export class ImportList {
  @IsArray() imports!: ImportReport[];
}

export class Started {
  @IsUUID() jobId!: string;
  @IsUUID() importId!: string;
}
