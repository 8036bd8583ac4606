import { Type } from 'class-transformer';
import { IsArray, IsEmail, IsIn, IsString, IsUUID, MaxLength, ValidateNested } from 'class-validator';

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
}

/** Who is signed in. `csrf` goes into the header x-csrf-token of every request that changes something. */
export class SessionInfo {
  @IsUUID() userId!: string;
  @IsString() name!: string;
  @IsEmail() email!: string;
  @IsString() csrf!: string;
  @IsArray() @ValidateNested({ each: true }) @Type(() => WorkspaceSummary) workspaces!: WorkspaceSummary[];
}

/** A problem document (RFC 9457), with a code of ours. */
export class Problem {
  @IsString() type!: string;
  @IsString() title!: string;
  status!: number;
  @IsString() code!: string;
  @IsString() detail!: string;
}
