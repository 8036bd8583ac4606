/** A PDF: its pages, and the work it is, from its front, from what it says of itself, and from the registry. */
import { sql } from 'drizzle-orm';
import type { FileState, ImportMessage } from '@pandecta/contract';
import type { SourceRecord } from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import type { Db } from '../../database/connect.ts';
import { json, number, one, text } from '../../database/read.ts';
import type { ReadPdf } from '../../files/read-pdf.ts';
import { MOST_SCANNED_PAGES, readOrRecognise } from '../../files/scans/read.ts';
import type { FileInput } from '../inputs.ts';
import { candidate, layRegistryOver, message, type Prepared, type Preparing } from './candidate.ts';
import { lookUpDoi } from '../../catalogues/registry.ts';

/** @param already what was read of it before, of one that was made of a picture */
export async function preparePdf(
  { services, workspace, index, says }: Preparing,
  input: FileInput,
  already?: ReadPdf,
): Promise<Prepared> {
  const messages: ImportMessage[] = [];
  const tell = (rule: string, what: string, done: string, severity: ImportMessage['severity'] = 'warning'): void =>
    void messages.push(message(input, rule, what, done, severity));
  if (/\.\w{2,5}$/.test(input.name) && !/\.pdf$/i.test(input.name))
    tell('misnamed', 'The name does not fit: the content is a PDF', 'read as what it is', 'info');
  const origin = input.from !== undefined && { origin: { found: { address: input.from } } };
  const known = !already && (await findRead(services.db, workspace.id, input.sha256));
  if (known) {
    const { record, ...file } = known;
    const one = candidate(index, record, {}, { file: { ...file, name: input.name }, ...origin });
    return { input, format: 'PDF', messages, candidates: [one] };
  }
  const path = services.storage.path(input.sha256);
  const { read, recognised } = already
    ? { read: already, recognised: undefined }
    : await readOrRecognise(services, workspace, { ...input, path }, (_, __, sentence) => says(`: ${sentence}`));
  if (read.state === 'damaged') {
    const trouble = 'The PDF is damaged and cannot be opened';
    tell('damaged', trouble, 'the file was left out', 'error');
    return { input, format: 'PDF', candidates: [], messages, trouble };
  }
  if (read.state === 'encrypted')
    tell('encrypted', 'The PDF is locked with a password', 'kept as a source of its own, without its text');
  if (read.rebuilt)
    tell('rebuilt', 'The end of the PDF is missing', `read as far as it goes: ${counted(read.pages, 'page')}`);
  if (recognised) tell('recognised', 'Its pages are pictures', 'their text was recognised; look it over', 'info');
  else if (read.state === 'image only')
    tell(
      'image-only',
      `The ${read.pages === 1 ? 'page holds' : `${read.pages} pages hold`} pictures and no text`,
      read.pages > MOST_SCANNED_PAGES
        ? `kept as a source without its words: text is recognised of at most ${MOST_SCANNED_PAGES} pages`
        : 'kept as a source; no words were recognised on them',
    );
  if (read.unread && read.unread < read.pages)
    tell(
      'pages-unread',
      `${read.unread} of the ${read.pages} pages could not be read`,
      'kept with the words of the others',
    );
  const { record, subjects, provenance } = await services.workers.run('recognise', {
    front: (recognised ?? read).front,
    embedded: read.embedded,
    name: input.name,
  });
  if (record.DOI) {
    const { state, record: found } = await lookUpDoi(services, record.DOI);
    if (state === 'silent')
      tell(
        'registry-silent',
        'The identifier registry did not answer',
        'the record was made from the document alone',
        'info',
      );
    layRegistryOver(record, provenance, found);
  }
  if (provenance.title?.from === 'file name')
    tell('no-title', 'No title was found in the document', `named after the file: “${record.title}”`, 'info');
  const scan = { id: read.fileId, name: input.name };
  const file = recognised
    ? { id: recognised.fileId, name: input.name, state: recognised.state, pages: recognised.pages }
    : { ...scan, state: read.state, pages: read.pages };
  return {
    input,
    format: 'PDF',
    messages,
    candidates: [
      candidate(index, record, provenance, { subjects, file, ...(recognised && { beside: [scan] }), ...origin }),
    ],
  };
}

/** A file of these bytes that a source here holds already, with the record of that source. */
const findRead = (db: Db, workspaceId: string, sha256: string) =>
  one(
    db,
    {
      id: text(),
      state: text<FileState>(),
      pages: number,
      record: json<SourceRecord>(),
    },
    sql`select f.id, f.state, f.pages, s.record from files f
    join source_files sf on sf.workspace_id = f.workspace_id and sf.file_id = f.id
    join sources s on s.workspace_id = sf.workspace_id and s.id = sf.source_id and s.presence = 'live'
    where f.workspace_id = ${workspaceId} and f.sha256 = ${sha256} and f.state <> 'waiting' limit 1`,
  );
