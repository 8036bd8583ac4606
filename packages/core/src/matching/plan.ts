/** Which value of each field stands after merging: by stated rules, unless a person chooses another. */
import { isShouting } from '../proofing/case.ts';
import { plainText } from '../repair/index.ts';
import { filledFields, isOthers, type FieldValue, type Name, type SourceRecord } from '../source/index.ts';

/**
 * The place of the best value of a field among records: complete over partial, mixed case over capitals, full names over
 * initials, sound over broken, longer over shorter; of equal ones the first. -1 where none has any.
 */
export function bestOfField(field: string, records: readonly SourceRecord[]): number {
  let best = -1;
  let most = -Infinity;
  for (const [i, r] of records.entries()) {
    const value = (r as unknown as Record<string, unknown>)[field] as FieldValue | undefined;
    if (value === undefined) continue;
    const worth = worthOf(field, value);
    if (worth > most) [best, most] = [i, worth];
  }
  return best;
}

/** Kinds that say little: anything more particular is better. */
const VAGUE = new Set(['document', 'article', 'webpage', 'entry']);

function worthOf(field: string, value: FieldValue): number {
  if (field === 'type') return VAGUE.has(value as unknown as string) ? 0 : 1;
  if (Array.isArray(value)) return people(value as Name[]);
  if (typeof value === 'object') {
    const parts = (value as { 'date-parts'?: number[][] })['date-parts'];
    return parts ? 10 + parts.flat().length : 1;
  }
  if (typeof value !== 'string') return 0;
  const plain = plainText(value);
  const sound =
    plain ===
    value
      .replace(/<[^>]+>/g, '')
      .replace(/\s+/g, ' ')
      .trim()
      ? 40
      : 0;
  const cased = isShouting(value) ? 0 : 100;
  const abbreviated = /(?:container-title|publisher|authority)/.test(field) && /\p{L}\.(?:\s|$)/u.test(value) ? -60 : 0;
  // "201-229" over "201-29", "41" over "41(3)".
  const whole = field === 'page' ? plain.length : Math.min(plain.length, 300) / 10;
  const numbered = field === 'volume' || field === 'edition' ? (/^\d+$/.test(plain) ? 50 : 0) : 0;
  return cased + sound + abbreviated + whole + numbered;
}

function people(names: readonly Name[]): number {
  const named = names.filter((n) => !isOthers(n));
  const full = named.filter((n) => n.literal ?? /\p{L}{2,}/u.test(n.given ?? '')).length;
  const loud = named.filter((n) => isShouting(n.family ?? n.literal ?? '')).length;
  return named.length * 10 + full * 3 - loud * 5 + (names.length > named.length ? -4 : 0);
}

export interface Plan {
  /** Every field that any has, in the order they come. */
  fields: string[];
  /** For each field, whose value stands. */
  from: Record<string, number>;
}

export function planMerge(records: readonly SourceRecord[]): Plan {
  const fields = [...new Set(['type', ...records.flatMap((r) => filledFields(r).filter((f) => f !== 'custom'))])];
  return { fields, from: Object.fromEntries(fields.map((f) => [f, bestOfField(f, records)])) };
}

/** The record as it would be; what is kept aside of any stays with the first that has it. */
export function mergedRecord(records: readonly SourceRecord[], from: Readonly<Record<string, number>>): SourceRecord {
  const out: Record<string, unknown> = {};
  for (const [field, i] of Object.entries(from)) {
    const value = (records[i] as Record<string, unknown> | undefined)?.[field];
    if (value !== undefined) out[field] = value;
  }
  const custom = Object.assign({}, ...records.map((r) => r.custom ?? {}).reverse()) as SourceRecord['custom'];
  return { ...out, ...(custom && Object.keys(custom).length && { custom }) } as SourceRecord;
}
