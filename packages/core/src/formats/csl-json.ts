/** CSL-JSON after the CSL 1.0.2 data schema: an array of items, or one item. Fields it does not know are kept. */
import {
  isDateVariable,
  isFieldValue,
  isKind,
  isNameVariable,
  isObject,
  isTextVariable,
  isVariable,
  parseDate,
  parseName,
  same,
  type SourceRecord,
} from '../source/index.ts';
import { DEEPEST, jsonWithoutNul, soundValue } from '../text/index.ts';
import { settleIdentifiers } from './identifiers.ts';
import { splitKeywords } from './keywords.ts';
import {
  collect,
  EMPTY,
  itemOf,
  Lines,
  type Entry,
  type Item,
  type Message,
  type ReadResult,
  type ReadSource,
  type Writable,
} from './message.ts';

export const readCslJson = (text: string): ReadResult => collect(eachCslJson(text));

/** The items and messages of a file as they are read, each parsed by itself: a broken one costs no other. */
export function* eachCslJson(text: string): Generator<Item, void> {
  const lines = new Lines(text);
  const body = jsonWithoutNul(text.replace(/^\uFEFF/, ' '));
  const start = listStart(body);
  let some = false;
  const scan = new Scan(body, start);
  for (let item = scan.next(); item; item = scan.next()) {
    some = true;
    const place = lines.at(item.from);
    const tell = (rule: string, what: string): Item => ({
      message: { severity: 'error', rule, ...place, what, done: 'left out; the others were read' },
    });
    if (item.scalar) yield tell('not-an-item', 'An entry is not an object');
    else if (item.depth > DEEPEST) yield tell('too-deep', `An entry is nested ${item.depth} deep`);
    else {
      const json = body.slice(item.from, item.to);
      let value: Record<string, unknown>;
      try {
        value = JSON.parse(json) as Record<string, unknown>;
      } catch (error) {
        yield tell('broken-entry', `An entry is not sound JSON: ${(error as Error).message}`);
        continue;
      }
      const messages: Message[] = [];
      yield itemOf(place.line, () => readItem(soundValue(json, value), place, messages));
      for (const message of messages) yield { message };
    }
  }
  if (!scan.ended) {
    const done = 'every sound entry was read';
    yield {
      message: {
        severity: 'warning',
        rule: 'broken-list',
        ...lines.at(body.length),
        what: 'The list of entries is broken or does not end',
        done,
      },
    };
  } else if (!some) yield { message: EMPTY };
}

/** Ids the writer makes up where a record has no citation key. */
const MADE_ID = /^source-\d+$/;
/** An id that counts or addresses the item is no key by which a text cites it. */
const NO_KEY = /^(?:\d+|10\.\d{4,9}\/.*|(?:https?|urn|info):.*|[\da-f]{8}(?:-[\da-f]{4}){3}-[\da-f]{12})$/i;

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
  let dates: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(item)) {
    if (value === null || value === undefined) continue;
    if (key === 'id') {
      const id = String(value as string | number);
      if (item['citation-key'] === undefined && !MADE_ID.test(id) && !NO_KEY.test(id)) record['citation-key'] = id;
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
      const { subjects: listed, edtf, ...custom } = value;
      for (const own of OURS)
        if (isFieldValue(own, custom[own])) {
          (record as Record<string, unknown>)[own] = custom[own];
          delete custom[own];
        }
      if (Array.isArray(listed)) subjects = listed.filter((s) => typeof s === 'string');
      if (isObject(edtf)) dates = edtf;
      if (Object.keys(custom).length) record.custom = custom;
    } else if (isFieldValue(key, value)) {
      if (value !== '') record[key] = value;
    } else {
      const mended = mend(key, value);
      if (mended !== undefined) record[key] = mended;
      else {
        if (isVariable(key)) {
          tell('wrong-shape', `The value of ${key} has the wrong shape`, 'kept aside with the record');
        }
        kept[key] = value;
      }
    }
  }
  for (const [name, text] of Object.entries(dates)) {
    const date = { ...(record[name] as object), edtf: text };
    if (isDateVariable(name) && isFieldValue(name, date)) (record as Record<string, unknown>)[name] = date;
  }
  settleIdentifiers(record);
  if (Object.keys(kept).length) {
    record.custom = { ...record.custom, 'csl-json': { ...(record.custom?.['csl-json'] as object), ...kept } };
  }
  return { record, subjects, line: place.line };
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
      // One date that is not a list in the list of dates.
      const dates: unknown[] = parts.length && !parts.some(Array.isArray) ? [parts] : parts;
      const numbers = dates.map((d) => (Array.isArray(d) ? withoutZeros(d.map(partOf)) : [NaN]));
      if (numbers.flat().some(Number.isNaN)) return undefined;
      const [year, month] = numbers[0] ?? [];
      // Seasons as months 21 to 24 (ISO 8601-2) or 13 to 16 (CSL 1.0.2).
      const season = numbers.length > 1 || !month || month <= 12 ? 0 : month > 20 ? month - 20 : month - 12;
      const mended = season ? { ...rest, 'date-parts': [[year]], season } : { ...rest, 'date-parts': numbers };
      return isFieldValue(key, mended) ? mended : undefined;
    }
    if (typeof raw === 'string') return parseDate(raw);
  }
  return undefined;
}

/** A number of a date, written as text too; of a month or day that there is none. */
function partOf(value: unknown, i: number): number {
  if (i > 0 && (value === null || value === '')) return 0;
  if (typeof value === 'string' && /^-?\d{1,15}$/.test(value.trim())) return Number(value);
  return typeof value === 'number' ? value : NaN;
}

/** A month or day of 0 says that there is none; a year of 0, that a range is open. */
function withoutZeros(parts: number[]): number[] {
  const end = parts.findIndex((n, i) => i > 0 && n === 0);
  return end < 0 ? parts : parts.slice(0, end);
}

/** Where the list of items begins: the array itself, or the array `items` of an object around it. */
function listStart(body: string): number {
  const list = /^\s*(?:\[|\{\s*"items"\s*:\s*\[)/.exec(body);
  if (list) return list[0].length;
  const around =
    /^\s*\{/.test(body) && !/^\s*\{[^{}[\]]*"(?:type|title|id)"\s*:/.test(body) && /"items"\s*:\s*\[/.exec(body);
  return around ? around.index + around[0].length : 0;
}

/** Goes through the objects of a list by their braces, whatever is in them. */
class Scan {
  /** Whether the list came to its end. */
  ended = false;
  private readonly token = /["{}[\],]|[^\s"{}[\],]+/g;
  private readonly inList: boolean;

  constructor(
    private readonly text: string,
    start: number,
  ) {
    this.token.lastIndex = start;
    this.inList = start > 0;
  }

  /** The next item: its span, and how deep it is nested; a scalar is something that is no object. */
  next(): { from: number; to: number; depth: number; scalar?: boolean } | undefined {
    if (this.ended) return undefined;
    for (let m = this.token.exec(this.text); m; m = this.token.exec(this.text)) {
      if (m[0] === '{') {
        const item = this.object(m.index);
        if (item && !this.inList) this.ended = true;
        return item;
      }
      if (m[0] === ']') {
        this.ended = true;
        return undefined;
      }
      if (m[0] === ',') continue;
      if (m[0] === '"') {
        const end = endOfString(this.text, m.index);
        if (end < 0) break;
        this.token.lastIndex = end;
      }
      return { from: m.index, to: this.token.lastIndex, depth: 0, scalar: true };
    }
    this.ended = !this.inList;
    return undefined;
  }

  private object(from: number): { from: number; to: number; depth: number } | undefined {
    let depth = 1;
    let deepest = 1;
    const token = /["{}[\]]/g;
    token.lastIndex = from + 1;
    for (let m = token.exec(this.text); m; m = token.exec(this.text)) {
      if (m[0] === '"') {
        const end = endOfString(this.text, m.index);
        if (end < 0) break;
        token.lastIndex = end;
      } else if (m[0] === '{' || m[0] === '[') {
        depth += 1;
        deepest = Math.max(deepest, depth);
      } else {
        depth -= 1;
        if (depth > 0) continue;
        this.token.lastIndex = token.lastIndex;
        return { from, to: token.lastIndex, depth: deepest };
      }
    }
    // It does not end: what is left is one broken entry.
    this.token.lastIndex = this.text.length;
    return { from, to: this.text.length, depth: deepest };
  }
}

function endOfString(text: string, start: number): number {
  for (let i = text.indexOf('"', start + 1); i >= 0; i = text.indexOf('"', i + 1)) {
    let slashes = 0;
    while (text[i - 1 - slashes] === '\\') slashes += 1;
    if (slashes % 2 === 0) return i + 1;
  }
  return -1;
}

/** Variables of ours, which stand in the field CSL leaves to programs. */
const OURS = ['access-until', 'parallel'] as const;

/** A record as one CSL-JSON item: fields kept from a CSL-JSON file stand where they stood. */
export function toCslItem(source: Entry, id: string): Record<string, unknown> {
  const { custom, 'access-until': until, parallel, ...record } = source.record;
  const { fields, edtf } = withoutEdtf(record);
  const { 'csl-json': kept, ...others } = (custom ?? {}) as Record<string, unknown>;
  const keyword = source.subjects.join('; ');
  const plain = same(splitKeywords(keyword), source.subjects);
  const rest = {
    ...others,
    ...(plain ? {} : { subjects: source.subjects }),
    ...(edtf ? { edtf } : {}),
    ...(until ? { 'access-until': until } : {}),
    ...(parallel ? { parallel } : {}),
  };
  return {
    id,
    ...fields,
    ...(isObject(kept) ? kept : {}),
    ...(keyword ? { keyword } : {}),
    ...(Object.keys(rest).length ? { custom: rest } : {}),
  };
}

/** CSL 1.0.2 dates hold no EDTF: where a date has it, it goes beside the item, by variable. */
function withoutEdtf(record: object): { fields: Record<string, unknown>; edtf?: Record<string, string> } {
  const fields: Record<string, unknown> = { ...record };
  const edtf: Record<string, string> = {};
  for (const [name, value] of Object.entries(fields)) {
    if (!isObject(value) || typeof value.edtf !== 'string') continue;
    const { edtf: text, ...date } = value;
    fields[name] = date;
    edtf[name] = text as string;
  }
  return Object.keys(edtf).length ? { fields, edtf } : { fields };
}

/** Writes an array of items; ids are the citation keys where there are any, else the place in the list. */
export function* eachCslItem(sources: Writable): Generator<string, void> {
  let count = 0;
  for (const s of sources) {
    count += 1;
    const item = toCslItem(s, s.record['citation-key'] ?? `source-${count}`);
    yield `${count > 1 ? ',' : '['}\n  ${JSON.stringify(item, null, 2).replaceAll('\n', '\n  ')}`;
  }
  yield count ? '\n]\n' : '[]\n';
}
