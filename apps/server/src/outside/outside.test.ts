import { createServer, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type { CatalogueList, FoundPage, IntakePage, Search, Started, Tried, WatchList } from '@pandecta/contract';
import { escapeXml, modsOf } from '@pandecta/core/formats';
import type { SourceRecord } from '@pandecta/core/source';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let outside: Server;
let base: string;
let server: TestServer;
let steward: Person;
/** What each catalogue, a path of the outside server, answers. */
let answers: Record<string, (url: URL, response: ServerResponse) => unknown>;
beforeAll(async () => {
  outside = createServer((request, response) => {
    const url = new URL(request.url!, base);
    const answer = answers[url.pathname];
    if (answer) void answer(url, response);
    else response.writeHead(404).end();
  });
  await new Promise<void>((done) => outside.listen(0, '127.0.0.1', done));
  base = `http://127.0.0.1:${(outside.address() as AddressInfo).port}`;
  server = await startTestServer({
    hosts: `packet.example=127.0.0.1:${(outside.address() as AddressInfo).port}`,
    inside: '127.0.0.1',
  });
});
beforeEach(async () => {
  answers = {};
  steward = await server.person('steward');
});
afterAll(async () => {
  outside.closeAllConnections();
  outside.close();
  await server.close();
});

const article = (title: string, more: Partial<SourceRecord> = {}): SourceRecord => ({
  type: 'article-journal',
  title,
  author: [{ family: 'Okonjo', given: 'Marit' }],
  'container-title': 'Coastal Processes',
  volume: '41',
  page: '311-328',
  issued: { 'date-parts': [[2014]] },
  ...more,
});
const sru =
  (records: SourceRecord[], total = records.length) =>
  (_: URL, response: ServerResponse) =>
    response.end(
      `<searchRetrieveResponse xmlns="http://www.loc.gov/zing/srw/"><numberOfRecords>${total}</numberOfRecords><records>${records
        .map((record, i) => `<record><recordData>${modsOf({ record, subjects: [] }, `S${i}`)}</recordData></record>`)
        .join('')}</records></searchRetrieveResponse>`,
    );
const feed = (records: SourceRecord[]) => (_: URL, response: ServerResponse) =>
  response.end(
    `<feed xmlns="http://www.w3.org/2005/Atom" xmlns:os="http://a9.com/-/spec/opensearch/1.1/" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:prism="p"><os:totalResults>${records.length}</os:totalResults>${records
      .map(
        (r, i) =>
          `<entry><id>N${i}</id><title>${escapeXml(r.title!)}</title><dc:creator>Okonjo, M.</dc:creator><prism:publicationDate>2014</prism:publicationDate><prism:volume>41</prism:volume></entry>`,
      )
      .join('')}</feed>`,
  );

async function add(name: string, protocol: string, path: string): Promise<string> {
  const list = await steward.at<CatalogueList>('POST', '/catalogues', { name, protocol, address: `${base}${path}` });
  return list.catalogues.find((c) => c.name === name)!.id;
}
async function search(words: string, catalogues: string[]): Promise<Search> {
  const { id } = await steward.at<Search>('POST', '/outside', { question: { words }, catalogues });
  return ended(id);
}
async function ended(id: string): Promise<Search> {
  for (;;) {
    const { search: one } = await steward.at<FoundPage>('GET', `/outside/${id}`);
    if (one.asked.every((a) => a.state !== 'asking')) return one;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
}
const found = (id: string, more = ''): Promise<FoundPage> => steward.at<FoundPage>('GET', `/outside/${id}?${more}`);

describe('a search outside', () => {
  test('folds the same work from several catalogues together, and tells what is here already and where', async () => {
    answers['/sru'] = sru(
      [article('WHO CLOSES THE GATE AND WHEN', { DOI: '10.5555/gate' }), article('Marsh and mud in the lower reach')],
      73,
    );
    answers['/feed'] = feed([article('Who closes the gate and when')]);
    const { id: chapter } = await steward.at<{ id: string }>('POST', '/collections', { name: 'Chapter 2' });
    await steward.import(
      { 'a.ris': 'TY  - JOUR\nTI  - Marsh and mud in the lower reach\nAU  - Okonjo, Marit\nPY  - 2014\nER  - \n' },
      chapter,
    );
    const catalogues = [
      await add('Shoreline Index', 'sru-1.2', '/sru'),
      await add('Northmere', 'opensearch', '/feed?q={searchTerms}'),
    ];
    const one = await search('gate', catalogues);
    expect(one).toMatchObject({ found: 74, works: 2, fresh: 2, gathered: 0 });
    const { rows } = await found(one.id);
    expect(rows.map((r) => [r.record.title, r.in.length, r.here?.verdict, r.here?.places])).toEqual([
      ['Who closes the gate and when', 2, undefined, undefined],
      ['Marsh and mud in the lower reach', 1, 'very likely', ['Chapter 2']],
    ]);
    // What one catalogue lacks comes from the other.
    expect(rows[0]!.record.DOI).toBe('10.5555/gate');
    expect((await found(one.id, 'absent=true')).rows).toHaveLength(1);
  });

  test('waits for no catalogue that is dead, slow or talks rubbish, and says what was wrong with it', async () => {
    let late: ServerResponse | undefined;
    answers = {
      '/good': sru([article('Marsh and mud in the lower reach')]),
      '/garbage': (_, response) => response.end('<records><record><<<'),
      '/fails': (_, response) => response.writeHead(500).end(),
      '/busy': (_, response) => response.writeHead(429, { 'retry-after': '77' }).end(),
      '/slow': (_, response) => void (late = response),
    };
    const names = ['good', 'garbage', 'fails', 'slow'];
    const catalogues: string[] = [];
    for (const name of names) catalogues.push(await add(name, 'sru-1.1', `/${name}`));
    const { id } = await steward.at<Search>('POST', '/outside', { question: { words: 'mud' }, catalogues });
    for (
      let page = await found(id);
      page.search.asked.filter((a) => a.state !== 'asking').length < 3;
      page = await found(id)
    );
    const page = await found(id);
    expect(page.rows).toHaveLength(1);
    expect(page.search.asked.map((a) => [a.name, a.state])).toEqual([
      ['good', 'done'],
      ['garbage', 'failed'],
      ['fails', 'failed'],
      ['slow', 'asking'],
    ]);
    expect(page.search.asked[1]!.says).toContain('cannot be read as SRU 1.1');
    late!.destroy();
    expect((await ended(id)).asked[3]).toMatchObject({
      state: 'failed',
      says: expect.stringContaining('could not be reached'),
    });
    const { catalogues: list } = await steward.at<CatalogueList>('GET', '/catalogues');
    expect(list.find((c) => c.name === 'fails')!.errors[0]!.says).toBe('It answered with the error 500');
  });

  test('that is chosen from goes to the intake with where it was found, and the log says what came of it', async () => {
    answers['/sru'] = sru([
      article('Who closes the gate and when'),
      article('Marsh and mud in the lower reach', { volume: '2' }),
    ]);
    const one = await search('gate', [await add('Shoreline Index', 'sru-2.0', '/sru')]);
    const [first] = (await found(one.id)).rows;
    const { jobId } = await steward.at<Started>('POST', `/outside/${one.id}/gathering`, { works: [first!.id] });
    await steward.jobEnds(jobId);
    const page = await steward.at<IntakePage>('GET', '/intake');
    expect(page.batches[0]).toMatchObject({ title: 'Shoreline Index, “gate”', way: 'search', came: 1 });
    const detail = await steward.at<{ origin: object }>('GET', `/intake/${page.rows[0]!.id}`);
    expect(detail.origin).toMatchObject({ database: 'Shoreline Index', accession: 'S0', query: 'gate' });
    await steward.at('PATCH', `/outside/${one.id}`, { why: 'For the second chapter' });
    const { searches } = await steward.at<{ searches: Search[] }>('GET', '/outside');
    expect(searches[0]).toMatchObject({ why: 'For the second chapter', works: 2, gathered: 1 });
    // Run again, nothing of it is new.
    expect(
      await search(
        'gate',
        one.asked.map((a) => a.id),
      ),
    ).toMatchObject({ works: 2, fresh: 0 });
  });
});

describe('a catalogue', () => {
  test('is tried with a word before it is added, and refused with what is wrong', async () => {
    answers['/sru'] = sru([], 42);
    const trial = (address: string, protocol = 'sru-1.2') =>
      steward.at<Tried>('POST', '/catalogue-trial', { protocol, address, word: 'test' });
    expect(await trial(`${base}/sru`)).toEqual({ answered: true, says: '42 records for “test”' });
    expect(await trial(`${base}/none`)).toEqual({ answered: false, says: 'It answered with the error 404' });
    const { status } = await steward.call('POST', `/w/${steward.workspace}/catalogues`, {
      name: 'x',
      protocol: 'opensearch',
      address: `${base}/feed`,
    });
    expect(status).toBe(400);
  });

  test('is the business of stewards: a contributor may ask it, not add it', async () => {
    const contributor = await server.person('contributor', steward.workspace);
    expect((await contributor.call('GET', `/w/${steward.workspace}/catalogues`)).status).toBe(200);
    expect((await contributor.call('POST', `/w/${steward.workspace}/catalogues`, {})).status).toBe(403);
  });

  test('of this network is asked only where the operator listed it when the server was started', async () => {
    const trial = async (address: string): Promise<string> =>
      (await steward.at<Tried>('POST', '/catalogue-trial', { protocol: 'sru-1.2', address, word: 'x' })).says;
    const { port } = new URL(base);
    for (const host of ['localhost', '[::1]', '[::127.0.0.1]', '169.254.169.254', '10.0.0.1', '[::ffff:10.0.0.1]'])
      expect(await trial(`http://${host}:${port}/sru`)).toContain('is an address inside this network');
  });

  test('that asks to be left alone is not asked again before its time', async () => {
    let times = 0;
    answers['/busy'] = (_, response) => ((times += 1), response.writeHead(429, { 'retry-after': '77' }).end());
    const other = createServer((_, response) => ((times += 1), response.writeHead(429, { 'retry-after': '77' }).end()));
    await new Promise<void>((done) => other.listen(0, '127.0.0.1', done));
    const address = `http://127.0.0.1:${(other.address() as AddressInfo).port}/busy`;
    const trial = () => steward.at<Tried>('POST', '/catalogue-trial', { protocol: 'sru-1.2', address, word: 'x' });
    expect((await trial()).says).toBe('It asks to wait 77 s before the next question');
    expect((await trial()).says).toMatch(/^It asked not to be contacted for 7\d s more$/);
    expect(times).toBe(1);
    other.close();
  });
});

test('a watch brings only what was never seen, to its destination, and says when nobody answered', async () => {
  answers['/sru'] = sru([article('Who closes the gate and when')]);
  const catalogue = await add('Shoreline Index', 'sru-1.2', '/sru');
  const made = { name: 'Gates, weekly', question: { words: 'gate' }, catalogues: [catalogue], every: 'week' };
  const { watches } = await steward.at<WatchList>('POST', '/watches', {
    ...made,
    destination: { collections: [], tags: ['watched'], reading: null },
  });
  const run = async () => (await steward.at<WatchList>('POST', `/watches/${watches[0]!.id}/run`, {})).watches[0]!;
  expect((await run()).brought).toBe(1);
  answers['/sru'] = sru([
    article('Who closes the gate and when'),
    article('Marsh and mud in the lower reach', { volume: '9' }),
  ]);
  // Numbers are the catalogue's own: S1 was not seen before.
  expect((await run()).brought).toBe(1);
  expect((await run()).brought).toBe(0);
  for (
    let page = await steward.at<IntakePage>('GET', '/intake');
    ;
    page = await steward.at<IntakePage>('GET', '/intake')
  ) {
    if (page.total < 2) continue;
    expect(page.rows.map((r) => [r.record.title, r.tags[0]!.name])).toEqual([
      ['Marsh and mud in the lower reach', 'watched'],
      ['Who closes the gate and when', 'watched'],
    ]);
    break;
  }
  answers = {};
  const failed = await run();
  expect([failed.says, failed.paused]).toEqual(['Shoreline Index: It answered with the error 404', false]);
  for (let i = 0; i < 4; i += 1) await run();
  const [last] = (await steward.at<WatchList>('GET', '/watches')).watches;
  expect(last).toMatchObject({ paused: true, says: expect.stringContaining('Paused after 5 failures') });
});

describe('a link', () => {
  const bring = async (text: string): Promise<IntakePage> => {
    const { jobId } = await steward.at<Started>('POST', '/gatherings', { text });
    await steward.jobEnds(jobId);
    return steward.at<IntakePage>('GET', '/intake');
  };

  test('is visited, and what its page states becomes the record; the address loses what only tracks', async () => {
    answers['/news'] = (_, response) =>
      response
        .writeHead(200, { 'content-type': 'text/html' })
        .end(
          `<html><head><script type="application/ld+json">{"@type":"NewsArticle","headline":"Gate stays open","datePublished":"2026-11-20","author":{"@type":"Person","name":"Caspar Wold"},"publisher":{"name":"The Sallow Packet"}}</script></head><body><h1>Gate</h1></body></html>`,
        );
    const page = await bring('http://packet.example/news?utm_source=mail&id=7');
    expect(page.rows[0]!.record).toMatchObject({
      type: 'article-newspaper',
      title: 'Gate stays open',
      author: [{ family: 'Wold', given: 'Caspar' }],
      'container-title': 'The Sallow Packet',
      issued: { 'date-parts': [[2026, 11, 20]] },
      URL: 'http://packet.example/news?id=7',
      accessed: expect.anything(),
    });
  });

  test.each([
    ['this machine', () => `${base}/secret`],
    ['this machine by another of its names', () => base.replace('127.0.0.1', 'localhost')],
    ['a page that leads there', () => 'http://packet.example/leads'],
    ['a number that stands for it', () => `http://2130706433:${new URL(base).port}/secret`],
    ['an address of its network', () => 'http://[::ffff:10.0.0.1]/'],
  ])('to %s is not followed, and is kept', async (_, address) => {
    let asked = 0;
    answers['/secret'] = (_, response) => ((asked += 1), response.end('<h1>Secret</h1>'));
    answers['/leads'] = (_, response) => response.writeHead(302, { location: `${base}/secret` }).end();
    const page = await bring(address());
    expect(page.rows[0]).toMatchObject({ record: { type: 'webpage', URL: address() }, lookedUp: 'not found' });
    expect(asked).toBe(0);
  });

  test('to a page without end, or deep as no page is, costs no more than itself', async () => {
    answers['/endless'] = (_, response) => {
      const write = (): void => void (response.destroyed || response.write('<p>x</p>'.repeat(20_000), write));
      write();
    };
    answers['/deep'] = (_, response) => response.end('<div>'.repeat(50_000));
    const page = await bring('http://packet.example/endless\nhttp://packet.example/deep');
    expect(page.rows.map((r) => r.record.type)).toEqual(['webpage', 'webpage']);
  });
});
