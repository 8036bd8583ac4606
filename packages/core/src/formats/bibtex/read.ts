/** BibTeX and BibLaTeX to records. */
import { readMacros, type Macros } from '../latex/index.ts';
import { collect, EMPTY, itemOf, Lines, type Item, type Message, type ReadResult } from '../message.ts';
import { readEntry, type Context } from './entry.ts';
import { tokenize, type RawEntry } from './tokens.ts';

export const readBibtex = (text: string): ReadResult => collect(eachBibtex(text));

/** The entries and messages of a file as they are read. Only those entries others refer to are held. */
export function* eachBibtex(text: string): Generator<Item, void> {
  const lines = new Lines(text);
  const messages: Message[] = [];
  const macros: Macros = new Map();
  const context: Context = { byKey: referredTo(text), macros, lines, messages, entriesRead: new WeakSet() };
  const keys = new Set<string>();
  let some = false;
  const beside = {
    trouble: ({ offset, ...t }: { offset: number } & Omit<Message, 'line' | 'column'>): void =>
      void messages.push({ ...t, ...lines.at(offset) }),
    preamble: (tex: string): void => readMacros(tex, macros),
  };
  for (const raw of tokenize(text, beside)) {
    some = true;
    const key = raw.key.toLowerCase();
    if (key && keys.has(key)) {
      messages.push({
        severity: 'warning',
        rule: 'repeated-key',
        ...lines.at(raw.offset),
        what: `The key “${raw.key}” stands twice`,
        done: 'both entries were read',
      });
    } else keys.add(key);
    // Read once already, for those that refer to it.
    const held = context.byKey.get(key);
    const entry = held?.offset === raw.offset ? held : raw;
    if (entry.type !== 'xdata' && entry.type !== 'set')
      yield itemOf(lines.at(entry.offset).line, () => readEntry(entry, context));
    yield* told(messages);
  }
  some ||= messages.length > 0;
  yield* told(messages);
  if (!some) yield { message: EMPTY };
}

function* told(messages: Message[]): Generator<Item, void> {
  for (const message of messages.splice(0)) yield { message };
}

/** The entries that others of the file refer to, which may stand behind them. */
function referredTo(text: string): Map<string, RawEntry> {
  const wanted = new Set<string>();
  for (const m of text.matchAll(/\b(?:crossref|xdata)\s*=\s*(?:[{"]([^{}"]*)|([^\s,{}"]+))/gi))
    for (const key of (m[1] ?? m[2]!).split(',')) wanted.add(key.trim().toLowerCase());
  const found = new Map<string, RawEntry>();
  if (!wanted.size) return found;
  for (const entry of tokenize(text, { trouble: () => {}, preamble: () => {} })) {
    const key = entry.key.toLowerCase();
    if (wanted.has(key) && !found.has(key)) found.set(key, entry);
  }
  return found;
}
