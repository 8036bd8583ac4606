/**
 * Requests nobody would send, and files nobody would write: so many of each that something must give, if anything does. Said
 * is how many answers of 500 there were, what took longer than two seconds, what was thrown, and how much memory stood at the end.
 * There is no reference: all but the memory must be 0. FUZZ_BODIES says how many of each sort.
 */
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { takeApart } from '@pandecta/core/door';
import { EXPORT_FORMATS, readAs, readSources, writeSources } from '@pandecta/core/formats';
import { readPage, tooDeep } from '@pandecta/core/pages';
import { parseQuery } from '@pandecta/core/query';
import { readReference } from '@pandecta/core/references';
import { broken } from '@pandecta/core/testing';
import { isRdf, readSkos, readVocabularyTable } from '@pandecta/core/vocabulary';
import { fuzzer, operationsOf, type Api } from '@pandecta/server/testing/fuzz';
import { makeLibrary } from '@pandecta/server/testing/library';
import { Person } from '@pandecta/server/testing/server';
import { freePort } from '../scripts/lib/ports.mjs';
import { synthetic, table } from './measure.ts';
import { startBench } from './server.ts';
import { makePeople } from './withstand/people.ts';

const BODIES = Number(process.env.FUZZ_BODIES ?? 100_000);
const SEED = Number(process.env.FUZZ_SEED ?? 4700);
const LONG_MS = 2000;

interface Sum {
  done: number;
  failed: number;
  slow: number;
  longest: number;
  first?: string;
}
const sums = new Map<string, Sum>();
function note(of: string, ms: number, failed: string | undefined): void {
  const sum = sums.get(of) ?? { done: 0, failed: 0, slow: 0, longest: 0 };
  sums.set(of, sum);
  sum.done += 1;
  sum.longest = Math.max(sum.longest, ms);
  if (ms > LONG_MS) sum.slow += 1;
  if (failed !== undefined) {
    sum.failed += 1;
    sum.first ??= failed.slice(0, 400);
  }
}

/** Every reader, with files of its own sort that were broken. */
async function readers(): Promise<void> {
  const sources = synthetic(6, 30);
  const html = `<html lang="en"><head><title>Tides</title><meta name="citation_title" content="Tides"><script type="application/ld+json">{"@type":"Article","name":"Tides","author":{"name":"Ida Vance"}}</script></head><body><article><h1>Tides</h1>${'<p>The ebb ran late <i>that</i> year.</p>'.repeat(20)}</article></body></html>`;
  const skos =
    '@prefix skos: <http://www.w3.org/2004/02/skos/core#> . <a> a skos:Concept ; skos:prefLabel "silt"@en ; skos:broader <b> .';
  const list = 'Vance, I. (1999). Tides of the estuary. Journal of Silt, 4(2), 1–20. https://doi.org/10.5555/x';
  const all: [string, string[], (text: string) => unknown][] = [
    ...EXPORT_FORMATS.map((format): [string, string[], (text: string) => unknown] => {
      const text = writeSources(sources, format);
      const read = readSources(text)!.format;
      return [format, [text], (t) => readAs(read, t)];
    }),
    ['any file', EXPORT_FORMATS.map((f) => writeSources(sources, f)), (t) => readSources(t)],
    ['pages', [html], (t) => readPage(tooDeep(t) ? '' : t, 'https://a.example/')],
    ['typed', [list, `${list}\n\n10.5555/abc\n978-3-16-148410-0`], takeApart],
    ['references', [list], readReference],
    [
      'questions',
      ['title:(ebb OR "flood tide") -year:1990..2000 has:pdf', 'near("a" "b" 5) tag:x'],
      (t) => parseQuery(t.slice(0, 2000)),
    ],
    [
      'vocabularies',
      [skos, 'name,meaning,broader\nsilt,fine,mud\n'],
      (t) => (isRdf(t) ? readSkos(t).catch((e: Error) => void e) : readVocabularyTable(t)),
    ],
  ];
  for (const [name, texts, read] of all) {
    const samples = fc.sample(broken(texts), { numRuns: Math.min(BODIES, 2000), seed: SEED });
    for (let i = 0; i < BODIES; i += 1) {
      const text = i < samples.length ? samples[i]! : fc.sample(broken(texts), { numRuns: 1, seed: SEED + i })[0]!;
      const start = performance.now();
      let failed: string | undefined;
      try {
        await read(text);
      } catch (error) {
        failed = `${(error as Error).stack}\n${JSON.stringify(text.slice(0, 300))}`;
      }
      note(`reader: ${name}`, performance.now() - start, failed);
    }
    console.log(`${name}: ${Math.round(sums.get(`reader: ${name}`)!.longest)} ms at most`);
  }
}

/** Every operation of the API, of a server that is a process of its own. */
async function operations(): Promise<void> {
  const bench = await startBench('fuzz');
  const { db, config } = bench.app.services;
  const [someone] = await makePeople(db, bench.workspace.id, 1);
  await db.execute(`update members set role = 'steward' where workspace_id = '${bench.workspace.id}'` as never);
  const info = { csrf: someone!.csrf } as never;
  const library = await makeLibrary(new Person(bench.base, someone!.cookie, info, bench.workspace.id));
  const api = (await (await fetch(`${bench.base}/api/openapi.json`)).json()) as Api;
  await bench.app.app.close();
  await bench.app.services.jobs.stop();
  await bench.app.services.followers.stop();
  const port = await freePort();
  const server = spawn(process.execPath, ['--enable-source-maps', join(config.tasksFile!, '../main.js')], {
    env: { ...process.env, PANDECTA_PORT: String(port) },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  await new Promise((resolve) => server.once('message', resolve));
  let died = false;
  server.once('exit', () => (died = true));
  const memory = (): number =>
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))?.[1]) / 1024;
  const before = memory();
  const make = fuzzer(api, { ...library, workspace: bench.workspace.id });
  const some = operationsOf(api).filter((o) => !/\/live$|\/session|first-account/.test(o.path));
  const each = Math.ceil(BODIES / some.length);
  const queue = some.flatMap((o) => Array.from({ length: Math.ceil(each / 50) }, (_, share) => ({ o, share })));
  const lanes = Array.from({ length: 6 }, async () => {
    for (let next = queue.shift(); next && !died; next = queue.shift()) {
      const { o, share } = next;
      for (const { path, body } of fc.sample(make(o), { numRuns: Math.min(50, each), seed: SEED + share })) {
        const start = performance.now();
        const response = await fetch(`http://127.0.0.1:${port}${path}`, {
          method: o.method,
          headers: {
            cookie: someone!.cookie,
            'x-csrf-token': someone!.csrf,
            ...(body !== undefined && { 'content-type': 'application/json' }),
          },
          redirect: 'manual',
          ...(body !== undefined && { body }),
        }).catch(() => undefined);
        const says = await response?.text().catch(() => '');
        const bad = !response || response.status === 500;
        note(`${o.method} ${o.path}`, performance.now() - start, bad ? `${path} ${body} ${says}` : undefined);
      }
    }
  });
  await Promise.all(lanes);
  console.log(
    `Memory of the server: ${Math.round(before)} MB before, ${Math.round(memory())} MB after. It ${died ? 'died' : 'lived'}.`,
  );
  server.kill();
}

const only = process.env.FUZZ_ONLY;
if (only !== 'operations') await readers();
if (only !== 'readers') await operations();
const sorted = [...sums].sort(([, a], [, b]) => b.failed - a.failed || b.longest - a.longest);
table(
  `Of ${BODIES.toLocaleString('en')} each: what failed, and what took longest`,
  ['of', 'done', 'failed', `over ${LONG_MS} ms`, 'ms longest'],
  sorted.slice(0, 30).map(([name, s]) => [name, s.done, s.failed, s.slow, s.longest]),
);
for (const [name, s] of sorted) if (s.first) console.log(`${name}: ${s.first}`);
process.exit(0);
