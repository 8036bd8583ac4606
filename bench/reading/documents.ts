/** Real documents for the measurements: the PDFs in a folder, parted in two halves, one of which is never looked at. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';

export interface RealDocument {
  path: string;
  /** Rules may be mended by what one sees in these; the others are what counts. */
  half: 'seen' | 'unseen';
}

const LARGEST = 4 * 1024 ** 2;

/**
 * Each content once, in an order that no name decides.
 * @param folder as unpacked Debian packages lie in it (docs of TeX Live: publishers, science, humanities)
 */
export function realDocuments(folder: string): RealDocument[] {
  const found = new Map<string, string>();
  for (const entry of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    const path = join(entry.parentPath, entry.name);
    if (!entry.isFile() || !entry.name.endsWith('.pdf') || statSync(path).size > LARGEST) continue;
    found.set(createHash('sha256').update(readFileSync(path)).digest('hex'), path);
  }
  return [...found]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([hash, path]) => ({ path, half: parseInt(hash[1]!, 16) % 2 ? 'unseen' : 'seen' }));
}

export function folderOfDocuments(): string {
  const folder = process.env.PANDECTA_BENCH_DOCUMENTS;
  if (!folder) throw new Error('PANDECTA_BENCH_DOCUMENTS names a folder of PDFs');
  return folder;
}

export const percent = (part: number, of: number): string => (of ? `${((100 * part) / of).toFixed(1)} %` : '–');
