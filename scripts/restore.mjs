/** `npm run restore -- FOLDER`: a backup into an empty data folder (PANDECTA_HOME), which `npm start` then starts. */
import { resolve } from 'node:path';
import { readBackup, restore } from './lib/backup.mjs';
import { ensureDebian, TO_RUN } from './lib/debian.mjs';
import { dataFolder } from './lib/folders.mjs';
import { binFolder, startPostgres } from './lib/postgres.mjs';
import { main, say, Stop } from './lib/say.mjs';

await main(async () => {
  const args = process.argv.slice(2);
  const [from, ...more] = args.filter((a) => a !== '--empty');
  if (!from || from.startsWith('-') || more.length) throw new Stop('npm run restore -- [--empty] FOLDER');
  const { made } = readBackup(resolve(from));
  await ensureDebian(TO_RUN);
  const empty = args.includes('--empty');
  const data = dataFolder(empty ? '-empty' : '');
  const cluster = process.env.DATABASE_URL ? undefined : await startPostgres(data);
  try {
    await cluster?.ensureDatabase('pandecta');
    const url = process.env.DATABASE_URL ?? cluster.url('pandecta');
    const { files } = await restore(resolve(from), { url, data, bin: binFolder() });
    say(
      `Restored the backup of ${made}: the database and ${files.toLocaleString('en')} files, into ${data}. \`npm start${empty ? ' -- --empty' : ''}\` starts it.`,
    );
  } finally {
    await cluster?.stop();
  }
});
