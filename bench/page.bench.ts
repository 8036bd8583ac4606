/** The page on a large library: first load, keystroke to results, scrolling; and the weight of its scripts. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from 'playwright';
import { formatNumber } from '@pandecta/core/wording';
import { CHROMIUM } from '../tests/chromium.ts';
import { ensureLibrary } from './library.ts';
import { quantile, table } from './measure.ts';
import { PASSWORD, startBench } from './server.ts';

const COUNT = Number(process.env.BENCH_SOURCES ?? 100_000);
const bench = await startBench('library');
await ensureLibrary(bench, COUNT);

const browser = await chromium.launch(CHROMIUM);
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await page.goto(bench.base);
await page.getByLabel('E-mail address').fill('library@bench.example');
await page.getByLabel('Password').fill(PASSWORD);
await page.getByRole('button', { name: 'Sign in' }).click();
const ledger = page.getByRole('listbox', { name: 'Sources' });
await ledger.getByRole('option').first().waitFor();

const loads: number[] = [];
const scripts = new Set<string>();
page.on('response', (r) => r.url().endsWith('.js') && scripts.add(r.url().split('/').at(-1)!));
for (let i = 0; i < 5; i += 1) {
  const start = performance.now();
  await page.goto(`${bench.base}/sources`, { waitUntil: 'commit' });
  await ledger.getByRole('option').first().waitFor();
  loads.push(performance.now() - start);
}
const weight = readdirSync(join(process.env.PANDECTA_WEB!, 'assets'))
  .filter((n) => scripts.has(n))
  .reduce((sum, n) => sum + gzipSync(readFileSync(join(process.env.PANDECTA_WEB!, 'assets', n))).length, 0);

/** Resolves when the answer is there. */
async function listed(): Promise<void> {
  await ledger.getByRole('option').first().waitFor();
  await page.waitForFunction(() => document.querySelector('#ledger')?.getAttribute('aria-busy') === 'false');
}
/** Told in the page: from a key going down to the frame in which an answer that knows of it was drawn. */
await page.addInitScript(() => {
  const waiting: number[] = [];
  const times = { answered: [] as number[], painted: [] as number[] };
  Object.assign(window, { times });
  addEventListener('keydown', (e) => waiting.push(e.timeStamp), true);
  const ask = window.fetch;
  window.fetch = async (input, init) => {
    const known = waiting.length;
    const response = await ask(input, init);
    if (!String(input).includes('/sources?')) return response;
    const read = response.json.bind(response);
    response.json = async () => {
      const answer: unknown = await read();
      const keys = waiting.splice(0, known);
      for (const key of keys) times.answered.push(performance.now() - key);
      requestAnimationFrame(() =>
        setTimeout(() => {
          for (const key of keys) times.painted.push(performance.now() - key);
        }),
      );
      return answer;
    };
    return response;
  };
});
await page.goto(`${bench.base}/sources`);
await listed();
await page.getByRole('combobox', { name: 'Ask' }).focus();
for (const letter of 'estuary licence harbour marsh') {
  const start = performance.now();
  await page.keyboard.press(letter === ' ' ? 'Space' : letter);
  // A quick typist: some 70 words a minute.
  await page.waitForTimeout(Math.max(0, 170 - (performance.now() - start)));
}
await page.waitForTimeout(1000);
const { answered, painted } = await page.evaluate(
  () => (window as unknown as { times: { answered: number[]; painted: number[] } }).times,
);
await page.goto(`${bench.base}/sources`);
await listed();
/** Frames while scrolling through all of it: how long each took, and how long any stood blank. */
const scroll = await page.evaluate(async () => {
  const box = document.querySelector('#ledger')!;
  const frames: number[] = [];
  let blank = 0;
  let longestBlank = 0;
  let last = performance.now();
  const end = box.scrollHeight - box.clientHeight;
  for (let i = 1; i <= 240; i += 1) {
    box.scrollTop = (end * i) / 240;
    await new Promise((r) => requestAnimationFrame(r));
    const now = performance.now();
    frames.push(now - last);
    const shown =
      box.querySelectorAll('[role=option]').length > 0 &&
      box.querySelectorAll('[role=option] p, [role=option] .rounded').length > 0;
    blank = shown ? 0 : blank + now - last;
    longestBlank = Math.max(longestBlank, blank);
    last = now;
  }
  return { frames, longestBlank };
});
/** From a jump anywhere to the words of the lines there: until then they are drawn as bars. */
const jumps = await page.evaluate(async () => {
  const box = document.querySelector('#ledger')!;
  const out: number[] = [];
  for (let i = 0; i < 20; i += 1) {
    const start = performance.now();
    box.scrollTop = ((box.scrollHeight - box.clientHeight) * ((i * 7) % 20)) / 20;
    await new Promise((r) => requestAnimationFrame(r));
    do await new Promise((r) => requestAnimationFrame(r));
    while (box.querySelector('[role=option] > [aria-hidden]') || !box.querySelector('[role=option]'));
    out.push(performance.now() - start);
  }
  return out;
});
table(
  `The page at ${formatNumber(COUNT)} sources`,
  ['what', 'p50', 'p95'],
  [
    ['first load to the first line, ms', quantile(loads, 0.5), quantile(loads, 0.95)],
    ['keystroke to the answer, ms', quantile(answered, 0.5), quantile(answered, 0.95)],
    ['keystroke to painted results, ms', quantile(painted, 0.5), quantile(painted, 0.95)],
    ['frame while scrolling all of it, ms', quantile(scroll.frames, 0.5), quantile(scroll.frames, 0.95)],
    ['longest with no line drawn, ms', scroll.longestBlank, ''],
    ['a jump to the words of its lines, ms', quantile(jumps, 0.5), quantile(jumps, 0.95)],
    ['scripts of the first load, kB compressed', weight / 1000, ''],
  ],
);
await browser.close();
await bench.close();
process.exit(0);
