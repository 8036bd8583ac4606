/** `npm run backup -- FOLDER`: everything there is, into a folder, while Pandecta runs or not. */
import { resolve } from 'node:path';
import { backUp } from './lib/backup.mjs';
import { dataFolder } from './lib/folders.mjs';
import { binFolder, runningPostgres, startPostgres } from './lib/postgres.mjs';
import { main, say, Stop } from './lib/say.mjs';

await main(async () => {
  const args = process.argv.slice(2);
  const [to, ...more] = args.filter((a) => a !== '--empty');
  if (!to || to.startsWith('-') || more.length) throw new Stop('npm run backup -- [--empty] FOLDER');
  const data = dataFolder(args.includes('--empty') ? '-empty' : '');
  const running = process.env.DATABASE_URL ? undefined : await runningPostgres(data);
  const started = process.env.DATABASE_URL || running ? undefined : await startPostgres(data);
  try {
    const url = process.env.DATABASE_URL ?? (running ?? started).url('pandecta');
    const { files } = await backUp({ url, data, bin: binFolder() }, resolve(to));
    say(`Backed up the database and ${files.toLocaleString('en')} files of ${data} into ${resolve(to)}.`);
  } finally {
    await started?.stop();
  }
});
