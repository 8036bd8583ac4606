/** What a rule of proofing says of itself, and what it is given to look at. */
import type { FieldValue, SourceRecord } from '../source/index.ts';
import type { English } from '../english/index.ts';
import type { Among } from './among.ts';
import type { CaseOptions } from './case.ts';

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

export interface FileSeen {
  name: string;
  state: 'text' | 'image only' | 'damaged' | 'other';
  /** The words of its first page or two; empty where they are not known. */
  begins: string;
}

export interface View {
  record: SourceRecord;
  /** Variables the style prints for sources of this kind; undefined where no style is chosen. */
  uses?: ReadonlySet<string> | undefined;
  /** What the other records tell; undefined where a record is looked at alone. */
  among?: Among | undefined;
  /** The words of English, where there is time to load them. */
  english?: English | undefined;
  /** Words that keep their form in whatever case. */
  keep?: readonly string[] | undefined;
  /** Its files, where they are known. */
  files?: readonly FileSeen[] | undefined;
  /** Records said to be versions of the same work. */
  versions?: readonly SourceRecord[] | undefined;
  /** The day it is, as "2026-11-28". */
  today?: string | undefined;
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

/** What is known of which words of a record's title are names: from others, from its own abstract, from lists. */
export function caseOptions({ record, among, english, keep }: View): CaseOptions {
  const own = record.abstract ? greatWithin(record.abstract) : undefined;
  return {
    isProper: (word, before, after) => Boolean(own?.has(word) || among?.isProper(word, before, after)),
    english,
    ...(keep && { keep }),
  };
}

/** Words that begin with a capital in the midst of sentences, and nowhere with a small letter. */
function greatWithin(text: string): Set<string> {
  const great = new Set<string>();
  const small = new Set<string>();
  for (const { 0: word, index } of text.matchAll(/\p{L}[\p{L}\p{M}]{2,}/gu)) {
    if (!/^\p{Lu}/u.test(word)) small.add(word);
    else if (/[\p{L}\p{N},]\s$/u.test(text.slice(Math.max(0, index - 2), index))) great.add(word.toLowerCase());
  }
  for (const word of small) great.delete(word);
  return great;
}
