/** Which value of each field stands after merging: by stated rules, unless a person chooses another. */
import { isShouting } from '../proofing/case.ts';
import { plainText } from '../repair/index.ts';
import { filledFields, isOthers, type FieldValue, type Name, type SourceRecord } from '../source/index.ts';

/** What is known of where the values of a record are from. */
export interface From {
  /** How each field is known, and how surely. */
  provenance?: Partial<Record<string, { from: string; sure: number }>>;
  /** When it was added, as text that sorts. */
  added?: string;
}

/** What a registry or catalogue gave outweighs what was typed, read or guessed. */
const KNOWN: Partial<Record<string, number>> = {
  'identifier registry': 20,
  catalogue: 15,
  import: 5,
  'page layout': -5,
  'file name': -20,
};
/** What a person wrote into a record that came from elsewhere was checked: it outweighs all but capitals. */
const CHECKED = 50;

function standingOf({ provenance = {} }: From, field: string): number {
  const { from } = provenance[field] ?? {};
  if (from !== 'person') return KNOWN[from ?? ''] ?? 0;
  // All of it by one's own hand: typed, not checked.
  return Object.values(provenance).every((p) => p?.from === 'person') ? 0 : CHECKED;
}

/**
 * The place of the best value of a field among records: mixed case over capitals, what a person checked over what came,
 * sound over broken, complete over partial, full names over initials, longer over shorter; of equal ones what was added last, or
 * the first where that is not known. -1 where none has any.
 */
export function bestOfField(field: string, records: readonly SourceRecord[], from: readonly From[] = []): number {
  // A key is cited by: whoever stays keeps theirs.
  if (field === 'citation-key') return records.findIndex((r) => r[field] !== undefined);
  let best = -1;
  let most = -Infinity;
  for (const [i, r] of records.entries()) {
    const value = (r as unknown as Record<string, unknown>)[field] as FieldValue | undefined;
    if (value === undefined) continue;
    const worth = worthOf(field, value) + standingOf(from[i] ?? {}, field);
    const newer = worth === most && (from[i]?.added ?? '') > (from[best]?.added ?? '');
    if (worth > most || newer) [best, most] = [i, worth];
  }
  return best;
}

/** Kinds that say little: anything more particular is better. */
const VAGUE = new Set(['document', 'article', 'webpage', 'entry']);

function worthOf(field: string, value: FieldValue): number {
  if (field === 'type') return VAGUE.has(value as unknown as string) ? 0 : 100;
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

/** In the place of one record: the values of all, put together. */
export const ALL_OF_THEM = -2;

/** Fields whose values are told beside each other where they differ, with what stands between them. */
const COMBINED: Record<string, string> = { note: '\n\n', ISBN: ', ', ISSN: ', ' };
export const canCombine = (field: string): boolean => Object.hasOwn(COMBINED, field);

export interface Plan {
  /** Every field that any has, in the order they come. */
  fields: string[];
  /** For each field, whose value stands; or all of them. */
  from: Record<string, number>;
}

export function planMerge(records: readonly SourceRecord[], known: readonly From[] = []): Plan {
  const fields = [...new Set(['type', ...records.flatMap((r) => filledFields(r).filter((f) => f !== 'custom'))])];
  const of = (field: string): number =>
    canCombine(field) && partsOf(field, records).length > 1 ? ALL_OF_THEM : bestOfField(field, records, known);
  return { fields, from: Object.fromEntries(fields.map((f) => [f, of(f)])) };
}

/** The different values of a field that is put together; what is part of another is not told twice. */
function partsOf(field: string, records: readonly SourceRecord[]): string[] {
  const texts = records.flatMap((r) => (r as unknown as Record<string, string | undefined>)[field] ?? []);
  const parts = field === 'note' ? texts : texts.flatMap((t) => t.split(/[,;]\s*|\s+(?=[\dX-]{9,})/i));
  const plain = (t: string): string => (field === 'note' ? t.replace(/\s+/g, ' ') : t.replace(/[^\dX]/gi, '')).trim().toLowerCase(); // prettier-ignore
  // Of several ways of writing one, the first.
  const found = new Map<string, string>();
  for (const p of parts) if (plain(p) && !found.has(plain(p))) found.set(plain(p), p.trim());
  const once = [...found];
  return once.filter(([p], i) => !once.some(([q], k) => k !== i && q.includes(p))).map(([, p]) => p);
}

/** The record as it would be; what is kept aside of any stays with the first that has it. */
export function mergedRecord(records: readonly SourceRecord[], from: Readonly<Record<string, number>>): SourceRecord {
  const out: Record<string, unknown> = {};
  for (const [field, i] of Object.entries(from)) {
    const value =
      i === ALL_OF_THEM
        ? partsOf(field, records).join(COMBINED[field])
        : (records[i] as Record<string, unknown> | undefined)?.[field];
    if (value !== undefined) out[field] = value;
  }
  const custom = Object.assign({}, ...records.map((r) => r.custom ?? {}).reverse()) as SourceRecord['custom'];
  return { ...out, ...(custom && Object.keys(custom).length && { custom }) } as SourceRecord;
}
