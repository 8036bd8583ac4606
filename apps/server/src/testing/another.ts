/** A server in a process of its own, and a line to the database that can be cut. */
import { spawn, type ChildProcess } from 'node:child_process';
import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { dirname, join } from 'node:path';
import { freePort } from '../../../../scripts/lib/ports.mjs';
import type { Config } from '../config.ts';

const listening = (server: Server, port = 0): Promise<number> =>
  new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port));
  });

/** A server on the same database and files; resolves when it answers. */
export async function anotherServer(
  config: Config,
  databaseUrl = config.databaseUrl,
): Promise<{ child: ChildProcess; base: string }> {
  const port = await freePort();
  const child = spawn(process.execPath, [join(dirname(process.env.PANDECTA_TASKS!), 'main.js')], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PANDECTA_DATA: config.dataFolder,
      PANDECTA_PORT: String(port),
      PANDECTA_MIGRATIONS: config.migrationsFolder,
    },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve());
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  return { child, base: `http://127.0.0.1:${port}` };
}

export interface Line {
  /** The database, by way of the line. */
  url: string;
  /** From now on no one gets through, and who was through is cut off. */
  cut(): Promise<void>;
  mend(): Promise<void>;
}

export async function lineTo(databaseUrl: string): Promise<Line> {
  const to = new URL(databaseUrl);
  const open = new Set<Socket>();
  const make = (): Server =>
    createServer((near) => {
      const far = connect(Number(to.port), to.hostname);
      for (const [from, into] of [
        [near, far],
        [far, near],
      ] as const) {
        open.add(from);
        from.on('error', () => {});
        from.on('close', () => (open.delete(from), into.destroy()));
        from.pipe(into);
      }
    });
  let server = make();
  const port = await listening(server);
  const url = new URL(databaseUrl);
  url.port = String(port);
  return {
    url: url.href,
    cut: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        for (const socket of open) socket.destroy();
      }),
    mend: async () => {
      server = make();
      await listening(server, port);
    },
  };
}
