import {
  ArrayUnique,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsObject,
  IsString,
  IsUUID,
  Length,
  MaxLength,
} from 'class-validator';
import { ACTIONS, route, type Action } from './route.ts';
import { ListOf, Optional } from './shape.ts';

export const ROLES = ['reader', 'contributor', 'steward'] as const;
export type Role = (typeof ROLES)[number];

/** As long as a phrase of three words; what it is made of is nobody's to say (NIST SP 800-63B, 5.1.1.2). */
export const LEAST_PASSWORD = 12;
export const MOST_PASSWORD = 200;

export class SignIn {
  @IsEmail() email!: string;
  @IsString() @MaxLength(MOST_PASSWORD) password!: string;
}

/** What opens an empty installation: it stands in the link that its start printed. */
export class FirstLink {
  @IsString() @MaxLength(100) token!: string;
}

/** The first account, made by that link. */
export class FirstAccount extends FirstLink {
  @IsString() @Length(1, 120) name!: string;
  @IsEmail() email!: string;
  @IsString() @Length(LEAST_PASSWORD, MOST_PASSWORD) password!: string;
  /** The name of the workspace they begin in. */
  @IsString() @Length(1, 120) workspace!: string;
}

export class NewPassword {
  @IsString() @MaxLength(MOST_PASSWORD) old!: string;
  @IsString() @Length(LEAST_PASSWORD, MOST_PASSWORD) password!: string;
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
  @Optional() @IsObject() conflict?: ConflictOfEdits;
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
  firstLink: route({
    method: 'POST',
    path: '/first-link',
    may: 'anyone',
    summary: 'Whether the link of the first start still makes the first account; refused where it does not.',
    body: FirstLink,
  }),
  first: route({
    method: 'POST',
    path: '/first-account',
    may: 'anyone',
    summary: 'Make the first account of an empty installation, by the link its start printed, and sign in.',
    body: FirstAccount,
    reply: SessionInfo,
  }),
  changePassword: route({
    method: 'PUT',
    path: '/session/password',
    may: 'signed in',
    summary: 'Change your own password. All your other sessions end.',
    body: NewPassword,
  }),
  signOut: route({ method: 'DELETE', path: '/session', may: 'signed in', summary: 'Sign out.' }),
};
