/** The commands. Each returns its exit code. What is heavy is loaded by the command that needs it. */
import type { ParseArgsConfig } from 'node:util';
import {
  decodeText,
  detectFormat,
  eachJatsReference,
  eachSource,
  eachWritten,
  EXPORT_FORMATS,
  knownAs,
  READ_NAMES,
  writeSources,
  type ExportFormat,
  type Item,
  type Message,
  type ReadSource,
} from '@pandecta/core/formats';
import { readInput, Usage, type Io } from './io.ts';

interface Command {
  options: NonNullable<ParseArgsConfig['options']>;
  run(positionals: string[], options: Record<string, string | undefined>, io: Io): Promise<number>;
}

const HOW = ['text', 'json'] as const;
/** What a text may be said to be where its content does not tell: a list of printed references. */
const FROM = ['references'] as const;
const text = { type: 'string' } as const;

export const COMMANDS: Record<string, Command> = {
  convert: { options: { from: text, to: text, messages: text }, run: convert },
  bibliography: { options: { style: text, format: text, locale: text, messages: text }, run: bibliography },
  text: { options: {}, run: documentText },
  identify: { options: {}, run: identify },
  styles: { options: {}, run: styles },
};

function oneOf<T extends string>(name: string, value: string | undefined, among: readonly T[], otherwise?: T): T {
  if (value === undefined && otherwise) return otherwise;
  if (!value || !among.includes(value as T))
    throw new Usage(`--${name} takes one of ${among.join(', ')}${value ? `, not “${value}”` : ''}`);
  return value as T;
}

/** What is read, entry by entry: each message is told as it comes. */
interface Read {
  sources: Iterable<ReadSource>;
  tell(messages: Message[]): void;
}

/** Begins to read the input; nothing when it holds no entry. */
async function read(
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

/** Characters that are written at once. */
const AT_ONCE = 65_536;

async function convert(positionals: string[], options: Record<string, string | undefined>, io: Io): Promise<number> {
  const to = oneOf<ExportFormat>('to', options.to, EXPORT_FORMATS);
  const result = await read(positionals, options, io);
  if (!result) return 1;
  let waiting = '';
  for (const part of eachWritten(result.sources, to)) {
    waiting += part;
    if (waiting.length < AT_ONCE) continue;
    io.out(waiting);
    waiting = '';
  }
  io.out(waiting);
  return 0;
}

async function bibliography(
  positionals: string[],
  options: Record<string, string | undefined>,
  io: Io,
): Promise<number> {
  const format = oneOf('format', options.format, ['text', 'html'] as const, 'text');
  if (!options.style) throw new Usage('--style takes the name of a style, as `styles` lists them');
  const { Citer } = await import('@pandecta/core/citing');
  const { localeXml, styleRules, STYLES_FOLDER } = await import('@pandecta/debian/styles');
  const { xml, language } = styleRules(STYLES_FOLDER, options.style);
  const citer = new Citer(xml, (l) => localeXml(STYLES_FOLDER, l), options.locale ?? language);
  const result = await read(positionals, options, io);
  if (!result) return 1;
  const sources = [...result.sources];
  const { entries, unprinted } = citer.bibliography(sources.map((s, i) => ({ id: String(i), record: s.record })));
  result.tell(unprinted.map((id) => notPrinted(sources[Number(id)]!, options.style!)));
  io.out(
    format === 'html'
      ? `<div class="bibliography">\n${entries.map((e) => `<p>${e.html}</p>\n`).join('')}</div>\n`
      : entries.map((e) => `${e.text}\n`).join(''),
  );
  return 0;
}

function notPrinted(source: ReadSource, style: string): Message {
  return {
    severity: 'warning',
    rule: 'not-printed',
    line: source.line,
    column: 1,
    what: `The style “${style}” prints nothing for “${source.record['citation-key'] ?? source.record.title ?? ''}”`,
    done: 'left out',
  };
}

function pdfPath(positionals: string[]): string {
  if (positionals.length !== 1) throw new Usage('One PDF file is needed');
  return positionals[0]!;
}

async function openPdf(path: string): Promise<
  typeof import('@pandecta/debian/poppler') & {
    info: Awaited<ReturnType<typeof import('@pandecta/debian/poppler').pdfInfo>>;
  }
> {
  await readInput([path]);
  const poppler = await import('@pandecta/debian/poppler');
  const info = await poppler.pdfInfo(path);
  if (info.state === 'encrypted') throw new Error(`${path} is locked with a password`);
  if (info.state === 'damaged') throw new Error(`${path} is damaged, or is not a PDF`);
  return { ...poppler, info };
}

async function documentText(positionals: string[], _: Record<string, string | undefined>, io: Io): Promise<number> {
  const path = pdfPath(positionals);
  const { pdfPages } = await openPdf(path);
  let any = false;
  for await (const page of pdfPages(path)) {
    io.out(`${page.text}\n\f`);
    any ||= page.text.trim() !== '';
  }
  if (!any) io.err(`${path}: error: the pages hold no text\n`);
  return any ? 0 : 1;
}

async function identify(positionals: string[], _: Record<string, string | undefined>, io: Io): Promise<number> {
  const path = pdfPath(positionals);
  const { pdfPages, info } = await openPdf(path);
  const { recognise } = await import('@pandecta/core/documents');
  const front = [];
  for await (const page of pdfPages(path)) if (front.push(page) >= 3) break;
  const { record, subjects, provenance } = recognise(front, info.embedded, path.split('/').at(-1)!);
  io.out(writeSources([{ record, subjects }], 'csl-json'));
  for (const [field, p] of Object.entries(provenance))
    io.err(`${field}: from ${p.from}, ${Math.round(p.sure * 100)} % sure\n`);
  return 0;
}

async function styles(positionals: string[], _: Record<string, string | undefined>, io: Io): Promise<number> {
  const { Styles, STYLES_FOLDER } = await import('@pandecta/debian/styles');
  const found = await new Styles(STYLES_FOLDER).list(positionals.join(' '));
  for (const s of found) io.out(`${s.id}\t${s.manner}\t${s.title}\n`);
  return found.length ? 0 : 1;
}
