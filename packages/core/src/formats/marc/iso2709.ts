/**
 * MARC in ISO 2709. Fields are told apart by their terminators and named by the directory in its order, not by the lengths
 * it gives: these count bytes, and are wrong in files that went through another encoding.
 */
import type { Item, Writable } from '../message.ts';
import { EMPTY, itemOf, Lines } from '../message.ts';
import { isControl, type MarcField, type MarcRecord } from './fields.ts';
import { readMarc } from './read.ts';
import { marcOf } from './write.ts';

const FIELD = '\u001e';
const RECORD = '\u001d';
const SUBFIELD = '\u001f';

export function* eachIso2709(text: string): Generator<Item, void> {
  const lines = new Lines(text);
  let some = false;
  for (let at = 0; at < text.length;) {
    const end = text.indexOf(RECORD, at);
    const body = text.slice(at, end < 0 ? text.length : end);
    const start = at + /^[\s\uFEFF]*/.exec(body)![0].length;
    at = end < 0 ? text.length : end + 1;
    if (!body.trim()) continue;
    some = true;
    const { line } = lines.at(start);
    const record = recordOf(body.replace(/^[\s\uFEFF]+/, ''), line);
    if (record && end >= 0) yield itemOf(line, () => readMarc(record));
    else
      yield {
        message: {
          severity: 'error',
          rule: 'broken-entry',
          ...lines.at(start),
          what: end < 0 ? 'A record breaks off before its end' : 'A record has no leader and directory of MARC',
          done: 'left out; the others were read',
        },
      };
  }
  if (!some) yield { message: EMPTY };
}

function recordOf(body: string, line: number): MarcRecord | undefined {
  const [head = '', ...values] = body.split(FIELD);
  const directory = head.slice(24);
  if (head.length < 24 || directory.length % 12 || !/^\d{5}/.test(head)) return undefined;
  const tags = directory.match(/.{12}/gs)?.map((entry) => entry.slice(0, 3)) ?? [];
  return {
    leader: head.slice(0, 24),
    line,
    fields: tags.flatMap((tag, i): MarcField[] => {
      const value = values[i];
      if (value === undefined) return [];
      if (isControl(tag)) return [{ tag, value }];
      const [indicators = '  ', ...subfields] = value.split(SUBFIELD);
      return [{ tag, indicators: indicators.padEnd(2), subfields: subfields.map((s) => [s.slice(0, 1), s.slice(1)]) }];
    }),
  };
}

export function* eachIso2709Entry(sources: Writable): Generator<string, void> {
  for (const s of sources) yield iso2709Of(marcOf(s));
}

const bytesOf = (text: string): number => new TextEncoder().encode(text).length;
const LONGEST_FIELD = 9999;

/** Lengths are of bytes in UTF-8; five digits hold a record's, four a field's: what is longer is cut into several. */
function iso2709Of({ leader, fields }: MarcRecord): string {
  let directory = '';
  let body = '';
  let at = 0;
  for (const f of fields) {
    const value = f.value ?? `${f.indicators}${f.subfields!.map(([c, v]) => `${SUBFIELD}${c}${v}`).join('')}`;
    const bytes = bytesOf(value) + 1;
    // Beyond what the directory can say, readers go by the terminators, as the one above.
    directory += `${f.tag}${String(Math.min(bytes, LONGEST_FIELD)).padStart(4, '0')}${String(Math.min(at, 99_999)).padStart(5, '0')}`;
    body += `${value}${FIELD}`;
    at += bytes;
  }
  const base = 24 + directory.length + 1;
  const length = Math.min(base + at + 1, 99_999);
  const head = `${String(length).padStart(5, '0')}${leader.slice(5, 12)}${String(base).padStart(5, '0')}${leader.slice(17)}`;
  return `${head}${directory}${FIELD}${body}${RECORD}`;
}
