/** Sends files to the server, with progress; what comes of them is a job's matter. */
import { promiseTimeout } from '@vueuse/core';
import { sum } from 'd3-array';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { MOST_FILE_BYTES, MOST_FILES, routes, type Destination, type Started, type Uploaded } from '@pandecta/contract';
import type { Columns } from '@pandecta/core/formats';
import { formatNumber } from '@pandecta/core/wording';
import { useChanges } from '../act/changes.ts';
import { addressOf, ApiError, ask, isAbort } from '../api/client.ts';
import { useSession } from '../session/store.ts';
import { useDestination } from './destination.ts';
import { useJobs } from './jobs.ts';
import { columnsFor } from './tables.ts';

/** What is being sent: so many files, this share of their bytes is there, and how to leave it. */
export const sending = ref<{ files: number; share: number; stop: () => void } | null>(null);

/** A file, with the folders it lay in where a folder was dropped. */
export interface Sent {
  file: File;
  path: string;
}

const named = (files: (File | Sent)[]): Sent[] =>
  files.map((f) => ('path' in f ? f : { file: f, path: f.webkitRelativePath || f.name }));

/** What goes at once: a line that breaks costs no more than that. */
const SHARE = { files: 200, bytes: 64 * 1024 ** 2 };
/** A share that did not arrive is sent again after so long. */
const AGAIN_AFTER_MS = [1000, 4000];
/** Nobody answered, or what stands before the server says that it does not just now. */
const PASSING = [0, 502, 503, 504];

export function sharesOf(files: Sent[], most = SHARE): Sent[][] {
  const shares: Sent[][] = [];
  let room = { files: 0, bytes: 0 };
  for (const sent of files) {
    if (!room.files || room.bytes < sent.file.size) {
      shares.push([]);
      room = { ...most };
    }
    shares.at(-1)!.push(sent);
    room.files -= 1;
    room.bytes -= sent.file.size;
  }
  return shares;
}

/** Sends files in shares, each again where it did not arrive; then what comes of all of them begins, at once. */
export async function upload(
  files: (File | Sent)[],
  destination: Destination,
  columns: ReadonlyMap<File, Columns> = new Map(),
  wait: (ms: number) => Promise<unknown> = promiseTimeout,
): Promise<Started> {
  const stop = new AbortController();
  const all = named(files);
  const bytes = Math.max(
    1,
    sum(all, (s) => s.file.size),
  );
  let there = 0;
  const tell = (share: number): void =>
    void (sending.value = { files: all.length, share: Math.min(1, share), stop: () => stop.abort() });
  tell(0);
  try {
    const uploads: string[] = [];
    for (const share of sharesOf(all)) {
      const form = new FormData();
      for (const { file, path } of share) {
        // What its columns are goes before the table it is said of.
        if (columns.has(file)) form.append('columns', JSON.stringify(columns.get(file)));
        form.append('file', file, path);
      }
      const size = sum(share, (s) => s.file.size);
      const sent = await again(wait, () => sendShare(form, stop.signal, (part) => tell((there + part * size) / bytes)));
      uploads.push(...sent.uploads);
      there += size;
      tell(there / bytes);
    }
    return await ask(routes.gather.begin, { body: { uploads, destination }, signal: stop.signal });
  } catch (error) {
    throw isAbort(error) ? new Error('Sending was stopped. Nothing was added.') : error;
  } finally {
    sending.value = null;
  }
}

async function again<T>(wait: (ms: number) => Promise<unknown>, work: () => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries += 1) {
    try {
      return await work();
    } catch (error) {
      const passing = error instanceof ApiError && PASSING.includes(error.status);
      if (!passing || tries === AGAIN_AFTER_MS.length) throw error;
      await wait(AGAIN_AFTER_MS[tries]!);
    }
  }
}

/** A request whose sending can be followed: fetch cannot tell how much has gone. */
function sendShare(form: FormData, stop: AbortSignal, progress: (part: number) => void): Promise<Uploaded> {
  const session = useSession();
  return new Promise((resolve, reject) => {
    stop.throwIfAborted();
    const request = new XMLHttpRequest();
    const end = (): void => request.abort();
    stop.addEventListener('abort', end);
    request.open('POST', addressOf(routes.gather.upload, {}));
    request.setRequestHeader('x-csrf-token', session.user?.csrf ?? '');
    request.upload.onprogress = (e) => progress(e.total ? e.loaded / e.total : 0);
    request.onloadend = () => {
      stop.removeEventListener('abort', end);
      if (stop.aborted) return reject(stop.reason as Error);
      const reply = (() => {
        try {
          return JSON.parse(request.responseText) as Uploaded & { code?: string; detail?: string };
        } catch {
          return undefined;
        }
      })();
      if (request.status === 200 && reply) return resolve(reply);
      const says = reply?.detail ?? 'The files could not be sent. Nothing was added; try again in a moment.';
      // An answer that was cut off is as none.
      reject(new ApiError(request.status === 200 ? 0 : request.status, reply?.code ?? 'failed', says));
    };
    request.send(form);
  });
}

/** Brings files in, to where it was said; what is too much is said before anything is sent. */
export function useUpload(): { send: (files: (File | Sent)[], collection?: string) => Promise<void> } {
  const changes = useChanges();
  const destination = useDestination();
  const jobs = useJobs();
  const router = useRouter();
  const tell = (text: string): void => changes.tell(text, null, true);
  return {
    async send(files, collection) {
      if (!files.length) return;
      if (files.length > MOST_FILES)
        return tell(
          `${formatNumber(files.length)} files are more than the ${formatNumber(MOST_FILES)} that go at once. Nothing was sent; send them in several parts.`,
        );
      const large = named(files).find(({ file }) => file.size > MOST_FILE_BYTES);
      if (large) return tell(`${large.path} is larger than ${MOST_FILE_BYTES / 1024 ** 2} MB. Nothing was sent.`);
      const columns = await columnsFor(named(files));
      if (!columns) return;
      try {
        const chosen = destination.take();
        const collections = collection ? [...new Set([collection, ...chosen.collections])] : chosen.collections;
        const { importId } = await upload(files, { ...chosen, collections }, columns);
        await jobs.look();
        await router.push(`/gather/report/${importId}`);
      } catch (error) {
        tell((error as Error).message);
      }
    },
  };
}

/** The files of a drop, those in dropped folders among them. */
export async function droppedFiles(data: DataTransfer): Promise<(File | Sent)[]> {
  const entries = [...data.items].map((i) => i.webkitGetAsEntry?.()).filter((e): e is FileSystemEntry => Boolean(e));
  if (!entries.length) return [...data.files];
  const out: Sent[] = [];
  const walk = async (entry: FileSystemEntry): Promise<void> => {
    if (entry.isFile) {
      const file = await new Promise<File>((ok, no) => (entry as FileSystemFileEntry).file(ok, no));
      out.push({ file, path: entry.fullPath.replace(/^\//, '') });
    } else {
      const reader = (entry as FileSystemDirectoryEntry).createReader();
      for (;;) {
        const part = await new Promise<FileSystemEntry[]>((ok, no) => reader.readEntries(ok, no));
        if (!part.length) return;
        for (const e of part) await walk(e);
      }
    }
  };
  for (const e of entries) await walk(e);
  return out.filter(({ file }) => !file.name.startsWith('.'));
}
