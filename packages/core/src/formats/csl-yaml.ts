/**
 * CSL's items in YAML 1.2, as Markdown documents carry them: a list, or one under `references`. Each item is parsed by itself:
 * a broken one costs no other. All values are read as text: no volume "1.10" becomes 1.1, and no country NO a falsehood.
 */
import { parse, stringify } from 'yaml';
import { isObject } from '../source/index.ts';
import { soundValue } from '../text/index.ts';
import { readItem, toCslItem } from './csl-json.ts';
import { applyRemainder, remainderOf } from './remainder.ts';
import { EMPTY, itemOf, type Item, type Message, type Writable } from './message.ts';

export function* eachCslYaml(text: string): Generator<Item, void> {
  let some = false;
  for (const { body, line } of itemsOf(text)) {
    some = true;
    const place = { line, column: 1 };
    let value: unknown;
    let wrong = 'An entry is not a list of fields';
    try {
      // Few aliases: a short file may not stand for a huge one.
      [value] = parse(body, { schema: 'failsafe', maxAliasCount: 50, logLevel: 'error' }) as unknown[];
    } catch (error) {
      wrong = `An entry is not sound YAML: ${(error as Error).message.split('\n')[0]}`;
    }
    if (!isObject(value)) {
      yield {
        message: {
          severity: 'error',
          rule: 'broken-entry',
          ...place,
          what: wrong,
          done: 'left out; the others were read',
        },
      };
      continue;
    }
    const messages: Message[] = [];
    const { [REMAINDER]: rest, ...item } = value;
    yield itemOf(line, () => {
      const source = readItem(numbered(soundValue(body, item)) as Record<string, unknown>, place, messages);
      if (typeof rest === 'string') applyRemainder(source, rest);
      return source;
    });
    for (const message of messages) yield { message };
  }
  if (!some) yield { message: EMPTY };
}

/** The items of the list: each begins with the hyphen of the first, at its depth. */
function* itemsOf(text: string): Generator<{ body: string; line: number }, void> {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  const first = lines.findIndex((l) => /^ *- +\S/.test(l) && !/^---/.test(l));
  if (first < 0) return;
  const depth = lines[first]!.indexOf('-');
  let body: string[] = [];
  let began = first + 1;
  for (let i = first; i < lines.length; i += 1) {
    const l = lines[i]!;
    const indent = l.search(/\S/);
    const begins = indent === depth && /^ *-(?: |$)/.test(l);
    // Anything less deep ends the list: "...", "---", another field.
    if (indent >= 0 && !begins && indent <= depth && !l.startsWith('#')) break;
    if (begins && body.length) {
      yield { body: body.join('\n'), line: began };
      body = [];
      began = i + 1;
    }
    body.push(l);
  }
  if (body.length) yield { body: body.join('\n'), line: began };
}

/** Numbers where CSL has numbers: in dates; what is held beside the variables says what it is. */
function numbered(value: unknown, inDate = false): unknown {
  if (Array.isArray(value)) return value.map((v) => numbered(v, inDate));
  if (typeof value === 'string') return inDate && /^-?\d{1,15}$/.test(value) ? Number(value) : value;
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([k, v]) => {
      if (k === 'custom-json' && typeof v === 'string') return ['custom', jsonOf(v)];
      if (k === 'circa') return [k, v === 'true' || v === '1' ? true : v];
      return [k, numbered(v, k === 'date-parts' || k === 'season')];
    }),
  );
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return { text };
  }
}

/** The field of our own, which CSL's items do not have. */
const REMAINDER = 'remainder-json';
const print = (item: Record<string, unknown>): string =>
  stringify([item], { lineWidth: 0, defaultStringType: 'QUOTE_DOUBLE', defaultKeyType: 'PLAIN' });

export function* eachCslYamlItem(sources: Writable): Generator<string, void> {
  yield '---\nreferences:\n';
  let count = 0;
  for (const s of sources) {
    count += 1;
    const { custom, ...item } = toCslItem(s, s.record['citation-key'] ?? `source-${count}`);
    // JSON keeps the numbers and lists in it apart from text.
    const whole = custom ? { ...item, 'custom-json': JSON.stringify(custom) } : item;
    const plain = print(whole);
    // What reading would put elsewhere, such as an identifier in a field of another name, stands beside.
    const [back] = eachCslYaml(plain);
    const remainder = remainderOf(s, back?.source);
    yield remainder ? print({ ...whole, [REMAINDER]: JSON.stringify(remainder) }) : plain;
  }
  yield count ? '...\n' : '[]\n...\n';
}
