import { IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID } from 'class-validator';
import { JobInfo } from './jobs.ts';
import { route } from './route.ts';
import { ListOf, OrNull, Part } from './shape.ts';

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
  @IsInt() withMessages!: number;
  @IsInt() messagesInAll!: number;
  @ListOf(() => ImportFileReport) files!: ImportFileReport[];
  @ListOf(() => ImportMessage) messages!: ImportMessage[];
  @OrNull() @IsUUID() changeId!: string | null;
  /** True while the change that brought the sources stands. */
  @IsBoolean() undoable!: boolean;
  @OrNull() @IsString() destination!: string | null;
}

export class ImportList {
  @ListOf(() => ImportReport) imports!: ImportReport[];
}

export class Started {
  @IsUUID() jobId!: string;
  @IsUUID() importId!: string;
}

export const gatherRoutes = {
  import: route({
    method: 'POST',
    path: '/w/:workspace/imports',
    may: 'gather',
    summary:
      'Bring in files (multipart/form-data: any number of parts "file"; a part "collection" before them says where to).',
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
