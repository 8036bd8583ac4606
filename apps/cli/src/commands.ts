/** The commands. Each returns its exit code. What is heavy is loaded by the command that needs it. */
import type { ParseArgsConfig } from 'node:util';
import {
  eachWritten,
  EXPORT_FORMATS,
  writeSources,
  type ExportFormat,
  type Message,
  type ReadSource,
} from '@pandecta/core/formats';
import { AUTHOR_FORMS, LOCATOR_KINDS } from '@pandecta/core/source';
import { htmlToText } from '@pandecta/core/citing';
import { match, proof } from './check.ts';
import { readInput, Usage, type Io } from './io.ts';
import { oneOf, read } from './reading.ts';
import { citerFor } from './style.ts';

interface Command {
  options: NonNullable<ParseArgsConfig['options']>;
  run(positionals: string[], options: Record<string, string | undefined>, io: Io): Promise<number>;
}

const text = { type: 'string' } as const;

export const COMMANDS: Record<string, Command> = {
  convert: { options: { from: text, to: text, messages: text }, run: convert },
  bibliography: { options: { style: text, format: text, locale: text, messages: text }, run: bibliography },
  cite: {
    options: {
      style: text,
      format: text,
      locale: text,
      messages: text,
      key: text,
      locator: text,
      label: text,
      before: text,
      after: text,
      author: text,
    },
    run: cite,
  },
  match: { options: { out: text, messages: text }, run: match },
  proof: { options: { style: text, mend: { type: 'boolean' }, to: text, messages: text, locale: text }, run: proof },
  text: { options: {}, run: documentText },
  identify: { options: {}, run: identify },
  styles: { options: {}, run: styles },
};

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
  const citer = await citerFor(options.style, options.locale);
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

/** One citation as it stands in the text or a note: of the source with a key, or of all there are. */
async function cite(positionals: string[], options: Record<string, string | undefined>, io: Io): Promise<number> {
  const format = oneOf('format', options.format, ['text', 'html'] as const, 'text');
  if (!options.style) throw new Usage('--style takes the name of a style, as `styles` lists them');
  const author = oneOf('author', options.author, AUTHOR_FORMS, 'as usual');
  const label = oneOf('label', options.label, LOCATOR_KINDS, 'page');
  const { key, locator, before, after } = options;
  const citer = await citerFor(options.style, options.locale);
  const result = await read(positionals, options, io);
  if (!result) return 1;
  const sources = [...result.sources]
    .filter((s) => key === undefined || s.record['citation-key'] === key)
    .map((s, i) => ({ id: String(i), record: s.record }));
  if (!sources.length) throw new Usage(`No record has the key “${key ?? ''}”`);
  const said = { label, author, ...(locator && { locator }), ...(before && { before }), ...(after && { after }) };
  const html = citer.citation(sources, [{ id: '0', ...said }]);
  if (!html) io.err(`The style “${options.style}” prints nothing for it\n`);
  else io.out(`${format === 'html' ? html : htmlToText(html)}\n`);
  return html ? 0 : 1;
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
