/** What a gathering is made of, as it came. It is kept with the gathering, so that a job begun again has it all. */
import type { DoorPart } from '@pandecta/core/door';
import type { Columns } from '@pandecta/core/formats';
import type { SourceRecord } from '@pandecta/core/source';
import type { Found } from '../catalogues/look-up.ts';

/** What is kept under its hash. */
export interface Kept {
  sha256: string;
  bytes: number;
}

/** A file. */
export interface FileInput extends Kept {
  name: string;
  /** The folders it lay in, where a folder or an archive came. */
  folder?: string;
  /** The address a browser had it from. */
  from?: string;
  /** What its columns are, where a person said it of a table. */
  columns?: Columns;
}

/** A part of what was typed or pasted. */
export interface TypedInput {
  name: string;
  part: DoorPart;
}

/** A record chosen from what outside catalogues answered. */
export interface RecordInput {
  name: string;
  record: SourceRecord;
  subjects: string[];
  found: Found;
}

/** A page as a browser had it, kept as a file. */
export interface PageInput {
  name: string;
  page: { address: string; sha256: string; items?: number[]; picture?: Kept; pdf?: Kept };
}

export type Input = FileInput | TypedInput | RecordInput | PageInput;

export const isFile = (input: Input): input is FileInput => 'sha256' in input;
