/** A person gives a stretch of a reference to another field: the record that follows from all its stretches. */
import { parseDate, type FieldValue } from '../source/index.ts';
import { plainDoi, normaliseIsbn } from '../identifiers/index.ts';
import { readNames } from './names.ts';
import type { Span, SpanField } from './spans.ts';

/** The value of a field as its stretch says it; undefined where it says none. */
export function valueOf(field: SpanField, text: string): FieldValue | undefined {
  const t = text.replace(/^[\s“”"‘’«»([]+|[\s“”"‘’«».,;:)\]]+$/g, '').trim();
  if (!t) return undefined;
  switch (field) {
    case 'author':
    case 'editor':
      return readNames(text);
    case 'issued':
    case 'accessed':
      return parseDate(t);
    case 'page':
      return t.replace(/^pp?\.\s*/, '').replace(/\s?[-–—]{1,2}\s?/g, '-');
    case 'DOI':
      return plainDoi(t) ?? t;
    case 'ISBN':
      return normaliseIsbn(t) ?? t;
    default:
      return t;
  }
}

/**
 * The stretches with one given to another field, or to none. Another stretch of that field stays, unless it is the same.
 * @returns them in order, and what the two fields it touches hold now: null where nothing is left of one
 */
export function respan(
  text: string,
  spans: readonly Span[],
  change: { start: number; end: number; field: SpanField | null },
): { spans: Span[]; fields: Partial<Record<SpanField, FieldValue | null>> } {
  const { start, end, field } = change;
  const before = spans.filter((s) => s.start < end && s.end > start);
  const left = spans.filter((s) => !before.includes(s) && s.field !== field);
  const next = [...left, ...(field ? [{ field, start, end }] : [])].sort((a, b) => a.start - b.start);
  const touched = new Set<SpanField>([...before.map((s) => s.field), ...(field ? [field] : [])]);
  const fields: Partial<Record<SpanField, FieldValue | null>> = {};
  for (const f of touched) {
    const span = next.find((s) => s.field === f);
    fields[f] = (span && valueOf(f, text.slice(span.start, span.end))) ?? null;
  }
  return { spans: next, fields };
}
