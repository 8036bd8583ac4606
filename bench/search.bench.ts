/** Milliseconds a question takes through the HTTP API at 100,000 sources, beside the bare SQL of a plain design. */
import { formatNumber } from '@pandecta/core/wording';
import { quantile, table } from './measure.ts';
import { ensureLibrary } from './library.ts';
import { startBench } from './server.ts';

const COUNT = Number(process.env.BENCH_SOURCES ?? 100_000);
const RUNS = Number(process.env.BENCH_RUNS ?? 40);
const bench = await startBench('library');
await ensureLibrary(bench, COUNT);
const { pool } = bench.app.services.database;

const order = ((await (await bench.get('/ids?from=0&count=10000')).json()) as { ids: string[] }).ids;

const QUESTIONS: [string, string][] = [
  ['one common word', '/sources?q=estuary'],
  ['two common words', '/sources?q=estuary%20licence'],
  ['a rare word', '/sources?q=tuarlobar'],
  ['a beginning, typing', '/sources?q=sedi&typing=true'],
  ['a phrase', '/sources?q=%22tidal%20barrier%22'],
  ['title:word', '/sources?q=title:marsh'],
  ['author:name', '/sources?q=author:barrier'],
  ['common word, newest', '/sources?q=estuary&sort=-year'],
  ['word, tag and years', '/sources?q=harbour%20tag:used%20year:1990-2000'],
  ['everything, by title', '/sources?sort=title'],
  ['everything, newest', '/sources'],
  ['by title, from the middle', `/sources?sort=title&from=${Math.floor(COUNT / 2)}`],
  ['by title, and where a source stands in it', `/sources?sort=title&find=${order[0]!}`],
  ['facets of a common word', '/narrow?q=estuary'],
  [
    'those open at first',
    `/narrow?q=estuary&${['kind', 'tag', 'label', 'reading', 'star', 'file', 'person'].map((f) => `facets=${f}`).join('&')}`,
  ],
  ['facets of everything', '/narrow'],
  ['near/5', '/sources?q=tidal%20near/5%20barrier'],
  ['another spelling', '/sources?q=estuery~'],
  ['in the record alone', '/sources?q=estuary&look=record'],
  ['overview: tags by kinds', '/overview?rows=tag&columns=kind'],
  ['overview: people with people', '/overview?rows=person&columns=person'],
  ['overview: kinds by year', '/overview?rows=kind&columns=year'],
  ['overview: containers of a common word', '/overview?rows=container&columns=kind&q=estuary'],
  ['type-ahead: a person', '/suggest?field=person&begins=mar'],
  ['type-ahead: a tag', '/suggest?field=tag&begins=u'],
];
// Older servers know nothing of some of them: what is not there is not measured.
const knows = async (path: string): Promise<boolean> => (await bench.get(path)).status < 400;
/** What the same question costs in SQL alone, with one index scan and the rows of one page: the floor. */
const lexeme = (w: string): string => `'${bench.workspace.number.toString(36)}:${w}'`;
const BARE: Record<string, string> = {
  'one common word': `select source_id from source_text where vector @@ $$${lexeme('estuari')}$$::tsquery limit 1000`,
  'two common words': `select source_id from source_text where vector @@ $$${lexeme('estuari')} & ${lexeme('licenc')}$$::tsquery limit 1000`,
  'a phrase': `select source_id from source_text where vector @@ $$${lexeme('tidal')} <-> ${lexeme('barrier')}$$::tsquery limit 1000`,
  'common word, newest': `select s.source_id from source_text t join source_sort s using (workspace_id, source_id) where t.vector @@ $$${lexeme('estuari')}$$::tsquery order by s.year desc limit 50`,
  'everything, by title': `select source_id from source_sort where workspace_id = '${bench.workspace.id}' and presence = 'live' order by title limit 50`,
};
/** @param before done each time before the clock starts */
async function times(work: () => Promise<unknown>, before?: () => Promise<unknown>): Promise<number[]> {
  const out: number[] = [];
  for (let i = 0; i < RUNS; i += 1) {
    await before?.();
    const start = performance.now();
    await work();
    if (i >= Math.min(3, RUNS - 2)) out.push(performance.now() - start);
  }
  return out;
}
const ask = async (path: string): Promise<void> => {
  const reply = await bench.get(path);
  if (!reply.ok) throw new Error(`${path}: ${await reply.text()}`);
  await reply.arrayBuffer();
};
const lines: (string | number)[][] = [];
for (const [name, path] of QUESTIONS) {
  if (!(await knows(path))) continue;
  let total = '';
  const ms = await times(async () => {
    const reply = await bench.get(path);
    if (!reply.ok) throw new Error(`${path}: ${await reply.text()}`);
    const body = await reply.arrayBuffer();
    if (path.startsWith('/sources'))
      total = formatNumber((JSON.parse(Buffer.from(body).toString()) as { total: number }).total);
  });
  const bare = BARE[name] ? await times(() => pool.query(BARE[name]!)) : undefined;
  lines.push([
    name,
    total,
    quantile(ms, 0.5),
    quantile(ms, 0.95),
    bare ? `${quantile(bare, 0.5).toFixed(1)} / ${quantile(bare, 0.95).toFixed(1)}` : '',
  ]);
}
// What is kept of earlier questions helps neither of these.
let nth = 0;
const newWord = await times(() => ask(`/sources?q=estuary%20-never${(nth += 1)}`));
lines.push(['one common word, never asked before', '', quantile(newWord, 0.5), quantile(newWord, 0.95), '']);
const afterSave = await times(
  () => ask('/sources?sort=title'),
  () => bench.patch(`/sources/${order[5]!}`, { fields: { title: `Saved ${(nth += 1)} times` } }),
);
lines.push(['by title, just after a save', '', quantile(afterSave, 0.5), quantile(afterSave, 0.95), '']);
table(
  `Search at ${formatNumber(COUNT)} sources (abstracts of 120 words), ${RUNS - 3} runs each, in ms`,
  ['question', 'matches', 'API p50', 'API p95', 'bare SQL p50 / p95'],
  lines,
);

/** As many saved searches as a large group keeps: half of words, the rest of facets, years and days. */
const SAVED = 200;
const WORDS = [
  'estuary',
  'licence',
  'harbour',
  'marsh',
  'tidal barrier',
  'sediment',
  'gate',
  'closure',
  'silt',
  'survey',
];
const kept = ((await (await bench.get('/saved')).json()) as { searches: unknown[] }).searches.length;
for (let i = kept; i < SAVED; i += 1) {
  const word = WORDS[i % WORDS.length]!;
  const year = 1960 + (i % 60);
  const q = [`${word} year:${year}-`, `tag:used ${word}`, `year:${year} -tag:used`, `kind:book added:30d`][i % 4]!;
  await bench.post('/saved', { name: `Kept ${i}`, ask: { q }, shared: true });
}
const counted = await times(
  () => ask('/saved-counts'),
  () => bench.patch(`/sources/${order[7]!}`, { fields: { title: `Counted ${(nth += 1)} times` } }),
);
table(
  `Counts of ${SAVED} saved searches, each time after a source was saved, in ms`,
  ['p50', 'p95'],
  [[quantile(counted, 0.5), quantile(counted, 0.95)]],
);

const ids = order[0]!;
const writes: (string | number)[][] = [];
const one = await times(async () =>
  (
    await bench.post('/tagging', { ids: [ids], name: `t${Math.floor(performance.now() * 1000)}`, present: true })
  ).json(),
);
writes.push(['one source tagged', quantile(one, 0.5), quantile(one, 0.95)]);
const many: number[] = [];
for (let i = 0; i < 5; i += 1) {
  const start = performance.now();
  const name = `many ${i} ${process.pid}`;
  const reply = await bench.post('/tagging', { ids: order, name, present: true });
  if (!reply.ok) throw new Error(await reply.text());
  many.push(performance.now() - start);
  // The library stays as it was, or each run would measure heavier sources than the last.
  await bench.post('/tagging', { ids: order, name, present: false });
}
writes.push(['10,000 sources tagged', quantile(many, 0.5), quantile(many, 0.95)]);
table('Writes through the API, in ms', ['what', 'p50', 'p95'], writes);
await bench.close();
process.exit(0);
