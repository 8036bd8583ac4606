/** `npm run dev`: the server as `npm start` has it on port 4700, and the page from its development server. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { buildPrograms } from './lib/build.mjs';
import { dataFolder, ROOT } from './lib/folders.mjs';
import { choosePort } from './lib/ports.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { main, say } from './lib/say.mjs';
import { serve } from './lib/serve.mjs';

await main(async () => {
  await buildPrograms();
  const folder = dataFolder('-dev');
  const port = await choosePort(4700, 4700);
  const cluster = await startPostgres(folder);
  await cluster.ensureDatabase('pandecta');
  const running = await serve({ databaseUrl: cluster.url('pandecta'), folder, port, demo: true });
  const page = spawn(process.execPath, [join(ROOT, 'node_modules/vite/bin/vite.js')], {
    cwd: join(ROOT, 'apps/web'),
    stdio: 'inherit',
  });
  say('Ctrl+C stops everything.');
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => {
      page.kill();
      void running
        .stop()
        .then(() => cluster.stop())
        .then(() => process.exit(0));
    });
  }
});
