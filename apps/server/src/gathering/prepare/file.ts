/** A file, by what is in it. */
import { readFile } from 'node:fs/promises';
import { isPdf, pictureType, TEXT_FORMATS, type Columns } from '@pandecta/core/formats';
import { startOf } from '../../storage/storage.ts';
import { isFile, type FileInput, type TypedInput } from '../inputs.ts';
import { candidate, knownBy, leftOut, message, type Prepared, type Preparing } from './candidate.ts';
import { candidateOf } from './page.ts';
import { prepareParts } from './parts.ts';
import { preparePdf } from './pdf.ts';
import { preparePicture } from './picture.ts';

export async function prepareFile(way: Preparing, input: FileInput): Promise<Prepared> {
  const start = await startOf(way.services.storage.path(input.sha256));
  if (isPdf(start)) return preparePdf(way, input);
  const picture = pictureType(start);
  if (picture) return preparePicture(way, input, picture);
  if (input.bytes === 0) return leftOut(input, 'The file is empty');
  const bytes = await readFile(way.services.storage.path(input.sha256));
  return readRecords(way, input, bytes, input.columns);
}

/** The records of a file of references, or of such a text that was pasted; of a document, what it refers to. */
export async function readRecords(
  way: Preparing,
  input: FileInput | TypedInput,
  bytes: Uint8Array,
  columns?: Columns,
): Promise<Prepared> {
  const { services, index } = way;
  const read = await services.workers.run('parse', { bytes, columns });
  if ('parts' in read) return prepareParts(way, input, read);
  // A page under the name of something else is what a site gave instead of it: that is told, not kept as a page.
  if ('page' in read && read.page && /\.x?html?$|^[^.]+$/i.test(input.name)) {
    const one = await candidateOf(way, read.page, read.html ?? '', { found: { address: read.page.record.URL ?? '' } });
    return { input, format: 'a saved page', messages: [], candidates: [one] };
  }
  if (!('format' in read))
    return leftOut(
      input,
      read.known
        ? `It is ${read.known}, which is not read`
        : 'This kind of file cannot be read: it is no reference file, table, document, page, picture or PDF',
    );
  const messages = read.messages.map((m) => ({ file: input.name, ...m }));
  if (/\.\w{2,5}$/.test(input.name) && !TEXT_FORMATS[read.format].ends.test(input.name)) {
    const what = `The name does not fit: the content is ${TEXT_FORMATS[read.format].name}`;
    messages.unshift(message(input, 'misnamed', what, 'read as what it is', 'info'));
  }
  if (read.encoding !== 'utf-8')
    messages.unshift(message(input, 'encoding', `The text is not UTF-8`, `read as ${read.encoding}`, 'info'));
  // What a file of references lists comes in with a report.
  const lists = isFile(input) && { referenceFile: true as const };
  const candidates = read.sources.map((s) =>
    candidate(index, s.record, knownBy(s.record, 'import', 0.8), {
      subjects: [...new Set(s.subjects)],
      line: s.line,
      ...lists,
    }),
  );
  return {
    input,
    format: TEXT_FORMATS[read.format].name,
    candidates,
    messages,
    ...(candidates.length ? {} : { trouble: 'Nothing in it could be read as a reference' }),
  };
}
