/** Sends files to the server, with progress; what comes of them is a job's matter. */
import { ref } from 'vue';
import { routes, type Started } from '@pandecta/contract';
import { addressOf } from '../api/client.ts';
import { useSession } from '../session/store.ts';

export const sending = ref<{ files: number; share: number } | null>(null);

/** A request whose sending can be followed: fetch cannot tell how much has gone. */
export function upload(files: File[], collection: string | undefined): Promise<Started> {
  const form = new FormData();
  if (collection) form.append('collection', collection);
  for (const f of files) form.append('file', f, f.name);
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

/** The files of a drop, those in dropped folders among them. */
export async function droppedFiles(data: DataTransfer): Promise<File[]> {
  const entries = [...data.items].map((i) => i.webkitGetAsEntry?.()).filter((e): e is FileSystemEntry => Boolean(e));
  if (!entries.length) return [...data.files];
  const out: File[] = [];
  const walk = async (entry: FileSystemEntry): Promise<void> => {
    if (entry.isFile) out.push(await new Promise<File>((ok, no) => (entry as FileSystemFileEntry).file(ok, no)));
    else {
      const reader = (entry as FileSystemDirectoryEntry).createReader();
      for (;;) {
        const part = await new Promise<FileSystemEntry[]>((ok, no) => reader.readEntries(ok, no));
        if (!part.length) return;
        for (const e of part) await walk(e);
      }
    }
  };
  for (const e of entries) await walk(e);
  return out.filter((f) => !f.name.startsWith('.'));
}
