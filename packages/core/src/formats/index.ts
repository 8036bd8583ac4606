/** Reading and writing bibliographic files. A reader never throws on its input and never throws anything away. */
import { eachBibtex } from './bibtex/read.ts';
import { eachBibtexEntry } from './bibtex/write.ts';
import { eachCslItem, eachCslJson } from './csl-json.ts';
import { detectFormat } from './detect.ts';
import { eachMods } from './mods/read.ts';
import { eachModsEntry } from './mods/write.ts';
import { collect, type Item, type ReadResult } from './message.ts';
import { eachRis } from './ris/read.ts';
import { eachRisEntry } from './ris/write.ts';
import type { SourceRecord } from '../source/index.ts';

export * from './message.ts';
export * from './encoding.ts';
export * from './detect.ts';
export { readCslJson, readItem, toCslItem } from './csl-json.ts';
export { settleIdentifiers } from './identifiers.ts';
export { readRis } from './ris/read.ts';
export { readBibtex } from './bibtex/read.ts';
export { modsIdentifier, readMods } from './mods/read.ts';
export { modsOf } from './mods/write.ts';
export { readEntry as readFeedEntry } from './atom/read.ts';
export { childrenOf, childOf, eachElement, escapeXml, textAt, type Element } from './xml/tree.ts';

export const EXPORT_FORMATS = ['ris', 'bibtex', 'biblatex', 'csl-json', 'mods'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

export const EXPORT_INFO: Record<ExportFormat, { name: string; extension: string; mediaType: string }> = {
  ris: { name: 'RIS', extension: 'ris', mediaType: 'application/x-research-info-systems' },
  bibtex: { name: 'BibTeX', extension: 'bib', mediaType: 'application/x-bibtex' },
  biblatex: { name: 'BibLaTeX', extension: 'bib', mediaType: 'application/x-bibtex' },
  'csl-json': { name: 'CSL-JSON', extension: 'json', mediaType: 'application/vnd.citationstyles.csl+json' },
  mods: { name: 'MODS', extension: 'xml', mediaType: 'application/mods+xml' },
};

export type TextFormat = 'ris' | 'bibtex' | 'csl-json' | 'mods';
/** What each is called. */
export const FORMAT_NAMES: Record<TextFormat, string> = {
  ris: 'RIS',
  bibtex: 'BibTeX',
  'csl-json': 'CSL-JSON',
  mods: 'MODS',
};

const READERS = { ris: eachRis, bibtex: eachBibtex, 'csl-json': eachCslJson, mods: eachMods };

/** Reads a text of any of the formats; undefined when it is none of them. */
export function readSources(text: string): (ReadResult & { format: TextFormat }) | undefined {
  const format = detectFormat(text);
  return format && { format, ...collect(READERS[format](text)) };
}

/** The same, one after another: of a large file no more than an entry is held at a time. */
export function eachSource(text: string): Iterable<Item> | undefined {
  const format = detectFormat(text);
  return format && READERS[format](text);
}

export type Writable = Iterable<{ record: SourceRecord; subjects: string[] }>;

export const writeSources = (sources: Writable, format: ExportFormat): string =>
  [...eachWritten(sources, format)].join('');

/** The text of the sources in its parts, one after another. */
export function eachWritten(sources: Writable, format: ExportFormat): Generator<string, void> {
  if (format === 'ris') return eachRisEntry(sources);
  if (format === 'csl-json') return eachCslItem(sources);
  if (format === 'mods') return eachModsEntry(sources);
  return eachBibtexEntry(sources, format);
}
