/** What a rule of proofing says of itself, and what it is given to look at. */
import type { FieldValue, SourceRecord } from '../source/index.ts';
import type { Among } from './among.ts';

export const SEVERITIES = ['wrong', 'looks wrong', 'look'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** Fields as they would be; null where one would go. */
export type Mend = Record<string, FieldValue | null>;

export interface Found {
  /** The CSL variable it is about. */
  field: string;
  /** A sentence: what is wrong, with the words it is wrong in. */
  what: string;
  /** From 0 to 1: how sure it is that this is wrong, and the mend right. */
  sure: number;
  mend?: Mend;
}

export interface View {
  record: SourceRecord;
  /** Variables the style prints for sources of this kind; undefined where no style is chosen. */
  uses?: ReadonlySet<string> | undefined;
  /** What the other records tell; undefined where a record is looked at alone. */
  among?: Among | undefined;
  /** Words that keep their form in whatever case. */
  keep?: readonly string[] | undefined;
  /** The year it is, where that is known. */
  thisYear?: number | undefined;
}

export interface Rule {
  id: string;
  severity: Severity;
  /** As the heading of its findings: "Title in capitals". */
  title: string;
  /** Why it matters, in a sentence. */
  why: string;
  find(view: View): Found[];
}

/** The texts of a record that a rule on spelling looks at, with their fields. */
export const TEXTS = ['title', 'container-title', 'collection-title', 'publisher', 'publisher-place', 'genre', 'event-title', 'title-short', 'authority'] as const; // prettier-ignore

/** A finding for each of the texts that a mend alters. */
export function inTexts(
  record: SourceRecord,
  mended: (text: string, field: (typeof TEXTS)[number]) => string,
  what: (before: string, after: string) => string,
  sure: number,
): Found[] {
  const out: Found[] = [];
  for (const field of TEXTS) {
    const before = record[field];
    if (before === undefined) continue;
    const after = mended(before, field);
    if (after && after !== before) out.push({ field, what: what(before, after), sure, mend: { [field]: after } });
  }
  return out;
}

export const short = (text: string): string => (text.length > 60 ? `${text.slice(0, 57)}…` : text);
