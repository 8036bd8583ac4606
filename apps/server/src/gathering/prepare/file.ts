/** A file, by what is in it. */
import { open, readFile } from 'node:fs/promises';
import { FORMAT_NAMES, isPdf, type TextFormat } from '@pandecta/core/formats';
import type { FileInput } from '../inputs.ts';
import { candidate, knownBy, leftOut, message, type Candidate, type Prepared, type Preparing } from './candidate.ts';
import { preparePdf } from './pdf.ts';

export async function prepareFile(way: Preparing, input: FileInput): Promise<Prepared> {
  if (await startsAsPdf(way.services.storage.path(input.sha256))) return preparePdf(way, input);
  if (input.bytes === 0) return leftOut(input, 'The file is empty');
  const bytes = await readFile(way.services.storage.path(input.sha256));
  const prepared = await readRecords(way, input, bytes);
  // A saved page is a work of its own; what a file of references lists comes in with a report.
  if (prepared.format === 'a saved page') return prepared;
  return { ...prepared, candidates: prepared.candidates.map((c): Candidate => ({ ...c, referenceFile: true })) };
}

async function startsAsPdf(path: string): Promise<boolean> {
  const handle = await open(path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(1024), 0, 1024, 0);
    return isPdf(buffer.subarray(0, bytesRead));
  } finally {
    await handle.close();
  }
}

const EXPECTED: Record<TextFormat, RegExp> = {
  ris: /\.(ris|txt)$/i,
  bibtex: /\.(bib|bibtex|txt)$/i,
  'csl-json': /\.(json|csljson)$/i,
  mods: /\.(xml|mods)$/i,
};

/** The records of a file of references, or of such a text that was pasted. */
export async function readRecords(
  { services, index }: Preparing,
  input: Prepared['input'],
  bytes: Uint8Array,
): Promise<Prepared> {
  const read = await services.workers.run('parse', bytes);
  // A page under the name of something else is what a site gave instead of it: that is told, not kept as a page.
  if (!read.format && read.page && /\.x?html?$|^[^.]+$/i.test(input.name)) {
    const { record, provenance, subjects } = read.page;
    const one = candidate(index, record, provenance, { subjects, origin: { found: { address: record.URL ?? '' } } });
    return { input, format: 'a saved page', messages: [], candidates: [one] };
  }
  if (!read.format)
    return leftOut(
      input,
      read.known
        ? `It is ${read.known}, which is not read`
        : 'Its content is none of RIS, BibTeX, BibLaTeX, CSL-JSON, MODS or PDF',
    );
  const messages = read.messages.map((m) => ({ file: input.name, ...m }));
  if (/\.\w{2,5}$/.test(input.name) && !EXPECTED[read.format].test(input.name)) {
    const what = `The name does not fit: the content is ${FORMAT_NAMES[read.format]}`;
    messages.unshift(message(input, 'misnamed', what, 'read as what it is', 'info'));
  }
  if (read.encoding !== 'utf-8')
    messages.unshift(message(input, 'encoding', `The text is not UTF-8`, `read as ${read.encoding}`, 'info'));
  const candidates = read.sources.map((s) =>
    candidate(index, s.record, knownBy(s.record, 'import', 0.8), { subjects: [...new Set(s.subjects)], line: s.line }),
  );
  return {
    input,
    format: FORMAT_NAMES[read.format],
    candidates,
    messages,
    ...(candidates.length ? {} : { trouble: 'Nothing in it could be read as a reference' }),
  };
}
