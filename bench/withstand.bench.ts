/**
 * Twenty people at work while others do harm: how long a small request takes, beside the same people undisturbed in the same
 * run. The server is a process of its own and who attacks a thread of its own; all share the machine.
 */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { sql } from 'drizzle-orm';
import { purge } from '@pandecta/server/sources/purge';
import { formatNumber } from '@pandecta/core/wording';
import { freePort } from '../scripts/lib/ports.mjs';
import { ensureLibrary } from './library.ts';
import { quantile, table } from './measure.ts';
import { startBench } from './server.ts';
import { ATTACKS } from './withstand/attacks.ts';
import { makePeople, ordinary, type Person } from './withstand/people.ts';

/** In the thread of who attacks: as fast as it is answered, for as long as it is measured. */
interface Harm {
  name: string;
  base: string;
  attackers: Person[];
}
async function attack({ name, base, attackers }: Harm): Promise<void> {
  const { lanes, once } = ATTACKS.find((a) => a.name === name)!;
  const until = performance.now() + FOR_MS;
  let sent = 0;
  await Promise.all(
    Array.from({ length: lanes }, async (_, lane) => {
      for (let nth = lane; performance.now() < until; nth += lanes) {
        await once(base, attackers[lane % 2]!, nth).catch(() => {});
        sent += 1;
      }
    }),
  );
  parentPort!.postMessage(sent);
}

const COUNT = Number(process.env.BENCH_SOURCES ?? 20_000);
const FOR_MS = Number(process.env.BENCH_SECONDS ?? 20) * 1000;
async function main(): Promise<void> {
  const only = process.env.BENCH_ATTACK;

  const bench = await startBench('withstand');
  await ensureLibrary(bench, COUNT);
  const { db, config } = bench.app.services;
  const [, ...attackers] = await makePeople(db, bench.workspace.id, 9);
  const people = await makePeople(db, bench.workspace.id, 20);
  const ids = (
    await db.execute(sql`select id from sources where workspace_id = ${bench.workspace.id} order by id limit 500`)
  ).rows.map((r) => r.id as string);
  const { storage, database } = bench.app.services;
  const workspace = bench.workspace.id;
  /** What was begun ends, and what it left goes: the library is the same for every attack. */
  const clear = async (): Promise<void> => {
    await db.execute(sql`update jobs set cancel = true where workspace_id = ${workspace}`);
    await db.execute(sql`update jobs set state = 'cancelled' where workspace_id = ${workspace} and state = 'waiting'`);
    for (let going = 1; going;) {
      await setTimeout(500);
      const { rows } = await db.execute(
        sql`select count(*)::int as n from jobs where workspace_id = ${workspace} and state = 'running'`,
      );
      going = rows[0]!.n as number;
    }
    await purge(db, storage, sql`workspace_id = ${workspace} and import_id is not null`);
    await setTimeout(3000);
  };
  await bench.app.services.jobs.stop();
  await bench.app.services.followers.stop();
  await bench.app.app.close();

  const port = await freePort();
  const server = spawn(
    process.execPath,
    [
      '--enable-source-maps',
      ...(process.env.BENCH_NODE ?? '').split(' ').filter(Boolean),
      join(config.tasksFile!, '../main.js'),
    ],
    {
      env: { ...process.env, PANDECTA_PORT: String(port) },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    },
  );
  await new Promise((resolve) => server.once('message', resolve));
  let died = false;
  server.once('exit', () => (died = true));
  const base = `http://127.0.0.1:${port}`;
  await clear();
  await ordinary(base, people, ids, 5000);

  const lines: (string | number)[][] = [];
  for (const attack of ATTACKS.filter((a) => !a.lanes || !only || new RegExp(only).test(a.name))) {
    const thread = new Worker(new URL(import.meta.url), {
      workerData: { name: attack.name, base, attackers } satisfies Harm,
    });
    const done = new Promise<number>((resolve) => thread.once('message', resolve));
    const times = await ordinary(base, people, ids, FOR_MS);
    const sent = await Promise.race([done, setTimeout(30_000, 0)]);
    await thread.terminate();
    lines.push([attack.name, sent, times.length, quantile(times, 0.5), quantile(times, 0.95), Math.max(...times)]);
    console.log(lines.at(-1)!.join(' | '));
    await clear();
  }
  table(
    `${people.length} people at ${formatNumber(COUNT)} sources, while …`,
    ['who does what', 'harmful requests', 'small requests', 'ms p50', 'p95', 'worst'],
    lines,
  );
  console.log(died ? 'The server died.' : 'The server lived.');
  await database.close();
  server.kill();
  await new Promise((resolve) => server.once('exit', resolve));
}

if (isMainThread) {
  await main();
  process.exit(0);
}
await attack(workerData as Harm);
