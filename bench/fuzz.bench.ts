/**
 * Files nobody would write: so many of each sort that something must give, if anything does. Said is what was thrown and what took
 * longer than two seconds; then requests of every operation, of which none may be answered with 500. There is no reference: all must
 * be 0. FUZZ_BODIES says how many files of each sort, FUZZ_RUNS how many requests of each operation, FUZZ_OF
 * which readers.
 */
import fc from 'fast-check';
import { broken, readersOf } from '@pandecta/core/testing';
import { fuzzOperations, type Api } from '@pandecta/server/testing/fuzz';
import { makeLibrary } from '@pandecta/server/testing/library';
import { startTestServer } from '@pandecta/server/testing/server';
import { formatNumber } from '@pandecta/core/wording';
import { synthetic, table } from './measure.ts';

const BODIES = Number(process.env.FUZZ_BODIES ?? 100_000);
const RUNS = Number(process.env.FUZZ_RUNS ?? 700);
const SEED = Number(process.env.FUZZ_SEED ?? 4700);
const OF = new RegExp(process.env.FUZZ_OF ?? '');
const LONG_MS = 2000;

interface Sum {
  done: number;
  failed: number;
  slow: number;
  longest: number;
  first?: string;
  /** Which file took longest, and how long its thread was at it. */
  nth: number;
  ofThread: number;
}
const sums = new Map<string, Sum>();
function note(of: string, ms: number, ofThread: number, failed: string | undefined): void {
  const sum = sums.get(of) ?? { done: 0, failed: 0, slow: 0, longest: 0, nth: 0, ofThread: 0 };
  sums.set(of, sum);
  sum.done += 1;
  if (ms > sum.longest) Object.assign(sum, { longest: ms, nth: sum.done, ofThread });
  if (ms > LONG_MS) sum.slow += 1;
  if (failed !== undefined) {
    sum.failed += 1;
    sum.first ??= failed.slice(0, 400);
  }
}

/** Every reader, with files of its own sort that were broken. */
async function readers(): Promise<void> {
  for (const { name, texts, read } of readersOf(synthetic(6, 30)).filter((r) => OF.test(r.name))) {
    const samples = fc.sample(broken(texts), { numRuns: Math.min(BODIES, 2000), seed: SEED });
    for (let i = 0; i < BODIES; i += 1) {
      const text = i < samples.length ? samples[i]! : fc.sample(broken(texts), { numRuns: 1, seed: SEED + i })[0]!;
      const start = performance.now();
      const cpu = process.cpuUsage();
      let failed: string | undefined;
      try {
        await read(text);
      } catch (error) {
        failed = `${(error as Error).stack}\n${JSON.stringify(text.slice(0, 300))}`;
      }
      const { user, system } = process.cpuUsage(cpu);
      note(`reader: ${name}`, performance.now() - start, (user + system) / 1000, failed);
    }
    const { longest, nth, ofThread, failed, first = '' } = sums.get(`reader: ${name}`)!;
    const most = `${Math.round(longest)} ms at most, ${Math.round(ofThread)} of the processor, the ${nth}.`;
    console.log(`${name}: ${failed} failed; ${most} ${first}`);
  }
}

/** Many at once, as many as a member has in hand. */
async function operations(): Promise<void> {
  process.env.PANDECTA_TEST_DATABASE = process.env.DATABASE_URL!;
  const server = await startTestServer();
  const lines = await Promise.all(
    [0, 1].map(async (nth) => {
      const me = await server.person('steward');
      const ids = { ...(await makeLibrary(me)), workspace: me.workspace };
      const api = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as Api;
      const as = { cookie: me.cookie, 'x-csrf-token': me.info.csrf };
      const { sent, failed, longest } = await fuzzOperations(server.base, api, ids, as, {
        runs: Math.ceil(RUNS / 2),
        seed: SEED + nth,
      });
      for (const what of failed) console.log(what.slice(0, 1000));
      console.log(`the longest: ${longest.what.slice(0, 300)}`);
      return [sent, failed.length, longest.ms, process.memoryUsage().rss / 1024 ** 2];
    }),
  );
  table('Requests of every operation', ['sent', 'answered with 500', 'ms longest', 'MB at the end'], lines);
  await server.close();
}

if (RUNS) await operations();
await readers();
const sorted = [...sums].sort(([, a], [, b]) => b.failed - a.failed || b.longest - a.longest);
table(
  `Of ${formatNumber(BODIES)} each: what failed, and what took longest`,
  ['of', 'done', 'failed', `over ${LONG_MS} ms`, 'ms longest'],
  sorted.slice(0, 30).map(([name, s]) => [name, s.done, s.failed, s.slow, s.longest]),
);
process.exit(0);
