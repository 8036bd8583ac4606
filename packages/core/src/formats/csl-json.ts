/** CSL-JSON after the CSL 1.0.2 data schema: an array of items, or one item. Fields it does not know are kept. */
import {
  isDateVariable,
  isFieldValue,
  isKind,
  isNameVariable,
  isObject,
  isTextVariable,
  parseDate,
  parseName,
  same,
  type SourceRecord,
} from '../source/index.ts';
import { jsonWithoutNul } from './nul.ts';
import { Lines, type Message, type ReadResult, type ReadSource } from './message.ts';

export function readCslJson(text: string): ReadResult {
  const messages: Message[] = [];
  const lines = new Lines(text);
  const sources: ReadSource[] = [];
  const items = parseItems(text, lines, messages);
  for (const { value, offset } of items) {
    const place = lines.at(offset);
    if (!isObject(value)) {
      messages.push({
        severity: 'error',
        rule: 'not-an-item',
        ...place,
        what: 'An entry is not an object',
        done: 'left out',
      });
      continue;
    }
    sources.push(readItem(value, place, messages));
  }
  if (!items.length && !messages.length) {
    messages.push({
      severity: 'info',
      rule: 'empty',
      line: 1,
      column: 1,
      what: 'The file holds no entries',
      done: 'nothing to read',
    });
  }
  return { sources, messages };
}

/** Ids the writer makes up where a record has no citation key. */
const MADE_ID = /^source-\d+$/;

/** Reads one item whose JSON is sound; every field is checked and what does not fit is mended or kept aside. */
export function readItem(
  item: Record<string, unknown>,
  place: { line: number; column: number },
  messages: Message[],
): ReadSource {
  const record = { type: 'document' } as SourceRecord & Record<string, unknown>;
  const kept: Record<string, unknown> = {};
  const tell = (rule: string, what: string, done: string): void =>
    void messages.push({ severity: 'warning', rule, ...place, what, done });
  let subjects: string[] = [];
  for (const [key, value] of Object.entries(item)) {
    if (value === null || value === undefined) continue;
    if (key === 'id') {
      const id = String(value as string | number);
      if (item['citation-key'] === undefined && !MADE_ID.test(id)) record['citation-key'] = id;
      else if (id !== item['citation-key'] && !MADE_ID.test(id)) kept.id = value;
    } else if (key === 'type') {
      if (isKind(value)) record.type = value;
      else {
        tell('unknown-kind', `The type “${String(value)}” is not one of CSL 1.0.2`, 'read as document, the type kept');
        kept.type = value;
      }
    } else if (key === 'keyword' && typeof value === 'string') {
      subjects = splitKeywords(value);
    } else if (key === 'custom' && isObject(value)) {
      const { subjects: listed, ...custom } = value;
      if (Array.isArray(listed)) subjects = listed.filter((s) => typeof s === 'string');
      if (Object.keys(custom).length) record.custom = custom;
    } else if (isFieldValue(key, value)) {
      if (value !== '') record[key] = value;
    } else {
      const mended = mend(key, value);
      if (mended !== undefined) record[key] = mended;
      else {
        if (isTextVariable(key) || isNameVariable(key) || isDateVariable(key)) {
          tell('wrong-shape', `The value of ${key} has the wrong shape`, 'kept aside with the record');
        }
        kept[key] = value;
      }
    }
  }
  if (Object.keys(kept).length) {
    record.custom = { ...record.custom, 'csl-json': { ...(record.custom?.['csl-json'] as object), ...kept } };
  }
  return { record, subjects, line: place.line };
}

/** Keywords in one line, parted by semicolons, or by commas where there is no semicolon (common practice). */
export function splitKeywords(text: string): string[] {
  return text.split(text.includes(';') ? /\s*;\s*/ : /\s*,\s*/).filter(Boolean);
}

/** The mends that lose nothing: numbers as text, one name for a list, dates as text or with text parts. */
function mend(key: string, value: unknown): unknown {
  if (isTextVariable(key) && (typeof value === 'number' || typeof value === 'boolean')) return String(value);
  if (isTextVariable(key) && Array.isArray(value) && value.length === 1) return String(value[0]);
  if (isNameVariable(key)) {
    const list = Array.isArray(value) ? value : [value];
    const names = list.map((n) => (typeof n === 'string' ? parseName(n) : n));
    return isFieldValue(key, names) ? names : undefined;
  }
  if (isDateVariable(key)) {
    if (typeof value === 'string' || typeof value === 'number') return parseDate(String(value));
    if (!isObject(value)) return undefined;
    const { raw, 'date-parts': parts, ...rest } = value;
    if (Array.isArray(parts)) {
      const numbers = parts.map((p) => (Array.isArray(p) ? withoutZeros(p.map(Number)) : p));
      const [year, month] = (numbers[0] ?? []) as number[];
      // Seasons as months 21 to 24 (ISO 8601-2) or 13 to 16 (CSL 1.0.2).
      const season = numbers.length > 1 || !month || month <= 12 ? 0 : month > 20 ? month - 20 : month - 12;
      const mended = season ? { ...rest, 'date-parts': [[year]], season } : { ...rest, 'date-parts': numbers };
      return isFieldValue(key, mended) ? mended : undefined;
    }
    if (typeof raw === 'string') return parseDate(raw);
  }
  return undefined;
}

/** A month or day of 0 says that there is none; a year of 0, that a range is open. */
function withoutZeros(parts: number[]): number[] {
  const end = parts.findIndex((n, i) => i > 0 && n === 0);
  return end < 0 ? parts : parts.slice(0, end);
}

interface Item {
  value: unknown;
  offset: number;
}

function parseItems(text: string, lines: Lines, messages: Message[]): Item[] {
  const body = jsonWithoutNul(text.replace(/^\uFEFF/, ' '));
  try {
    const whole: unknown = JSON.parse(body);
    const list: unknown[] = Array.isArray(whole)
      ? whole
      : isObject(whole) && Array.isArray(whole.items)
        ? whole.items
        : [whole];
    const offsets = topLevelObjects(body).map((o) => o.from);
    const aligned = Array.isArray(whole) && offsets.length === list.length;
    return list.map((value, i) => ({ value, offset: aligned ? offsets[i]! : 0 }));
  } catch {
    const items: Item[] = [];
    for (const { from, to } of topLevelObjects(body)) {
      try {
        items.push({ value: JSON.parse(body.slice(from, to)), offset: from });
      } catch (error) {
        messages.push({
          severity: 'error',
          rule: 'broken-entry',
          ...lines.at(from),
          what: `An entry is not sound JSON: ${(error as Error).message}`,
          done: 'left out; the others were read',
        });
      }
    }
    if (!messages.length) {
      messages.push({
        severity: 'warning',
        rule: 'broken-list',
        ...lines.at(body.length),
        what: 'The list of entries is broken or does not end',
        done: 'every sound entry was read',
      });
    }
    return items;
  }
}

/** Spans of the objects that stand directly in the outer array, found by counting braces outside strings. */
function topLevelObjects(text: string): { from: number; to: number }[] {
  const out: { from: number; to: number }[] = [];
  let depth = 0;
  let from = -1;
  const token = /["{}]/g;
  for (let m = token.exec(text); m; m = token.exec(text)) {
    if (m[0] === '"') {
      const end = endOfString(text, m.index);
      if (end < 0) break;
      token.lastIndex = end;
    } else if (m[0] === '{') {
      if (depth === 0) from = m.index;
      depth += 1;
    } else if (depth > 0) {
      depth -= 1;
      if (depth === 0) out.push({ from, to: m.index + 1 });
    }
  }
  if (depth > 0 && from >= 0) out.push({ from, to: text.length });
  return out;
}

function endOfString(text: string, start: number): number {
  for (let i = text.indexOf('"', start + 1); i >= 0; i = text.indexOf('"', i + 1)) {
    let slashes = 0;
    while (text[i - 1 - slashes] === '\\') slashes += 1;
    if (slashes % 2 === 0) return i + 1;
  }
  return -1;
}

/** A record as one CSL-JSON item: fields kept from a CSL-JSON file stand where they stood. */
export function toCslItem(source: { record: SourceRecord; subjects: string[] }, id: string): Record<string, unknown> {
  const { custom, ...fields } = source.record;
  const { 'csl-json': kept, ...others } = (custom ?? {}) as Record<string, unknown>;
  const keyword = source.subjects.join('; ');
  const plain = same(splitKeywords(keyword), source.subjects);
  const rest = { ...others, ...(plain ? {} : { subjects: source.subjects }) };
  return {
    id,
    ...fields,
    ...(isObject(kept) ? kept : {}),
    ...(keyword ? { keyword } : {}),
    ...(Object.keys(rest).length ? { custom: rest } : {}),
  };
}

/** Writes an array of items; ids are the citation keys where there are any, else the place in the list. */
export function writeCslJson(sources: { record: SourceRecord; subjects: string[] }[]): string {
  const items = sources.map((s, i) => {
    const item = toCslItem(s, s.record['citation-key'] ?? `source-${i + 1}`);
    return JSON.stringify(item, null, 2).replace(/^/gm, '  ');
  });
  return items.length ? `[\n${items.join(',\n')}\n]\n` : '[]\n';
}
