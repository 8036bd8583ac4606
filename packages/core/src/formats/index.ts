/** Reading and writing bibliographic files. A reader never throws on its input and never throws anything away. */
import { writeBibtex } from './bibtex-write.ts';
import { readBibtex } from './bibtex.ts';
import { readCslJson, writeCslJson } from './csl-json.ts';
import { detectFormat } from './detect.ts';
import type { ReadResult } from './message.ts';
import { readRis, writeRis } from './ris.ts';
import type { SourceRecord } from '../source/index.ts';

export * from './message.ts';
export * from './encoding.ts';
export * from './detect.ts';
export * from './nul.ts';
export { readCslJson, writeCslJson, readItem, toCslItem } from './csl-json.ts';
export { readRis, writeRis } from './ris.ts';
export { readBibtex } from './bibtex.ts';
export { writeBibtex } from './bibtex-write.ts';
export { latexToText, textToLatex } from './latex.ts';

export const EXPORT_FORMATS = ['ris', 'bibtex', 'biblatex', 'csl-json'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

export const EXPORT_INFO: Record<ExportFormat, { name: string; extension: string; mediaType: string }> = {
  ris: { name: 'RIS', extension: 'ris', mediaType: 'application/x-research-info-systems' },
  bibtex: { name: 'BibTeX', extension: 'bib', mediaType: 'application/x-bibtex' },
  biblatex: { name: 'BibLaTeX', extension: 'bib', mediaType: 'application/x-bibtex' },
  'csl-json': { name: 'CSL-JSON', extension: 'json', mediaType: 'application/vnd.citationstyles.csl+json' },
};

/** Reads a text of any of the formats; undefined when it is none of them. */
export function readSources(text: string): (ReadResult & { format: 'ris' | 'bibtex' | 'csl-json' }) | undefined {
  const format = detectFormat(text);
  if (!format) return undefined;
  const read = { ris: readRis, bibtex: readBibtex, 'csl-json': readCslJson }[format];
  return { format, ...read(text) };
}

export function writeSources(sources: { record: SourceRecord; subjects: string[] }[], format: ExportFormat): string {
  if (format === 'ris') return writeRis(sources);
  if (format === 'csl-json') return writeCslJson(sources);
  return writeBibtex(sources, format);
}
