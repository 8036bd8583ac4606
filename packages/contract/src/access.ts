import {
  ArrayUnique,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
} from 'class-validator';
import { ACTIONS, route, type Action } from './route.ts';
import { ListOf } from './shape.ts';

export const ROLES = ['reader', 'contributor', 'steward'] as const;
export type Role = (typeof ROLES)[number];

export class SignIn {
  @IsEmail() email!: string;
  @IsString() @MaxLength(200) password!: string;
}

export class WorkspaceSummary {
  @IsUUID() id!: string;
  @IsString() name!: string;
  @IsIn(ROLES) role!: Role;
  /** What one may do there. */
  @IsArray() @ArrayUnique() @IsIn(ACTIONS, { each: true }) may!: Action[];
}

/** Who is signed in. `csrf` goes into the header x-csrf-token of every request that changes something. */
export class SessionInfo {
  @IsUUID() userId!: string;
  @IsString() name!: string;
  @IsEmail() email!: string;
  @IsString() csrf!: string;
  @ListOf(() => WorkspaceSummary) workspaces!: WorkspaceSummary[];
}

/** A problem document (RFC 9457), with a code of ours. */
export class Problem {
  @IsString() type!: string;
  @IsString() title!: string;
  @IsInt() status!: number;
  @IsString() code!: string;
  @IsString() detail!: string;
  /** Of an edit that met another's newer one: who made it, and both values. */
  @IsOptional() @IsObject() conflict?: ConflictOfEdits;
}

export interface ConflictOfEdits {
  by: string;
  subject: { kind: string; id: string };
  moved: { what: string; field?: string; yours: unknown; theirs: unknown }[];
}

export const accessRoutes = {
  signIn: route({
    method: 'POST',
    path: '/session',
    may: 'anyone',
    summary: 'Sign in.',
    body: SignIn,
    reply: SessionInfo,
  }),
  session: route({
    method: 'GET',
    path: '/session',
    may: 'signed in',
    summary: 'Who is signed in, and to which workspaces they belong.',
    reply: SessionInfo,
  }),
  signOut: route({ method: 'DELETE', path: '/session', may: 'signed in', summary: 'Sign out.' }),
};
