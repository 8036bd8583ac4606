/** Sends files to the server, with progress; what comes of them is a job's matter. */
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { MOST_FILE_BYTES, MOST_FILES, routes, type Destination, type Started } from '@pandecta/contract';
import type { Columns } from '@pandecta/core/formats';
import { useChanges } from '../act/changes.ts';
import { addressOf } from '../api/client.ts';
import { useSession } from '../session/store.ts';
import { useDestination } from './destination.ts';
import { useJobs } from './jobs.ts';
import { columnsFor } from './tables.ts';

export const sending = ref<{ files: number; share: number } | null>(null);

/** A file, with the folders it lay in where a folder was dropped. */
export interface Sent {
  file: File;
  path: string;
}

const named = (files: (File | Sent)[]): Sent[] =>
  files.map((f) => ('path' in f ? f : { file: f, path: f.webkitRelativePath || f.name }));

/** A request whose sending can be followed: fetch cannot tell how much has gone. */
export function upload(
  files: (File | Sent)[],
  destination: Destination,
  columns: ReadonlyMap<File, Columns> = new Map(),
): Promise<Started> {
  const form = new FormData();
  form.append('destination', JSON.stringify(destination));
  for (const { file, path } of named(files)) {
    // What its columns are goes before the table it is said of.
    if (columns.has(file)) form.append('columns', JSON.stringify(columns.get(file)));
    form.append('file', file, path);
  }
  const session = useSession();
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', addressOf(routes.gather.import, {}));
    request.setRequestHeader('x-csrf-token', session.user?.csrf ?? '');
    request.upload.onprogress = (e) =>
      (sending.value = { files: files.length, share: e.total ? e.loaded / e.total : 0 });
    request.onloadend = () => {
      sending.value = null;
      const reply = (() => {
        try {
          return JSON.parse(request.responseText) as Started & { detail?: string };
        } catch {
          return undefined;
        }
      })();
      if (request.status === 200 && reply) resolve(reply);
      else reject(new Error(reply?.detail ?? 'The files could not be sent. Nothing was added; try again in a moment.'));
    };
    sending.value = { files: files.length, share: 0 };
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
          `${files.length.toLocaleString('en')} files are more than the ${MOST_FILES.toLocaleString('en')} that go at once. Nothing was sent; bring them in by parts.`,
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
