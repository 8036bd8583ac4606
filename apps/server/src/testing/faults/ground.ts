/** A whole installation, kept as `npm start` keeps it, on disks and with a clock of its own: what may fail of a machine can fail here. */
import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import type { SessionInfo } from '@pandecta/contract';
import { fakeClock } from '../../../../../scripts/lib/debian.mjs';
import { freePort } from '../../../../../scripts/lib/ports.mjs';
import { keepPostgres, startPostgres } from '../../../../../scripts/lib/postgres.mjs';
import { keepRunning, serve } from '../../../../../scripts/lib/serve.mjs';
import { connect, type Database } from '../../database/connect.ts';
import { makeWorkspace, Person } from '../server.ts';

/** A disk in memory: as large as is said, and no larger. */
export class Disk {
  private constructor(readonly folder: string) {}

  /** @returns undefined where this machine lets nobody make one */
  static make(folder: string): Disk | undefined {
    mkdirSync(folder, { recursive: true });
    const made = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=2g,mode=755', 'tmpfs', folder]);
    return made.status === 0 ? new Disk(folder) : undefined;
  }

  /** @param left bytes that may still be written */
  fill(left: number): void {
    const { blocks, bfree, bsize } = statfsSync(this.folder);
    this.resize(String((blocks - bfree) * bsize + left));
  }

  free(): void {
    this.resize('2g');
  }

  remove(): void {
    spawnSync('umount', ['-l', this.folder]);
  }

  private resize(size: string): void {
    // While others mount and unmount, it may not be seen among what is mounted.
    for (let tries = 0; ; tries += 1) {
      const done = spawnSync('mount', ['-o', `remount,size=${size}`, this.folder], { encoding: 'utf8' });
      if (done.status === 0) return;
      if (tries === 2) throw new Error(done.stderr);
    }
  }
}

export interface Ground {
  database: Database;
  disks: { files: Disk; database: Disk } | undefined;
  /** Sets the clock of server and database so many seconds from the right one; all their processes have it within two. */
  setClock(seconds: number): Promise<void>;
  killServer(): void;
  killDatabase(): Promise<void>;
  /** A steward of a workspace with nothing in it. */
  person(): Promise<Person>;
  close(): Promise<void>;
}

/** As patient as `npm start`, in a tenth of the time, and never longer than half a second. */
const soon = (ms: number): Promise<unknown> => setTimeout(Math.min(ms / 10, 500));

/** The clock is looked at anew once its second is over and another has begun. */
const CLOCK_KNOWN_MS = 2100;

/** What was set up is taken down again, the last first, also where something failed on the way. */
class Standing {
  private readonly down: (() => unknown)[] = [];

  until(taken: () => unknown): void {
    this.down.unshift(taken);
  }
  async fall(): Promise<void> {
    for (const taken of this.down.splice(0)) await taken();
  }
}

export async function layGround(): Promise<Ground> {
  const standing = new Standing();
  return lay(standing).catch(async (error: unknown) => {
    await standing.fall();
    throw error;
  });
}

async function lay(standing: Standing): Promise<Ground> {
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-faults-'));
  standing.until(() => rmSync(folder, { recursive: true, force: true }));
  chmodSync(folder, 0o755);
  const at = (name: string): string => join(folder, name);
  const small = [Disk.make(at('db')), Disk.make(at('files'))];
  standing.until(() => small.forEach((disk) => disk?.remove()));
  const clock = at('clock');
  const setClock = async (seconds: number): Promise<void> => {
    writeFileSync(`${clock}.new`, `${seconds < 0 ? '' : '+'}${seconds}`);
    renameSync(`${clock}.new`, clock);
    await setTimeout(CLOCK_KNOWN_MS);
  };
  await setClock(0);
  const lib = fakeClock();
  const env: Record<string, string> = lib
    ? {
        LD_PRELOAD: lib,
        FAKETIME_TIMESTAMP_FILE: clock,
        FAKETIME_CACHE_DURATION: '1',
        FAKETIME_DONT_FAKE_MONOTONIC: '1',
      }
    : {};
  let stopping = false;
  const isStopping = (): boolean => stopping;
  const cluster = await startPostgres(at('db'), { env });
  const kept: Promise<unknown>[] = [];
  standing.until(async () => {
    await cluster.stop();
    await Promise.all(kept);
  });
  await cluster.ensureDatabase('pandecta');
  const databaseUrl = cluster.url('pandecta');
  const port = await freePort();
  const running = await serve({ databaseUrl, folder: at('files'), port, demo: false, quiet: true, env });
  standing.until(() => running.stop());
  kept.push(keepPostgres(cluster, isStopping, soon), keepRunning(running, isStopping, soon));
  const database = connect(databaseUrl);
  standing.until(() => {
    stopping = true;
    return database.close();
  });
  const base = `http://127.0.0.1:${port}`;
  const first = await fetch(`${base}/api/first-account`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      token: running.first,
      name: 'A steward',
      email: 'steward@sallow.example',
      password: 'a long enough password',
      workspace: 'First',
    }),
  });
  if (!first.ok) throw new Error(await first.text());
  const cookie = first.headers.get('set-cookie')!.split(';')[0]!;
  const info = (await first.json()) as SessionInfo;
  return {
    database,
    disks: small[0] && small[1] && { database: small[0], files: small[1] },
    setClock,
    killServer: () => void running.newest().kill('SIGKILL'),
    async killDatabase() {
      const main = readFileSync(at('db/db/postmaster.pid'), 'utf8').split('\n')[0]!;
      const serving = readFileSync(`/proc/${main}/task/${main}/children`, 'utf8').match(/\d+/g) ?? [];
      process.kill(Number(main), 'SIGKILL');
      // Who serves a connection notices when they next wait, and answers until then.
      for (let i = 0; i < 500 && serving.some((pid) => existsSync(`/proc/${pid}`)); i += 1) await setTimeout(10);
    },
    async person() {
      const id = await makeWorkspace(database.db);
      await database.db.execute(
        sql`insert into members (workspace_id, user_id, role) values (${id}, ${info.userId}, 'steward')`,
      );
      return new Person(base, cookie, info, id);
    },
    close: () => standing.fall(),
  };
}
