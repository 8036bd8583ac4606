/** What reading an input gives: candidates for sources, and what there is to say of it. */
import { v7 as uuidv7 } from 'uuid';
import type { FileState, ImportMessage } from '@pandecta/contract';
import type { Provenance } from '@pandecta/core/documents';
import type { Span } from '@pandecta/core/references';
import type { SourceRecord } from '@pandecta/core/source';
import type { Services } from '../../services.ts';
import type { Found } from '../../catalogues/look-up.ts';
import type { Input } from '../inputs.ts';
import type { Visits } from './visits.ts';

/** What reading an input is given. */
export interface Preparing {
  services: Services;
  workspace: { id: string; number: number };
  /** The place of the input among those of the gathering. */
  index: number;
  visits: Visits;
  /** Says how far the reading of this input is. */
  says: (more?: string) => Promise<void>;
}

/** Where a candidate came from, as it is kept with the source. */
export interface CameFrom {
  came?: string;
  spans?: Span[];
  found?: Found;
  lookedUp?: 'found' | 'not found' | 'silent';
  /** Why the record could not be completed: which service did not answer, or which check digit is wrong. */
  trouble?: string;
  /** The folder it came in, where folders become collections. */
  folder?: string;
  /** The works a page lists. */
  items?: SourceRecord[];
}

export interface Candidate {
  id: string;
  record: SourceRecord;
  subjects: string[];
  provenance: Provenance;
  input: number;
  line: number;
  file?: { id: string; name: string; state: FileState; pages: number };
  /** Files that came along: the page as it is kept, the full text a catalogue leads to. */
  beside?: { id: string; name: string }[];
  /** From a file of references: such come in with a report. */
  referenceFile?: true;
  origin?: CameFrom;
}

export interface Prepared {
  input: Input;
  format: string;
  candidates: Candidate[];
  messages: ImportMessage[];
  /** Why nothing came of the input. */
  trouble?: string;
}

export const message = (
  input: Input,
  rule: string,
  what: string,
  done: string,
  severity: ImportMessage['severity'] = 'warning',
): ImportMessage => ({ file: input.name, severity, rule, line: 0, column: 0, what, done });

export const leftOut = (input: Input, trouble: string): Prepared => ({
  input,
  format: 'unknown',
  candidates: [],
  messages: [message(input, 'not-read', trouble, 'it was left out', 'error')],
  trouble,
});

/** How every field of a record is known, where all are known the same way. */
export const knownBy = (record: SourceRecord, from: Provenance[string]['from'], sure: number): Provenance =>
  Object.fromEntries(Object.keys(record).map((f) => [f, { from, sure }]));

/** What the registry has of a record's DOI goes before what it was read from; the DOI itself stands, as it came. */
export function layRegistryOver(record: SourceRecord, provenance: Provenance, found: SourceRecord | undefined): void {
  for (const [field, value] of Object.entries(found ?? {})) {
    if (field === 'custom' || field === 'DOI') continue;
    (record as Record<string, unknown>)[field] = value;
    provenance[field] = { from: 'identifier registry', sure: 0.97 };
  }
  // The registry bears the identifier out.
  if (found) provenance.DOI = { from: 'identifier registry', sure: 0.97 };
}

export const candidate = (
  input: number,
  record: SourceRecord,
  provenance: Provenance,
  more: Partial<Omit<Candidate, 'record' | 'input' | 'provenance'>> = {},
): Candidate => ({ id: uuidv7(), record, subjects: [], provenance, input, line: 0, ...more });
