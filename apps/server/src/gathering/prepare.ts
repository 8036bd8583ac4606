/** Reads the files of an import into candidates, outside any transaction. Nothing here is seen by anyone yet. */
import { open, readFile } from 'node:fs/promises';
import { sql } from 'drizzle-orm';
import pMap from 'p-map';
import { v7 as uuidv7 } from 'uuid';
import type { FileState, ImportMessage } from '@pandecta/contract';
import type { Provenance } from '@pandecta/core/documents';
import { isPdf, readItem } from '@pandecta/core/formats';
import { normaliseDoi } from '@pandecta/core/identifiers';
import type { SourceRecord } from '@pandecta/core/source';
import { number, one, text } from '../database/read.ts';
import { readPdf } from '../files/read-pdf.ts';
import type { Progress } from '../jobs/kind.ts';
import type { Services } from '../services.ts';
import { TookTooMuch } from '../workers/pool.ts';

export interface Input {
  name: string;
  sha256: string;
  bytes: number;
}

export interface Candidate {
  id: string;
  record: SourceRecord;
  subjects: string[];
  provenance: Provenance;
  input: number;
  line: number;
  file?: { id: string; state: FileState; pages: number };
}

export interface Prepared {
  input: Input;
  format: string;
  candidates: Candidate[];
  messages: ImportMessage[];
  /** Why nothing came of the file. */
  trouble?: string;
}

/** While one file is being opened or its last pages are written, the next is read. */
export const FILES_AT_ONCE = 2;

export async function prepare(
  services: Services,
  workspace: { id: string; number: number },
  inputs: Input[],
  progress: Progress,
): Promise<Prepared[]> {
  let done = 0;
  const reading = new Map<string, Promise<unknown>>();
  return pMap(
    inputs,
    async (input, i) => {
      const says = (more = ''): Promise<void> => progress(done, inputs.length, `Reading ${input.name}${more}`);
      await says();
      // The same file under two names is read by one at a time: its pages are the same rows.
      const before = reading.get(input.sha256);
      const turn = Promise.resolve(before).then(async () => {
        try {
          if (await startsAsPdf(services.storage.path(input.sha256)))
            return await preparePdf(services, workspace, input, i, (d, t) => says(`, page ${d} of ${t}`));
          return await prepareReferences(services, input, i);
        } catch (error) {
          // One file that takes more than there is does not take the others with it.
          if (error instanceof TookTooMuch) return leftOut(input, 'Reading it takes more time or memory than there is');
          throw error;
        }
      });
      reading.set(input.sha256, turn);
      const prepared = await turn;
      done += 1;
      return prepared;
    },
    { concurrency: FILES_AT_ONCE },
  );
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

const MESSAGE = (
  file: string,
  rule: string,
  what: string,
  done: string,
  severity: ImportMessage['severity'] = 'warning',
): ImportMessage => ({ file, severity, rule, line: 0, column: 0, what, done });

const leftOut = (input: Input, trouble: string): Prepared => ({
  input,
  format: 'unknown',
  candidates: [],
  messages: [MESSAGE(input.name, 'not-read', trouble, 'the file was left out', 'error')],
  trouble,
});

async function prepareReferences(services: Services, input: Input, index: number): Promise<Prepared> {
  const nothing = (trouble: string): Prepared => leftOut(input, trouble);
  if (input.bytes === 0) return nothing('The file is empty');
  const bytes = await readFile(services.storage.path(input.sha256));
  const read = await services.workers.run('parse', bytes);
  if (!read.format)
    return nothing(
      read.known
        ? `It is ${read.known}, which is not read`
        : 'Its content is none of RIS, BibTeX, BibLaTeX, CSL-JSON or PDF',
    );
  const messages = read.messages.map((m): ImportMessage => ({ file: input.name, ...m }));
  const expected = { ris: /\.(ris|txt)$/i, bibtex: /\.(bib|bibtex|txt)$/i, 'csl-json': /\.(json|csljson)$/i }[
    read.format
  ];
  const dotted = /\.\w{2,5}$/.test(input.name);
  if (dotted && !expected.test(input.name))
    messages.unshift(
      MESSAGE(
        input.name,
        'misnamed',
        `The name does not fit: the content is ${NAMES[read.format]}`,
        'read as what it is',
        'info',
      ),
    );
  if (read.encoding !== 'utf-8')
    messages.unshift(MESSAGE(input.name, 'encoding', `The text is not UTF-8`, `read as ${read.encoding}`, 'info'));
  const candidates = read.sources.map((s): Candidate => ({
    id: uuidv7(),
    record: s.record,
    subjects: [...new Set(s.subjects)],
    input: index,
    line: s.line,
    provenance: Object.fromEntries(Object.keys(s.record).map((f) => [f, { from: 'import', sure: 0.8 }])),
  }));
  return {
    input,
    format: NAMES[read.format],
    candidates,
    messages,
    ...(candidates.length ? {} : { trouble: 'Nothing in it could be read as a reference' }),
  };
}

const NAMES = { ris: 'RIS', bibtex: 'BibTeX', 'csl-json': 'CSL-JSON' } as const;

async function preparePdf(
  services: Services,
  workspace: { id: string; number: number },
  input: Input,
  index: number,
  onPage: (d: number, t: number) => Promise<void>,
): Promise<Prepared> {
  const messages: ImportMessage[] = [];
  const tell = (rule: string, what: string, done: string, severity: ImportMessage['severity'] = 'warning'): void =>
    void messages.push(MESSAGE(input.name, rule, what, done, severity));
  if (/\.\w{2,5}$/.test(input.name) && !/\.pdf$/i.test(input.name))
    tell('misnamed', 'The name does not fit: the content is a PDF', 'read as what it is', 'info');
  const known = await one(
    services.db,
    { id: text(), state: text<FileState>(), pages: number, name: text() },
    sql`
    select f.id, f.state, f.pages, f.name from files f where f.workspace_id = ${workspace.id} and f.sha256 = ${input.sha256} and f.state <> 'waiting'
    and exists (select 1 from source_files sf join sources s on s.workspace_id = sf.workspace_id and s.id = sf.source_id and s.presence = 'live'
      where sf.workspace_id = f.workspace_id and sf.file_id = f.id)`,
  );
  if (known) {
    const record: SourceRecord = { type: 'document' };
    return {
      input,
      format: 'PDF',
      messages,
      candidates: [{ id: uuidv7(), record, subjects: [], provenance: {}, input: index, line: 0, file: known }],
    };
  }
  const path = services.storage.path(input.sha256);
  const read = await readPdf(services, workspace, { ...input, path }, onPage);
  if (read.state === 'damaged') {
    const trouble = 'The PDF is damaged and cannot be opened';
    tell('damaged', trouble, 'the file was left out', 'error');
    return { input, format: 'PDF', candidates: [], messages, trouble };
  }
  if (read.state === 'encrypted')
    tell('encrypted', 'The PDF is locked with a password', 'kept as a source of its own, without its text');
  if (read.rebuilt)
    tell(
      'rebuilt',
      'The end of the PDF is missing',
      `read as far as it goes: ${read.pages === 1 ? '1 page' : `${read.pages} pages`}`,
    );
  if (read.state === 'image only')
    tell(
      'image-only',
      `The ${read.pages === 1 ? 'page holds' : `${read.pages} pages hold`} pictures and no text`,
      'kept as a source; its words cannot be found',
    );
  if (read.unread && read.unread < read.pages)
    tell(
      'pages-unread',
      `${read.unread} of the ${read.pages} pages could not be read`,
      'kept with the words of the others',
    );
  const { record, subjects, provenance } = await services.workers.run('recognise', {
    front: read.front,
    embedded: read.embedded,
    name: input.name,
  });
  if (record.DOI) await askRegistry(services, record, provenance, tell);
  if (provenance.title?.from === 'file name')
    tell('no-title', 'No title was found in the document', `named after the file: “${record.title}”`, 'info');
  const file = { id: read.fileId, state: read.state, pages: read.pages };
  return {
    input,
    format: 'PDF',
    messages,
    candidates: [{ id: uuidv7(), record, subjects, provenance, input: index, line: 0, file }],
  };
}

/** Asks the registry for the record of a DOI by content negotiation; without an answer the document's own word stands. */
async function askRegistry(
  { config }: Services,
  record: SourceRecord,
  provenance: Provenance,
  tell: (rule: string, what: string, done: string, severity: ImportMessage['severity']) => void,
): Promise<void> {
  if (!config.registryUrl) return;
  try {
    const url = `${config.registryUrl}/${record.DOI!.split('/').map(encodeURIComponent).join('/')}`;
    const answer = await fetch(url, {
      headers: { accept: 'application/vnd.citationstyles.csl+json' },
      signal: AbortSignal.timeout(4000),
    });
    if (!answer.ok) return;
    const item = (await answer.json()) as Record<string, unknown>;
    const found = readItem(item, { line: 0, column: 0 }, []).record;
    if (normaliseDoi(found.DOI ?? '') !== record.DOI) return;
    for (const [field, value] of Object.entries(found)) {
      // The DOI is known already, and in its normal form.
      if (field === 'custom' || field === 'DOI') continue;
      (record as Record<string, unknown>)[field] = value;
      provenance[field] = { from: 'identifier registry', sure: 0.97 };
    }
  } catch {
    tell(
      'registry-silent',
      'The identifier registry did not answer',
      'the record was made from the document alone',
      'info',
    );
  }
}
