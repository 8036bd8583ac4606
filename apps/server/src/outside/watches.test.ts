/** Watches of addresses: a feed, a page, a repository; and the mail that tells of what is new. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { CatalogueList, IntakePage, JobList, Tried, Watch, WatchList } from '@pandecta/contract';
import { dublinCoreOf, escapeXml } from '@pandecta/core/formats';
import { runDueWatches } from './watches.ts';
import { startPost, type Post } from '../testing/post.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let site: Server;
let post: Post;
let server: TestServer;
let me: Person;
let pages: Record<string, (query: URLSearchParams) => string>;
let asked: string[] = [];

beforeAll(async () => {
  site = createServer((request, response) => {
    const url = new URL(request.url!, 'http://x');
    if (url.pathname === '/astray') {
      response.writeHead(302, { location: 'http://[broken' }).end();
      return;
    }
    asked.push(`${url.pathname}${url.search}`);
    const page = pages[url.pathname];
    if (page) response.end(page(url.searchParams));
    else response.writeHead(404).end();
  });
  await new Promise<void>((done) => site.listen(0, '127.0.0.1', done));
  post = await startPost();
  server = await startTestServer({
    hosts: `site.example=127.0.0.1:${(site.address() as AddressInfo).port}`,
    smtp: post.smtp,
  });
});
beforeEach(async () => {
  [pages, asked] = [{}, []];
  post.letters.length = 0;
  me = await server.person('contributor');
});
afterAll(async () => {
  await server.close();
  site.close();
  await post.close();
});

async function add(kind: string, path: string, more = {}): Promise<Watch> {
  const body = { name: `New at ${path}`, kind, address: `http://site.example${path}`, every: 'day', ...more };
  return (await me.at<WatchList>('POST', '/watches', body)).watches.at(-1)!;
}
async function run({ id }: Watch): Promise<Watch> {
  const { watches } = await me.at<WatchList>('POST', `/watches/${id}/run`);
  for (const job of (await me.at<JobList>('GET', '/jobs')).jobs) await me.jobEnds(job.id);
  return watches.find((w) => w.id === id)!;
}
const waiting = async (): Promise<string[]> =>
  (await me.at<IntakePage>('GET', '/intake')).rows.map((r) => r.record.title!).sort();

const feed = (titles: string[]): string =>
  `<rss version="2.0"><channel><title>News</title>${titles
    .map(
      (t) =>
        `<item><title>${escapeXml(t)}</title><guid>${t.length}</guid><link>https://site.example/${t.length}</link></item>`,
    )
    .join('')}</channel></rss>`;

test('a feed brings what was never seen, once, and whoever asked for it is written to', async () => {
  let titles = ['Gate stays open', 'Inquiry hears of 1872'];
  pages['/feed'] = () => feed(titles);
  const watch = await add('feed', '/feed', { mail: true });
  expect(await run(watch)).toMatchObject({ brought: 2, says: '', words: 'http://site.example/feed' });
  expect(await run(watch)).toMatchObject({ brought: 0 });
  titles = ['A third and longer one', ...titles];
  expect(await run(watch)).toMatchObject({ brought: 1 });
  expect(await waiting()).toEqual(['A third and longer one', ...titles.slice(1)].sort());
  expect(post.letters).toHaveLength(2);
  expect(post.letters[1]).toContain('Subject: New at /feed: one new work');
  expect(post.letters[1]).toContain('- A third and longer one');
});

test('a page that lists works brings those it lists', async () => {
  const coins = (title: string): string =>
    `<li><span class="Z3988" title="rft_val_fmt=info:ofi/fmt:kev:mtx:book&amp;rft.btitle=${encodeURIComponent(title)}&amp;rft.au=Vance, Ines"></span></li>`;
  pages['/shelf'] = () => `<!doctype html><html><body><ul>${coins('Silt')}${coins('Mud')}</ul></body></html>`;
  expect(await run(await add('page', '/shelf'))).toMatchObject({ brought: 2 });
  expect(await waiting()).toEqual(['Mud', 'Silt']);
});

test('a repository is harvested share by share, and the next time asked only for what changed', async () => {
  const record = (n: number): string =>
    `<record><header><identifier>oai:x:${n}</identifier></header><metadata>${dublinCoreOf({ record: { type: 'book', title: `Title ${n}` }, subjects: [] })}</metadata></record>`;
  const gone = '<record><header status="deleted"><identifier>oai:x:9</identifier></header></record>';
  const reply = (inner: string): string =>
    `<OAI-PMH xmlns="http://www.openarchives.org/OAI/2.0/"><responseDate>2026-02-03T04:05:06Z</responseDate>${inner}</OAI-PMH>`;
  pages['/oai'] = (query) =>
    query.get('from')
      ? reply('<error code="noRecordsMatch">nothing</error>')
      : query.get('resumptionToken')
        ? reply(`<ListRecords>${record(3)}${gone}<resumptionToken/></ListRecords>`)
        : reply(`<ListRecords>${record(1)}${record(2)}<resumptionToken>next</resumptionToken></ListRecords>`);
  const watch = await add('oai', '/oai?set=law');
  expect(await run(watch)).toMatchObject({ brought: 3 });
  expect(await run(watch)).toMatchObject({ brought: 0, says: '' });
  expect(asked).toEqual([
    '/oai?verb=ListRecords&metadataPrefix=oai_dc&set=law',
    '/oai?verb=ListRecords&resumptionToken=next',
    '/oai?verb=ListRecords&metadataPrefix=oai_dc&set=law&from=2026-02-03T04%3A05%3A06Z',
  ]);
  expect(await waiting()).toEqual(['Title 1', 'Title 2', 'Title 3']);
});

test('an address is looked at before it is watched; what is none of the kind is said, and watched in vain it pauses itself', async () => {
  pages['/feed'] = () => feed(['Gate stays open']);
  const look = (kind: string, address: string): Promise<Tried> =>
    me.at<Tried>('POST', '/watch-trial', { kind, address });
  expect(await look('feed', 'http://site.example/feed')).toEqual({
    answered: true,
    says: '1 work, the first “Gate stays open”',
  });
  expect(await look('oai', 'http://site.example/feed')).toEqual({
    answered: false,
    says: 'What it answers cannot be read: it is no answer of a repository (OAI-PMH)',
  });
  expect((await look('feed', 'http://127.0.0.1/feed')).says).toContain('inside this network');
  await expect(look('feed', 'file:///etc/passwd')).rejects.toThrow('begins with http');
  const watch = await add('oai', '/feed');
  let last = watch;
  for (let i = 0; i < 5; i += 1) last = await run(watch);
  expect(last).toMatchObject({ paused: true, says: expect.stringContaining('Paused after 5 failures') as string });
});

test('one that is broken is noted, put off and paused, and stops none of the others, of any workspace', async () => {
  const { services } = server.app;
  const steward = await server.person('steward', me.workspace);
  const { catalogues } = await steward.at<CatalogueList>('POST', '/catalogues', {
    name: 'Gone soon',
    protocol: 'sru-1.2',
    address: 'http://site.example/sru',
  });
  await add('feed', '/astray', { mail: true });
  await me.at('POST', '/watches', {
    name: 'Of what is gone',
    kind: 'search',
    question: { words: 'tide' },
    catalogues: [catalogues[0]!.id],
    every: 'day',
  });
  await steward.at('DELETE', `/catalogues/${catalogues[0]!.id}`);
  const there = await server.person('contributor');
  pages['/feed'] = () =>
    '<rss version="2.0"><channel><title>Tides</title><item><title>Ebb</title><guid>e1</guid></item></channel></rss>';
  await there.at('POST', '/watches', { name: 'Good', kind: 'feed', address: 'http://site.example/feed', every: 'day' });
  const now = (): Promise<unknown> =>
    services.database.pool.query(`update watches set next_at = now() - interval '1 hour'`);
  for (let i = 0; i < 5; i += 1) {
    await now();
    await runDueWatches(services);
  }
  const good = (await there.at<WatchList>('GET', '/watches')).watches[0]!;
  expect([good.says, good.paused]).toEqual(['', false]);
  expect(good.ranAt).not.toBeNull();
  const { watches } = await me.at<WatchList>('GET', '/watches');
  expect(watches.map((w) => [w.paused, w.says])).toEqual([
    [true, expect.stringContaining('which is no address')],
    [true, expect.stringContaining('its catalogues were removed')],
  ]);
  expect(post.letters.filter((l) => /^Subject: .*paused/m.test(l)).length).toBe(1);
  // One without any is not made, and a trial says what is wrong.
  expect(
    (
      await me.call('POST', `/w/${me.workspace}/watches`, {
        name: 'None',
        kind: 'search',
        question: { words: 'x' },
        catalogues: [],
        every: 'day',
      })
    ).status,
  ).toBe(400);
});

test('of what a watch finds again only what is new is kept', async () => {
  const item = (n: number): string =>
    `<item><title>Work ${n} of the harbour commission</title><guid>w${n}</guid></item>`;
  const feed = (n: number): string =>
    `<rss version="2.0"><channel><title>T</title>${Array.from({ length: n }, (_, i) => item(i)).join('')}</channel></rss>`;
  pages['/many'] = () => feed(40);
  const watch = await add('feed', '/many');
  await run(watch);
  pages['/many'] = () => feed(41);
  expect((await run(watch)).brought).toBe(1);
  const { pool } = server.app.services.database;
  const kept = await pool.query('select 1 from outside_hits where workspace_id = $1', [me.workspace]);
  expect(kept.rowCount).toBe(41);
});
