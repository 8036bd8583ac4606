/** `npm start`: everything from nothing to a running Pandecta. */
import { dataFolder } from './lib/folders.mjs';
import { ensureDebian, TO_RUN } from './lib/debian.mjs';
import { ensureNpm } from './lib/npm.mjs';
import { choosePort } from './lib/ports.mjs';
import { keepPostgres, startPostgres } from './lib/postgres.mjs';
import { main, say, Stop } from './lib/say.mjs';

await main(async () => {
  const args = process.argv.slice(2);
  const unknown = args.filter((a) => a !== '--empty');
  if (unknown.length) throw new Stop(`“${unknown[0]}” is not known; npm start takes -- --empty, or nothing.`);
  const empty = args.includes('--empty');
  const asked = process.env.PANDECTA_PORT;
  const port = await choosePort(asked === undefined ? undefined : Number(asked), 4700);
  const own = !process.env.DATABASE_URL;
  await ensureDebian(own ? TO_RUN : TO_RUN.filter((n) => n !== 'postgresql'));
  await ensureNpm();
  const { buildPrograms, buildWeb } = await import('./lib/build.mjs');
  const { keepRunning, serve } = await import('./lib/serve.mjs');
  await buildPrograms();
  await buildWeb();
  const folder = dataFolder(empty ? '-empty' : '');
  const cluster = own ? await startPostgres(folder) : undefined;
  let running;
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await running?.stop();
    await cluster?.stop();
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => void stop().then(() => process.exit(0)));
  try {
    await cluster?.ensureDatabase('pandecta');
    running = await serve({
      databaseUrl: cluster?.url('pandecta') ?? process.env.DATABASE_URL,
      folder,
      port,
      demo: !empty,
    });
  } catch (error) {
    await stop();
    throw error;
  }
  say(`\nPandecta is running at http://127.0.0.1:${port}\n`);
  if (running.first) {
    say('There is no account yet. This link makes the first one; whoever has it first becomes the steward:');
    say(`  http://127.0.0.1:${port}/first#${running.first}`);
  } else if (!empty) {
    say('Demo accounts, all with the password “low-water-1872”:');
    say('  marit@sallow.example   steward      may do everything');
    say('  ines@sallow.example    contributor  may gather, edit, file and mark');
    say('  tobias@sallow.example  reader       may look, read and cite');
  }
  if (running.mailbox) say(`\nMail that is sent is shown at ${running.mailbox}`);
  say(`\nData: ${folder}. Ctrl+C stops everything.`);
  const isStopping = () => stopping;
  await Promise.all([keepRunning(running, isStopping), cluster && keepPostgres(cluster, isStopping)]);
});
