/** Reads what a command is given, entry by entry, and tells what was wrong with it as it comes. */
import {
  decodeText,
  detectFormat,
  eachJatsReference,
  eachSource,
  knownAs,
  READ_NAMES,
  type Item,
  type Message,
  type ReadSource,
} from '@pandecta/core/formats';
import { readInput, Usage, type Io } from './io.ts';

const HOW = ['text', 'json'] as const;
/** What a text may be said to be where its content does not tell: a list of printed references. */
const FROM = ['references'] as const;

export function oneOf<T extends string>(
  name: string,
  value: string | undefined,
  among: readonly T[],
  otherwise?: T,
): T {
  if (value === undefined && otherwise) return otherwise;
  if (!value || !among.includes(value as T))
    throw new Usage(`--${name} takes one of ${among.join(', ')}${value ? `, not “${value}”` : ''}`);
  return value as T;
}

/** What is read, entry by entry: each message is told as it comes. */
export interface Read {
  sources: Iterable<ReadSource>;
  tell(messages: Message[]): void;
}

/** Begins to read the input; nothing when it holds no entry. */
export async function read(
  positionals: string[],
  options: Record<string, string | undefined>,
  io: Io,
): Promise<Read | undefined> {
  const how = oneOf('messages', options.messages, HOW, 'text');
  const from = options.from && oneOf('from', options.from, FROM);
  const { name, items, known } = await readItems(positionals, from === 'references');
  const tell = (messages: Message[]): void => messages.forEach((m) => io.err(inWords(m, name, how)));
  if (!items) {
    tell([notRead(known)]);
    return undefined;
  }
  const each = sourcesOf(items, tell);
  const first = each.next();
  return first.done ? undefined : { sources: startingWith(first.value, each), tell };
}

/** The bytes are let go before the first entry is read: of a large file only its text stays. */
async function readItems(
  positionals: string[],
  printed = false,
): Promise<{ name: string; items: Iterable<Item> | undefined; known?: string | undefined }> {
  const { name, bytes } = await readInput(positionals);
  const document = await documentOf(bytes);
  if (document) return { name, items: document };
  const { text } = decodeText(bytes);
  const items = printed ? await referencesOf(text) : (eachSource(text) ?? (await pageOf(text)));
  return items ? { name, items } : { name, items, known: knownAs(bytes, text) };
}

/** The references in the lists and notes of a word processor's document. */
async function documentOf(bytes: Uint8Array): Promise<Iterable<Item> | undefined> {
  const { officeFormat, readOffice } = await import('@pandecta/core/office');
  const format = officeFormat(bytes);
  if (!format) return undefined;
  const { eachReference } = await import('@pandecta/core/references');
  const references = readOffice(bytes, format).parts.filter((p) => p.kind === 'reference');
  return references.length ? eachReference(references.map((p) => p.text).join('\n\n')) : [{ message: NO_REFERENCES }];
}

const NO_REFERENCES: Message = {
  severity: 'error',
  rule: 'no-references',
  line: 0,
  column: 0,
  what: 'The document has no reference in its lists and notes',
  done: 'nothing was read',
};

/** The entries of a printed list, or those of the list an article in JATS has. */
const referencesOf = async (text: string): Promise<Iterable<Item>> =>
  detectFormat(text) === 'jats'
    ? eachJatsReference(text)
    : (await import('@pandecta/core/references')).eachReference(text);

async function pageOf(text: string): Promise<Iterable<Item> | undefined> {
  if (!/<(?:!doctype html|html)\b/i.test(text.slice(0, 4000))) return undefined;
  const { eachOfPage, isPage } = await import('@pandecta/core/pages');
  return isPage(text) ? eachOfPage(text, '') : undefined;
}

function* sourcesOf(items: Iterable<Item>, tell: (messages: Message[]) => void): Generator<ReadSource, void> {
  for (const { source, message } of items) {
    if (source) yield source;
    else tell([message]);
  }
}

function* startingWith(first: ReadSource, others: Iterable<ReadSource>): Generator<ReadSource, void> {
  yield first;
  yield* others;
}

const notRead = (known: string | undefined): Message => ({
  severity: 'error',
  rule: 'not-read',
  line: 0,
  column: 0,
  what: known ? `The file is ${known}, which is not read` : `The content is none of ${READ_NAMES} or a page of the web`,
  done: 'nothing was read',
});

const inWords = (m: Message, file: string, how: (typeof HOW)[number]): string =>
  how === 'json'
    ? `${JSON.stringify({ file, ...m })}\n`
    : `${file}:${m.line}:${m.column}: ${m.severity}: ${m.what}; ${m.done} (${m.rule})\n`;
