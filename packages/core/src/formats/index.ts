/** Reading and writing bibliographic files. A reader never throws on its input and never throws anything away. */
import { eachBibtex } from './bibtex/read.ts';
import { eachBibtexEntry } from './bibtex/write.ts';
import { eachCslItem, eachCslJson } from './csl-json.ts';
import { eachCslYaml, eachCslYamlItem } from './csl-yaml.ts';
import type { ExportFormat } from './exports.ts';
import { detectFormat, TEXT_FORMATS, type TextFormat } from './detect.ts';
import { eachDublinCore } from './dublin-core/read.ts';
import { eachDublinCoreEntry } from './dublin-core/write.ts';
import { eachJats } from './jats/read.ts';
import { eachIso2709, eachIso2709Entry } from './marc/iso2709.ts';
import { eachMarcXml, eachMarcXmlEntry } from './marc/xml.ts';
import { eachMedline } from './medline/read.ts';
import { eachMedlineEntry } from './medline/write.ts';
import { collect, eachBounded, type Item, type ReadResult, type Writable } from './message.ts';
import { eachMods } from './mods/read.ts';
import { eachModsEntry } from './mods/write.ts';
import { eachPubmed } from './pubmed/read.ts';
import { eachRis } from './ris/read.ts';
import { eachRisEntry } from './ris/write.ts';
import type { Columns } from './table/columns.ts';
import { eachRow } from './table/read.ts';
import { eachTableRow } from './table/write.ts';
import { eachTei } from './tei/read.ts';
import { eachTeiEntry } from './tei/write.ts';
import { shortBlanks } from '../text/index.ts';

export * from './message.ts';
export * from './encoding.ts';
export * from './detect.ts';
export * from './exports.ts';
export { readCslJson, readItem, toCslItem } from './csl-json.ts';
export { settleIdentifiers } from './identifiers.ts';
export { readRis } from './ris/read.ts';
export { readBibtex } from './bibtex/read.ts';
export { modsIdentifier, readMods } from './mods/read.ts';
export { modsOf } from './mods/write.ts';
export { marcIdentifier, readMarc } from './marc/read.ts';
export { marcFrom, marcXmlOf } from './marc/xml.ts';
export { dublinCoreOf } from './dublin-core/write.ts';
export { readDublinCore } from './dublin-core/read.ts';
export { eachJatsReference } from './jats/read.ts';
export { checkColumns, COLUMN_FIELDS, columnsOf, type ColumnField, type Columns } from './table/columns.ts';
export { tableOf } from './table/write.ts';
export { previewTable, type Preview } from './table/read.ts';
export { childrenOf, childOf, eachElement, escapeXml, textAt, type Element } from './xml/tree.ts';

const WRITERS: Record<ExportFormat, (sources: Writable) => Generator<string, void>> = {
  ris: eachRisEntry,
  bibtex: (sources) => eachBibtexEntry(sources, 'bibtex'),
  biblatex: (sources) => eachBibtexEntry(sources, 'biblatex'),
  'csl-json': eachCslItem,
  'csl-yaml': eachCslYamlItem,
  mods: eachModsEntry,
  marcxml: eachMarcXmlEntry,
  marc: eachIso2709Entry,
  medline: eachMedlineEntry,
  dc: eachDublinCoreEntry,
  tei: eachTeiEntry,
  csv: eachTableRow,
};

const READERS: Record<TextFormat, (text: string, columns?: Columns) => Iterable<Item>> = {
  ris: eachRis,
  bibtex: eachBibtex,
  'csl-json': eachCslJson,
  'csl-yaml': eachCslYaml,
  mods: eachMods,
  marcxml: eachMarcXml,
  marc: eachIso2709,
  medline: eachMedline,
  pubmed: eachPubmed,
  jats: eachJats,
  dc: eachDublinCore,
  tei: eachTei,
  csv: eachRow,
};

/** In a table a run of tabs is a row of empty cells, and of binary records each character is counted. */
const BLANKS_COUNT: readonly TextFormat[] = ['csv', 'marc'];

const itemsOf = (format: TextFormat, text: string, columns?: Columns): Iterable<Item> =>
  eachBounded(READERS[format](BLANKS_COUNT.includes(format) ? text : shortBlanks(text), columns));

/** The names of what is read, as they stand in a sentence. */
export const READ_NAMES = `${Object.values(TEXT_FORMATS)
  .map((f) => f.name)
  .join(', ')} or PDF`;

/**
 * Reads a text of any of the formats; undefined when it is none of them.
 * @param columns what the columns are, of a table
 */
export function readSources(text: string, columns?: Columns): (ReadResult & { format: TextFormat }) | undefined {
  const format = columns ? 'csv' : detectFormat(text);
  return format && { format, ...readAs(format, text, columns) };
}

/** Reads a text as what it is said to be, whatever it resembles. */
export const readAs = (format: TextFormat, text: string, columns?: Columns): ReadResult =>
  collect(itemsOf(format, text, columns));

/** The same, one after another: of a large file no more than an entry is held at a time. */
export function eachSource(text: string): Iterable<Item> | undefined {
  const format = detectFormat(text);
  return format && itemsOf(format, text);
}

export const writeSources = (sources: Writable, format: ExportFormat): string =>
  [...eachWritten(sources, format)].join('');

/** The text of the sources in its parts, one after another. */
export const eachWritten = (sources: Writable, format: ExportFormat): Generator<string, void> =>
  WRITERS[format](sources);
