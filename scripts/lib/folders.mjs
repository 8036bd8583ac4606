/** Where things lie. The data of a checkout lie outside it, so that no cleaning of the checkout touches them. */
import { createHash } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/** PANDECTA_HOME, or a folder named after the checkout below the usual place for a user's or the machine's data. */
export function dataFolder(purpose = '') {
  const name = createHash('sha256').update(ROOT).digest('hex').slice(0, 8) + purpose;
  const base =
    process.getuid() === 0
      ? '/var/lib/pandecta'
      : join(process.env.XDG_DATA_HOME ?? join(homedir(), '.local/share'), 'pandecta');
  const folder = process.env.PANDECTA_HOME ? process.env.PANDECTA_HOME + purpose : join(base, name);
  mkdirSync(folder, { recursive: true });
  return folder;
}
