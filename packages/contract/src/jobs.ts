import { IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUUID } from 'class-validator';
import { route } from './route.ts';
import { ListOf, OrNull } from './shape.ts';

export const JOB_STATES = ['waiting', 'running', 'paused', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof JOB_STATES)[number];

/** Those that have not ended. */
export const GOING: readonly JobState[] = ['waiting', 'running', 'paused'];

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
  /** Whether it can be paused and go on later. */
  @IsBoolean() rests!: boolean;
  @OrNull() @IsUUID() importId!: string | null;
  /** The change it made, which can be undone. */
  @IsOptional() @IsUUID() changeId?: string | null;
}

export class JobList {
  @ListOf(() => JobInfo) jobs!: JobInfo[];
}

export const jobRoutes = {
  jobs: route({
    method: 'GET',
    path: '/w/:workspace/jobs',
    may: 'read',
    bounded: true,
    summary: 'Running and recent jobs.',
    reply: JobList,
  }),
  pause: route({
    method: 'POST',
    path: '/w/:workspace/jobs/:job/pause',
    may: 'gather',
    summary: 'Let a gathering rest; what was read of it is kept, and nothing comes of it until it goes on.',
    reply: JobList,
  }),
  resume: route({
    method: 'POST',
    path: '/w/:workspace/jobs/:job/resume',
    may: 'gather',
    summary: 'Let a gathering that rests go on where it was.',
    reply: JobList,
  }),
  again: route({
    method: 'POST',
    path: '/w/:workspace/jobs/:job/again',
    may: 'gather',
    summary: 'Begin a job anew that failed or was cancelled.',
    reply: JobList,
  }),
  cancel: route({
    method: 'POST',
    path: '/w/:workspace/jobs/:job/cancel',
    may: 'gather',
    summary: 'Cancel a job; what it would have brought in one piece does not come.',
    reply: JobList,
  }),
};
