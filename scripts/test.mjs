/**
 * `npm test`: installs what the tests need, runs all of them, and ends in a line `N passed, N failed`.
 * `npm test -- NAME …` runs the files whose path holds a name, and no checks; what follows another `--` goes to their runners.
 */
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, chmodSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from './lib/folders.mjs';
import { ensureDebian, TO_TEST } from './lib/debian.mjs';
import { ensureNpm } from './lib/npm.mjs';
import { freePort } from './lib/ports.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { run } from './lib/processes.mjs';
import { main, say } from './lib/say.mjs';
import { UNHANDLED_ERRORS } from './lib/unhandled-errors.mjs';

const bin = (name) => join(ROOT, 'node_modules/.bin', name);
const more = process.argv.includes('--', 2) ? process.argv.indexOf('--', 2) : process.argv.length;
const names = process.argv.slice(2, more);
const toRunners = process.argv.slice(more + 1);
const sum = { passed: 0, failed: 0 };
/** What failed, with its reason: said once more at the end, where whoever reads only the end sees it. */
const failures = [];

/** A check that is not a test of its own still fails the run. */
async function check(what, program, args) {
  say(`\n— ${what}`);
  const done = await run(program, args, { cwd: ROOT });
  if (done.code === 0) return;
  say(done.out);
  failures.push(what);
  sum.failed += 1;
}

/** Adds up what a runner of tests counted; one that ended badly though no test failed is a failure of its own. */
function count(passed = 0, failed = 1, code) {
  sum.passed += passed;
  sum.failed += Math.max(failed, code === 0 ? 0 : 1);
  if (code !== 0 && !failures.length) failures.push(`The tests ended with code ${code} and no reason.`);
}

function read(file) {
  const path = join(ROOT, 'test-results', file);
  return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : undefined;
}

/** The files named, of those in folders with an ending; none where nothing is named. @returns undefined where none of them is */
function named(folders, ending) {
  if (!names.length) return [];
  const files = folders.flatMap((folder) =>
    readdirSync(join(ROOT, folder), { recursive: true }).map((f) => `${folder}/${f}`),
  );
  const found = files.filter(
    (f) => !f.includes('node_modules') && ending.test(f) && names.some((name) => f.includes(name)),
  );
  return found.length ? found : undefined;
}

async function unitAndServer(database, files) {
  say('\n— unit and server tests');
  const env = {
    ...process.env,
    PANDECTA_TEST_DATABASE: database.url('postgres'),
    PANDECTA_TASKS: join(ROOT, 'dist/server/tasks.js'),
  };
  const done = await run(
    bin('vitest'),
    [
      'run',
      ...files,
      ...toRunners,
      ...['default', 'json', './scripts/lib/unhandled-errors.mjs'].map((reporter) => `--reporter=${reporter}`),
      '--outputFile.json=test-results/unit.json',
    ],
    { cwd: ROOT, env, show: true },
  );
  const result = read('unit.json');
  for (const file of result?.testResults ?? []) {
    if (file.status === 'failed' && file.message) failures.push(`${file.name}\n${file.message}`);
    for (const test of file.assertionResults)
      if (test.status === 'failed') failures.push(`${file.name}\n${test.fullName}\n${test.failureMessages.join('\n')}`);
  }
  failures.push(...(read(UNHANDLED_ERRORS) ?? []).map((error) => `outside of any test: ${error}`));
  count(result?.numPassedTests, result?.numFailedTests, done.code);
}

/** All tests of a file of browser tests, however deep they are grouped. */
const specsOf = ({ specs = [], suites = [] }) => [...specs, ...suites.flatMap(specsOf)];

/** The demo is loaded once; each file of tests has a copy of it (tests/world.ts). */
async function endToEnd(database, folder, files) {
  say('\n— end-to-end tests');
  const { serve } = await import('./lib/serve.mjs');
  const demo = 'pandecta_demo';
  await database.ensureDatabase(demo);
  const data = join(folder, 'e2e');
  const loading = await serve({ databaseUrl: database.url(demo), folder: data, port: await freePort(), demo: true });
  // A database is copied only while no one is connected to it.
  await loading.stop();
  const env = {
    ...process.env,
    PANDECTA_TEST_DATABASE: database.url('postgres'),
    PANDECTA_TEST_DEMO: demo,
    PANDECTA_TEST_FOLDER: data,
    PANDECTA_CHECK_REPLIES: '1',
  };
  const done = await run(bin('playwright'), ['test', ...files, ...toRunners], { cwd: ROOT, env, show: true });
  const { stats, suites = [], errors = [] } = read('end-to-end.json') ?? {};
  for (const { file, title, ok, tests } of suites.flatMap(specsOf))
    if (!ok) failures.push(`${file}\n${title}\n${tests[0]?.results.at(-1)?.error?.message ?? ''}`);
  failures.push(...errors.map((error) => `outside of any test: ${error.message}`));
  count(stats?.expected, stats && stats.unexpected + stats.flaky, done.code);
}

/** Two at a time: each takes one core. */
async function checks() {
  const types = (what, project) => check(what, bin('tsc'), ['-p', project]);
  await Promise.all([
    check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.'])
      .then(() => types('types', 'tsconfig.json'))
      .then(() => types('types of the browser tests', 'tests/tsconfig.json')),
    check('lint', bin('eslint'), ['--max-warnings', '0', '.'])
      .then(() => check('types of the page', bin('vue-tsc'), ['-p', 'apps/web/tsconfig.json']))
      .then(() => types('types of the clipper', 'apps/clipper/tsconfig.json')),
  ]);
}

await main(async () => {
  await ensureDebian(TO_TEST);
  await ensureNpm();
  rmSync(join(ROOT, 'test-results'), { recursive: true, force: true });
  const tests = named(['packages', 'apps', 'demo', 'scripts'], /\.test\.m?ts$|\.test\.mjs$/);
  const specs = named(['tests'], /\.spec\.ts$/);
  if (!names.length) await checks();
  const { buildClipper, buildPrograms, buildWeb } = await import('./lib/build.mjs');
  await buildPrograms();
  if (specs) {
    await buildWeb({ kit: true });
    await buildClipper();
  }
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-test-'));
  chmodSync(folder, 0o755);
  let database;
  const stop = () => database?.stop().catch(() => {});
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void stop().then(() => process.exit(130)));
  try {
    database = await startPostgres(join(folder, 'cluster'), { fast: true });
    if (tests) await unitAndServer(database, tests);
    if (specs) await endToEnd(database, folder, specs);
  } finally {
    await stop();
    rmSync(folder, { recursive: true, force: true });
  }
  for (const failure of failures) say(`\n✘ ${failure.slice(0, 4000)}`);
  say(`\n${sum.passed} passed, ${sum.failed} failed`);
  if (sum.failed || !sum.passed) process.exitCode = 1;
});
