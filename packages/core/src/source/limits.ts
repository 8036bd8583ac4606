/**
 * How much a field holds. No source has more: what does is a mistake of whoever wrote it, and would make every list it stands
 * in slow for all. A typed value that is too long is refused; of a file's entry the beginning is kept, and it is said.
 */
import { cut } from '../text/index.ts';
import type { Name } from './names.ts';
import type { FieldValue, SourceRecord } from './record.ts';
import { isDateVariable, isNameVariable, variableLabel } from './variables.ts';
import { formatNumber } from '../wording/index.ts';

/** In UTF-16 units; of `custom` as JSON. */
export const MOST_IN = {
  text: 4_000,
  /** Of an abstract or a note. */
  long: 200_000,
  /** Of one part of a name. */
  part: 1_000,
  names: 5_000,
  /** Of a date as words. */
  date: 500,
  custom: 500_000,
  subject: 500,
  subjects: 1_000,
} as const;

const LONG = new Set(['abstract', 'note']);
const characters = (n: number): string => `${formatNumber(n)} characters`;
const jsonLength = (value: unknown): number => JSON.stringify(value).length;

/** What is too much in a value of a field, in words: "more than 4,000 characters"; undefined where nothing is. */
export function tooMuchIn(field: string, value: FieldValue | null): string | undefined {
  if (value === null) return undefined;
  if (typeof value === 'string') {
    const most = mostIn(field);
    return value.length > most ? `more than ${characters(most)}` : undefined;
  }
  if (isNameVariable(field)) {
    const names = value as Name[];
    if (names.length > MOST_IN.names) return `more than ${formatNumber(MOST_IN.names)} names`;
    return names.some((name) => Object.values(name).some((part) => part.length > MOST_IN.part))
      ? `a name of more than ${characters(MOST_IN.part)}`
      : undefined;
  }
  if (isDateVariable(field))
    return jsonLength(value) > MOST_IN.date + 200 ? `more than ${characters(MOST_IN.date)}` : undefined;
  return jsonLength(value) > MOST_IN.custom ? `more than ${characters(MOST_IN.custom)}` : undefined;
}

/** The most characters of a field that is text. */
export const mostIn = (field: string): number => (LONG.has(field) ? MOST_IN.long : MOST_IN.text);

/** A record within the limits, and what of it was too much: "Title: more than 4,000 characters". */
export function bounded(record: SourceRecord): { record: SourceRecord; cut: string[] } {
  const cuts: string[] = [];
  let out: Record<string, unknown> | undefined;
  for (const [field, value] of Object.entries(record)) {
    const says = tooMuchIn(field, value as FieldValue);
    if (!says) continue;
    cuts.push(`${field === 'custom' ? 'What is kept beside' : variableLabel(field)}: ${says}`);
    out ??= { ...record };
    const kept = beginningOf(field, value as FieldValue);
    if (kept === undefined) delete out[field];
    else out[field] = kept;
  }
  return { record: (out as SourceRecord | undefined) ?? record, cut: cuts };
}

function beginningOf(field: string, value: FieldValue): FieldValue | undefined {
  if (typeof value === 'string') return cut(value, mostIn(field));
  if (isNameVariable(field))
    return (value as Name[])
      .slice(0, MOST_IN.names)
      .map((name) => Object.fromEntries(Object.entries(name).map(([k, v]) => [k, cut(v as string, MOST_IN.part)])));
  if (isDateVariable(field))
    return { literal: cut(String((value as { literal?: string }).literal ?? ''), MOST_IN.date) };
  return undefined;
}
