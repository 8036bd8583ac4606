/** `npm run bench -- NAME`: builds one measurement, starts what it needs, prints its table. */
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildPrograms, buildWeb, DIST } from './lib/build.mjs';
import { dataFolder, ROOT } from './lib/folders.mjs';
import { ensureDebian, TO_TEST } from './lib/debian.mjs';
import { ensureNpm } from './lib/npm.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { run } from './lib/processes.mjs';
import { main, Stop } from './lib/say.mjs';

await main(async () => {
  const names = readdirSync(join(ROOT, 'bench'))
    .filter((n) => n.endsWith('.bench.ts'))
    .map((n) => n.slice(0, -'.bench.ts'.length));
  const [name] = process.argv.slice(2);
  if (!name || !existsSync(join(ROOT, `bench/${name}.bench.ts`)))
    throw new Stop(`npm run bench -- NAME, where NAME is one of: ${names.join(', ')}`);
  await ensureDebian(TO_TEST);
  await ensureNpm();
  await buildPrograms({ [`bench/${name}`]: `bench/${name}.bench.ts` });
  await buildWeb();
  const folder = dataFolder('-bench');
  const cluster = await startPostgres(join(folder, 'cluster'));
  try {
    const files = join(folder, 'data');
    rmSync(files, { recursive: true, force: true });
    mkdirSync(files, { recursive: true });
    await cluster.ensureDatabase('bench');
    const env = {
      ...process.env,
      DATABASE_URL: cluster.url('bench'),
      PANDECTA_DATA: files,
      PANDECTA_TASKS: join(DIST, 'server/tasks.js'),
      PANDECTA_WEB: join(DIST, 'web'),
      PANDECTA_PORT: '0',
      PANDECTA_MIGRATIONS: join(ROOT, 'apps/server/migrations'),
    };
    const done = await run(process.execPath, ['--enable-source-maps', join(DIST, `bench/${name}.js`)], {
      cwd: ROOT,
      env,
      show: true,
    });
    if (done.code !== 0) throw new Stop(`The measurement “${name}” failed; its last words stand above.`);
  } finally {
    await cluster.stop();
  }
});
