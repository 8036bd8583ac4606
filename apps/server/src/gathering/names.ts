import { cut } from '@pandecta/core/text';

/** The name of a file, and the folders it lay in; a path that leads out of them is none. */
export function nameOf(path: string): { name: string; folder?: string } {
  const clean = path
    .replace(/[\u0000-\u001f]/g, '')
    .split(/[\\/]/)
    .filter((p) => p && p !== '.' && p !== '..');
  const name = cut(clean.at(-1) ?? '', 255) || 'unnamed';
  const folder = cut(clean.slice(0, -1).join('/'), 500);
  return folder ? { name, folder } : { name };
}
