/** What the workers do: computation that would hold up the server's own thread. Runs in a thread of its own. */
import { readlinkSync } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { MessagePort } from 'node:worker_threads';
import { workerData } from 'piscina';
import { type Citable, type FormattedBibliography, htmlToText, type StyleInfo } from '@pandecta/core/citing';
import {
  decodeText,
  eachWritten,
  knownAs,
  readSources,
  type ExportFormat,
  type Columns,
  type Entry,
  type ReadResult,
  type TextFormat,
} from '@pandecta/core/formats';
import {
  flowOf,
  PROTOCOLS,
  readListing as readWorks,
  type Flow,
  type FoundRecord,
  type Harvested,
  type ListingKind,
  type OutsideAnswer,
  type ProtocolName,
} from '@pandecta/core/catalogues';
import { MOST_TYPED, takeApart as takeTextApart, type DoorPart } from '@pandecta/core/door';
import {
  paragraphsOf,
  recognise as recogniseWork,
  runningLines,
  unpackWords,
  type Embedded,
  type Page,
  type Paragraph,
  type Recognised,
} from '@pandecta/core/documents';
import { OFFICE, officeFormat, officeToHtml, readOffice, textToHtml } from '@pandecta/core/office';
import {
  isPage,
  readPage as readWebPage,
  savedFrom,
  snapshotOf,
  tooDeep,
  type ReadPage,
  type Snapshot,
} from '@pandecta/core/pages';
import {
  listedReferences,
  readReference as readPrinted,
  type ListedReference,
  type ReadReference,
} from '@pandecta/core/references';
import { writeMarks as writeMarkFile, type ExportedMark, type MarkFormat } from '@pandecta/core/mark-export';
import { writeNotes as writeNoteFile, type ExportedNote, type NoteFileFormat } from '@pandecta/core/note-export';
import { checkQuotation, type Checked, type CheckedPage } from '@pandecta/core/notes';
import type { CiteItem } from '@pandecta/core/source';
import { isRdf, readSkos, readVocabularyTable, type ReadVocabulary } from '@pandecta/core/vocabulary';
import { Lexemes } from '@pandecta/core/words';
import { styleHeads } from '@pandecta/debian/styles';
import { docxOfMarks } from './printing.ts';
import { citerOf } from './citers.ts';
import { awaitHeard, pullRecords } from './records.ts';
import { vectorsOf, type TextParts, type Vectors } from '../database/lexemes.ts';

// A thread has a priority of its own under Linux, by its number (setpriority(2), notes): what answers everybody comes first.
try {
  setPriority(
    Number(/\d+$/.exec(readlinkSync('/proc/thread-self'))![0]),
    (workerData as { niceness: number }).niceness,
  );
} catch {
  // Elsewhere all are alike.
}

export interface CiteTask {
  folder: string;
  style: string;
  /** The language to write in; the style's own when not given. */
  locale?: string | undefined;
  sources: Citable[];
  inText?: boolean;
  items?: CiteItem[] | undefined;
}

export interface CiteResult extends FormattedBibliography {
  citationHtml?: string;
  citationText?: string;
}

/** The heads of all styles, some ten thousand small files. */
export const styles = (folder: string): StyleInfo[] => styleHeads(folder);

/** Formats sources in a style; the processor of a style is kept for the next time. */
export function cite({ folder, style, locale, sources, inText, items }: CiteTask): CiteResult {
  const citer = citerOf(folder, style, locale);
  const bibliography = citer.bibliography(sources);
  if (!inText) return bibliography;
  const unprinted = new Set(bibliography.unprinted);
  const printed = sources.filter((s) => !unprinted.has(s.id));
  const citationHtml = printed.length ? citer.citation(printed, items) : '';
  return { ...bibliography, citationHtml, citationText: htmlToText(citationHtml) };
}

/** In bytes: longer texts are kept as they are, and not shown. */
const LARGEST_READABLE = 20 * 1024 ** 2;

/** What a file holds: records of a format, or parts to be looked up and read, or a page; else what it is known as. */
export type Parsed =
  | (ReadResult & { format: TextFormat; encoding: string })
  | { parts: DoorPart[]; otherNotes: number; as: string }
  | { known?: string; page?: ReadPage; html?: string };

/** Reads a file of references, @param columns what its columns are, of a table */
export function parse({ bytes, columns }: { bytes: Uint8Array; columns?: Columns | undefined }): Parsed {
  const office = officeFormat(bytes);
  if (office) {
    try {
      return { ...readOffice(bytes, office), as: OFFICE[office] };
    } catch (error) {
      return { known: `${OFFICE[office]} that is damaged (${(error as Error).message})` };
    }
  }
  const { text, encoding } = decodeText(bytes);
  const result = readSources(text, columns);
  if (result) return { ...result, encoding };
  const known = knownAs(bytes, text);
  if (isPage(text))
    return { page: readPage({ html: text, address: savedFrom(text) }), html: text, ...(known && { known }) };
  if (known || text.length > MOST_TYPED) return known ? { known } : {};
  // A plain list of references or identifiers, when it holds any.
  const parts = takeTextApart(text);
  return parts.some((p) => p.kind !== 'text') ? { parts, otherNotes: 0, as: 'a list' } : {};
}

/** In bytes of UTF-16 text; smaller parts cost more to send than to write. */
const CHUNK = 64 * 1024;

/** Sources that come by the port, in a format; the text goes back by it as bytes, part after part. */
export function write({ port, format }: { port: MessagePort; format: ExportFormat }): void {
  const encoder = new TextEncoder();
  let text = '';
  const send = (): void => {
    const bytes = encoder.encode(text);
    port.postMessage(bytes, [bytes.buffer]);
    text = '';
  };
  for (const part of eachWritten(pullRecords<Entry>(port), format)) {
    text += part;
    if (text.length >= CHUNK) send();
  }
  send();
  awaitHeard(port);
}

/**
 * A PDF whose end is missing, written anew from the objects that are whole; nothing when its pages are not among them.
 * The table that says where its objects are stands at its end (ISO 32000-1, 7.5.4).
 */
export async function rebuild(bytes: Uint8Array): Promise<Uint8Array | undefined> {
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  try {
    const document = await PDFDocument.load(bytes, { throwOnInvalidObject: false, updateMetadata: false });
    return document.getPageCount() ? await document.save({ useObjectStreams: false }) : undefined;
  } catch {
    return undefined;
  }
}

/** Pages as paragraphs; all of them together say what stands at their heads and feet. */
export function paragraphs(
  pages: { number: number; text: string; words: Uint8Array; height: number }[],
): { page: number; paragraphs: Paragraph[] }[] {
  const read = pages.map((p) => ({ ...p, words: unpackWords(p.words) }));
  const running = runningLines(read);
  return read.map((p) => ({ page: p.number, paragraphs: paragraphsOf(p, running) }));
}

/** Notes as a file. */
export const writeNotes = ({ notes, format }: { notes: ExportedNote[]; format: NoteFileFormat }): Uint8Array =>
  writeNoteFile(notes, format);

/** Quotations against the pages of their document. */
export const checkQuotations = ({
  asked,
  pages,
}: {
  asked: { words: string; page: number }[];
  pages: CheckedPage[];
}): Checked[] => asked.map(({ words, page }) => checkQuotation(words, pages, page));

/** Marks as a file. */
export const writeMarks = async ({
  marks,
  format,
}: {
  marks: ExportedMark[];
  format: MarkFormat;
}): Promise<Uint8Array> =>
  format === 'docx' ? docxOfMarks(marks) : new TextEncoder().encode(writeMarkFile(marks, format));

/** The pages of a PDF, counted from 1, as a PDF of their own. @throws Error where it cannot be opened */
export async function cutPages({ path, pages }: { path: string; pages: number[] }): Promise<Uint8Array> {
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  const whole = await PDFDocument.load(await readFile(path), { updateMetadata: false });
  const part = await PDFDocument.create();
  const copied = await part.copyPages(
    whole,
    pages.map((page) => page - 1),
  );
  for (const page of copied) part.addPage(page);
  return part.save();
}

export { numbersInText, pdfInside } from './pdf-inside.ts';
export { annotated } from './annotations.ts';
export { anchored } from './anchoring.ts';

/** Text vectors of sources, in the text form PostgreSQL casts. */
export function vectors(parts: TextParts[]): Vectors[] {
  return parts.map(vectorsOf);
}

/** What work a document holds, from its first pages and what it says of itself. */
export function recognise({ front, embedded, name }: { front: Page[]; embedded: Embedded; name: string }): Recognised {
  return recogniseWork(front, embedded, name);
}

/** What is typed or pasted, taken apart. */
export const takeApart = (text: string): DoorPart[] => takeTextApart(text);

/** What an outside catalogue answered. @throws Error where it is none of the protocol */
export const readAnswer = ({ protocol, text }: { protocol: ProtocolName; text: string }): OutsideAnswer =>
  PROTOCOLS[protocol].read(text);

/** The works a feed, a page or a repository lists. @throws Error where it is none of the kind */
export function readListing({ kind, text, address }: { kind: ListingKind; text: string; address: string }): Harvested {
  if (kind === 'page' && tooDeep(text)) throw new Error('its elements nest deeper than those of any page');
  return readWorks(kind, text, address);
}

/** A printed reference as a record, with the stretches it was read from. */
export const readReference = (text: string): ReadReference => readPrinted(text);

/** A vocabulary that came from elsewhere. @throws Error where it is none */
export const readVocabulary = async (text: string): Promise<ReadVocabulary> =>
  isRdf(text) ? readSkos(text) : readVocabularyTable(text);

/** The references a document lists at its end. */
export const readList = (pages: string[]): ListedReference[] => listedReferences(pages);

/** What a page of the web says of itself; nothing of one that is made to break its reader. */
export function readPage({ html, address }: { html: string; address: string }): ReadPage {
  return readWebPage(tooDeep(html) ? '' : html, address);
}

/** What is kept of a page; nothing of one that is made to break its reader. */
export function keepPage({
  html,
  address,
  from,
  lead,
}: {
  html: string;
  address: string;
  from: string;
  lead: string;
}): (Snapshot & { vector: string }) | undefined {
  if (tooDeep(html)) return undefined;
  const snapshot = snapshotOf(html, address, from);
  const words = new Lexemes();
  words.add(lead, snapshot.text);
  return { ...snapshot, vector: words.toString() };
}

/** A document that is no PDF as a page that is kept; nothing of what is no text. @param from a sentence that says what it was made of */
export async function keepReadable({
  path,
  from,
  lead,
}: {
  path: string;
  from: string;
  lead: string;
}): Promise<(Snapshot & { vector: string }) | undefined> {
  if ((await stat(path)).size > LARGEST_READABLE) return undefined;
  const bytes = await readFile(path);
  const office = officeFormat(bytes);
  if (office) return keepPage({ html: officeToHtml(bytes, office), address: '', from, lead });
  if (bytes.subarray(0, 4096).includes(0)) return undefined;
  const { text } = decodeText(bytes);
  return keepPage({ html: isPage(text) ? text : textToHtml(text), address: '', from, lead });
}

/** Where what was gathered is now, in the words of the flow. */
const FATE_OF = { live: 'taken in', none: 'joined', intake: 'waiting', aside: 'set aside', bin: 'set aside' } as const;
type FoundHit = [catalogue: string, accession: string, work: number, presence: keyof typeof FATE_OF | null];

/** What became of what was found. @param found the hits of each search, as JSON: `FoundHit[]` */
export function flow({ found, matched }: { found: { search: string; hits: string }[]; matched: number }): Flow {
  const records = found.flatMap(({ search, hits }) =>
    (JSON.parse(hits) as FoundHit[]).map(([catalogue, accession, work, presence]): FoundRecord => {
      const fate = presence ? { fate: FATE_OF[presence] } : {};
      return { search, catalogue, accession, work, ...fate };
    }),
  );
  return flowOf(records, matched);
}

export { compareAll, findDuplicates, fold, keysToMeet, weighPairs } from './matching.ts';
export { altered } from './altering.ts';
export { printed } from './printing.ts';
export { casesOf, proofAll, proofOne } from './proofing.ts';
export { picturePages, upright } from './upright.ts';
export { hocr, proposals } from './scans.ts';
export { readPages } from './read-pages.ts';
export { columns } from './columns.ts';
