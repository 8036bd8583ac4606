/**
 * The record of a source: CSL 1.0.2 variables under their CSL names, and `custom`, which CSL-JSON reserves for
 * what an application keeps beside them. Foreign fields a reader met are kept there, by format, and written back.
 */
import { isKind, type Kind } from './kinds.ts';
import type { Name } from './names.ts';
import type { DateValue } from './dates.ts';
import {
  isDateVariable,
  isNameVariable,
  isTextVariable,
  type DateVariable,
  type NameVariable,
  type TextVariable,
} from './variables.ts';

export type SourceRecord = { type: Kind; custom?: Custom } & { [V in TextVariable]?: string } & {
  [V in NameVariable]?: Name[];
} & { [V in DateVariable]?: DateValue };

/** Fields kept from a format that have no variable here: `{ ris: [["XX", "value"]], bibtex: {...} }`. */
export interface Custom {
  [format: string]: unknown;
}

/** A value of one field of a record. */
export type FieldValue = string | Name[] | DateValue | Custom;

export type Field = Exclude<keyof SourceRecord, never>;

/** True when the value is of the shape the field takes; used at every boundary where records come in. */
export function isFieldValue(field: string, value: unknown): value is FieldValue {
  if (field === 'type') return isKind(value);
  if (field === 'custom') return isObject(value);
  if (isTextVariable(field)) return typeof value === 'string';
  if (isNameVariable(field)) return Array.isArray(value) && value.every(isName);
  if (isDateVariable(field)) return isDate(value);
  return false;
}

export function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

const NAME_PARTS = new Set(['family', 'given', 'dropping-particle', 'non-dropping-particle', 'suffix', 'literal']);

function isName(value: unknown): value is Name {
  return isObject(value) && Object.entries(value).every(([k, v]) => NAME_PARTS.has(k) && typeof v === 'string');
}

function isDate(value: unknown): value is DateValue {
  if (!isObject(value)) return false;
  const parts = value['date-parts'];
  if (parts !== undefined) {
    if (!Array.isArray(parts) || parts.length < 1 || parts.length > 2) return false;
    for (const p of parts) if (!Array.isArray(p) || !isDay(p)) return false;
  }
  if (value.edtf !== undefined && (typeof value.edtf !== 'string' || parts === undefined)) return false;
  return parts !== undefined || typeof value.literal === 'string';
}

/** No date of a source is further from ours, and no database holds its year as a whole number. */
const FURTHEST_YEAR = 2_000_000_000;

/** [year, month?, day?] of whole numbers; no month or day stands as 0. */
function isDay(parts: unknown[]): boolean {
  const [year = 0, month = 1, day = 1] = parts as number[];
  return (
    parts.length >= 1 &&
    parts.length <= 3 &&
    Math.abs(year) <= FURTHEST_YEAR &&
    parts.every(Number.isInteger) &&
    month >= 1 &&
    month <= 12 &&
    day >= 1 &&
    day <= 31
  );
}

/** The fields of a record that hold something, without `custom`. */
export function filledFields(record: SourceRecord): string[] {
  return Object.keys(record).filter((f) => f !== 'custom' && record[f as Field] !== undefined);
}

/** Deep equality of JSON values; the order of object keys does not matter. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((x, i) => same(x, b[i]));
  if (!isObject(a) || !isObject(b)) return false;
  const ka = Object.keys(a).filter((k) => a[k] !== undefined);
  const kb = Object.keys(b).filter((k) => b[k] !== undefined);
  return ka.length === kb.length && ka.every((k) => same(a[k], b[k]));
}
