/**
 * Archives are taken apart before they are read: each file in one is an input of its own, with the folders it lay in. No
 * path leads out of an archive, none unpacks to more than it may, and archives within archives stay closed.
 */
import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { MOST_FILE_BYTES, MOST_FILES, type ImportMessage } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import type { Storage } from '../storage/storage.ts';
import type { Progress } from '../queue/kind.ts';
import { isFile, type FileInput, type Input } from './inputs.ts';
import { nameOf } from './names.ts';
import { message } from './prepare/candidate.ts';

/** What all files of one archive may come to, in bytes, and how many times its own size. */
const MOST_IN_ALL = 4 * 1024 ** 3;
const MOST_TIMES = 100;
/** Below this nothing is too much, however well it is packed. */
const HARMLESS = 50 * 1024 ** 2;

export interface Unpacked {
  inputs: Input[];
  messages: ImportMessage[];
}

/** The inputs with those of archives in their place, and what there is to say of what was left out. */
export async function unpack(storage: Storage, inputs: Input[], progress: Progress): Promise<Unpacked> {
  const out: Unpacked = { inputs: [], messages: [] };
  for (const input of inputs) {
    if (!isFile(input) || !(await isArchive(storage.path(input.sha256)))) out.inputs.push(input);
    else await unpackOne(storage, input, out, progress);
  }
  return out;
}

/** A zip that is no document of its own: an office document or a book in that wrapping is read as what it is. */
async function isArchive(path: string): Promise<boolean> {
  const handle = await open(path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(4096), 0, 4096, 0);
    const head = buffer.subarray(0, bytesRead).toString('latin1');
    return (
      head.startsWith('PK\u0003\u0004') && !/mimetypeapplication\/|\[Content_Types\]\.xml|(?:word|xl|ppt)\//.test(head)
    );
  } finally {
    await handle.close();
  }
}

const opened = (path: string): Promise<ZipFile> =>
  new Promise((resolve, reject) =>
    yauzl.open(path, { lazyEntries: true, strictFileNames: false }, (error, zip) =>
      error ? reject(error) : resolve(zip),
    ),
  );
const streamOf = (zip: ZipFile, entry: Entry): Promise<Readable> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))),
  );

class TooMuch extends Error {}

async function unpackOne(storage: Storage, archive: FileInput, out: Unpacked, progress: Progress): Promise<void> {
  const tell = (what: string, done: string): void => void out.messages.push(message(archive, 'archive', what, done));
  let zip: ZipFile;
  try {
    zip = await opened(storage.path(archive.sha256));
  } catch {
    out.inputs.push(archive);
    return;
  }
  const most = Math.min(MOST_IN_ALL, Math.max(HARMLESS, archive.bytes * MOST_TIMES));
  let inAll = 0;
  let files = 0;
  const take = async (entry: Entry): Promise<boolean> => {
    if (/\/$/.test(entry.fileName) || /(?:^|\/)(?:\.|__MACOSX\/)/.test(entry.fileName)) return true;
    if (files >= MOST_FILES) {
      tell(`It holds more than ${formatNumber(MOST_FILES)} files`, 'the others were left out');
      return false;
    }
    if (entry.isEncrypted()) {
      tell(`“${entry.fileName}” is locked with a password`, 'it was left out');
      return true;
    }
    let bytes = 0;
    // Counted as it is unpacked: what an archive says of itself may be wrong.
    const counting = new Transform({
      transform(chunk: Buffer, _, done) {
        bytes += chunk.length;
        inAll += chunk.length;
        done(bytes > MOST_FILE_BYTES || inAll > most ? new TooMuch() : null, chunk);
      },
    });
    try {
      const stream = await streamOf(zip, entry);
      stream.on('error', (error) => counting.destroy(error));
      const stored = await storage.put(stream.pipe(counting));
      const { name, folder } = nameOf(entry.fileName);
      const within = [archive.folder, folder].filter(Boolean).join('/');
      out.inputs.push({ name, ...stored, ...(within && { folder: within }) });
      files += 1;
    } catch (error) {
      if (!(error instanceof TooMuch)) tell(`“${entry.fileName}” is damaged`, 'it was left out');
      else {
        tell(`It unpacks to more than it may: “${entry.fileName}” and what comes after`, 'these were left out');
        return false;
      }
    }
    await progress(files, zip.entryCount, `Unpacking ${archive.name}`);
    return true;
  };
  try {
    await new Promise<void>((resolve, reject) => {
      zip.on('end', resolve);
      zip.on('error', (error: Error) => {
        tell(`The archive breaks off or leads out of itself: ${error.message}`, 'what came before was kept');
        resolve();
      });
      zip.on('entry', (entry: Entry) => void take(entry).then((on) => (on ? zip.readEntry() : resolve()), reject));
      zip.readEntry();
    });
  } finally {
    zip.close();
  }
  if (!files) tell('Nothing in it could be taken out', 'the archive is kept as it came');
}
