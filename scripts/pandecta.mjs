/** The command line: built when stale, then run in this process. */
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './lib/folders.mjs';

const built = join(ROOT, 'dist/cli/main.js');
const newest = (folder) =>
  Math.max(
    ...readdirSync(folder, { withFileTypes: true, recursive: true })
      .filter((e) => e.isFile())
      .map((e) => statSync(join(e.parentPath ?? e.path, e.name)).mtimeMs),
  );

if (
  !existsSync(built) ||
  statSync(built).mtimeMs < Math.max(newest(join(ROOT, 'packages/core/src')), newest(join(ROOT, 'apps/cli/src')))
) {
  const { ensureNpm } = await import('./lib/npm.mjs');
  await ensureNpm();
  const { buildPrograms } = await import('./lib/build.mjs');
  await buildPrograms();
}
// npm runs this in its own folder: names of files are meant where the person stands.
if (process.env.INIT_CWD && existsSync(process.env.INIT_CWD)) process.chdir(process.env.INIT_CWD);
await import(pathToFileURL(built).href);
