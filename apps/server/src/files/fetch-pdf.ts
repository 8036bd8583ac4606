/** Fetches a full text that a page or a catalogue leads to, and reads it. */
import { Readable } from 'node:stream';
import { isPdf } from '@pandecta/core/formats';
import { Unreachable } from '../fetching/fetch.ts';
import { politely } from '../fetching/politely.ts';
import type { Services } from '../services.ts';
import { readPdf } from './read-pdf.ts';

/** @throws Unreachable with the reason */
export async function fetchPdf(
  services: Services,
  workspace: { id: string; number: number },
  address: string,
): Promise<{ id: string; name: string }> {
  const { storage, fetcher } = services;
  const { bytes } = await politely(fetcher, address, { accept: 'application/pdf' });
  if (!isPdf(bytes)) throw new Unreachable(`What ${new URL(address).host} gives there is no PDF`, true);
  const stored = await storage.put(Readable.from([bytes]));
  const name = pdfNameIn(address);
  const read = await readPdf(
    services,
    workspace,
    { ...stored, name, path: storage.path(stored.sha256) },
    async () => {},
  );
  if (read.state === 'damaged') throw new Unreachable('The PDF is damaged and cannot be opened', true);
  return { id: read.fileId, name };
}

/** The last part of the address, as people read it; as it stands where its escapes are broken. */
export function pdfNameIn(address: string): string {
  const last = new URL(address).pathname.split('/').at(-1) || 'document';
  const named = (text: string): string => text.replace(/(?:\.pdf)?$/i, '.pdf');
  try {
    return named(decodeURIComponent(last));
  } catch {
    return named(last);
  }
}
