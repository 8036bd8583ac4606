/** Starts the whole of Pandecta on a database: stand-ins, demo data on the first run, server. */
import { randomBytes } from 'node:crypto';
import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { ROOT } from './folders.mjs';
import { DIST } from './build.mjs';
import { run, startNode } from './processes.mjs';
import { freePort, isFree } from './ports.mjs';
import { say, Stop } from './say.mjs';

/**
 * @param quiet nothing is said
 * @param more more of an environment for its processes
 */
export async function serve({ databaseUrl, folder, port, demo, quiet = false, env: more = {} }) {
  const registryPort = await freePort();
  const mailPort = await freePort();
  const firstToken = randomBytes(24).toString('base64url');
  const env = {
    DATABASE_URL: databaseUrl,
    PANDECTA_DATA: folder,
    PANDECTA_PORT: String(port),
    PANDECTA_WEB: join(DIST, 'web'),
    PANDECTA_MIGRATIONS: join(ROOT, 'apps/server/migrations'),
    PANDECTA_REGISTRY: `http://127.0.0.1:${registryPort}/doi`,
    PANDECTA_STANDINS_PORT: String(registryPort),
    PANDECTA_MAILBOX_PORT: String(mailPort),
    // Without a server of one's own, mail goes into a mailbox that is shown.
    PANDECTA_SMTP: process.env.PANDECTA_SMTP ?? `smtp://127.0.0.1:${mailPort}`,
    // The invented world outside, wherever the stand-ins listen this time.
    PANDECTA_HOSTS: ['packet', 'catalogues']
      .map((name) => `${name}.sallow.example=127.0.0.1:${registryPort}`)
      .join(' '),
    NODE_ENV: 'production',
    NODE_OPTIONS: '--enable-source-maps',
    ...(demo ? {} : { PANDECTA_FIRST_TOKEN: firstToken }),
    ...more,
  };
  const standins = startNode(join(DIST, 'standins/main.js'), env, { inherit: !quiet });
  await standins.ready;
  const parts = [standins];
  try {
    const loaded = join(folder, 'demo.loaded');
    if (demo && !existsSync(loaded)) {
      if (!quiet) say('Loading the demo: the Sallow Estuary Inquiry');
      const done = await run(process.execPath, [join(DIST, 'server/demo.js')], {
        env: { ...process.env, ...env },
        cwd: ROOT,
      });
      if (done.code !== 0) throw new Stop(`The demo could not be loaded: ${done.out.trim().slice(-1500)}`);
      writeFileSync(loaded, new Date().toISOString());
    }
    const startServer = async () => {
      // A connection of the loading may have been given the port that was free before; it ends soon.
      for (let i = 0; i < 100 && !(await isFree(port)); i += 1) await setTimeout(200);
      const server = startNode(join(DIST, 'server/main.js'), env, { inherit: !quiet });
      parts.unshift(server);
      await server.ready;
      return server;
    };
    const server = await startServer();
    const first = (await server.ready) === 'ready' ? undefined : firstToken;
    const mailbox = process.env.PANDECTA_SMTP ? undefined : `http://127.0.0.1:${registryPort}/mail`;
    return { server, startServer, newest: () => parts[0].child, env, mailbox, first, stop: () => stopAll(parts) };
  } catch (error) {
    await stopAll(parts);
    throw error;
  }
}

const AGAIN_AFTER_MS = { first: 1000, most: 60_000 };
/** A server that ran so long did not die of how it was started. */
const WELL_MS = 60_000;

/**
 * Starts a server that died anew, after a pause that grows while it keeps dying.
 * @param isStopping whether it ended because it was told to
 */
export async function keepRunning({ server, startServer }, isStopping, wait = setTimeout) {
  for (let pause = AGAIN_AFTER_MS.first; ;) {
    const begun = Date.now();
    const code = await server.ended;
    if (isStopping()) return;
    if (Date.now() - begun > WELL_MS) pause = AGAIN_AFTER_MS.first;
    say(`The server ended by itself (${code}); its last words stand above. It is started again in ${pause / 1000} s.`);
    await wait(pause);
    if (isStopping()) return;
    pause = Math.min(pause * 2, AGAIN_AFTER_MS.most);
    server = await startServer().catch(() => server);
  }
}

async function stopAll(parts) {
  for (const part of parts) await part.stop();
}
