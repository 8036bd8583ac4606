import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Changed, Touched } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let other: Person;
let source: string;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  me = await server.person('contributor');
  other = await server.person('contributor', me.workspace);
  source = (await me.at<Changed>('POST', '/sources', { record: { type: 'book', title: 'Tides' } })).id!;
});
afterAll(() => server.close());

/** Someone's stream, an event at a time; what follows a write is told of to whom it is wanted. */
async function streamOf(
  person: Person,
  wanted: (touched: Touched) => boolean = (t) => !t.kinds.words && !t.kinds.pair,
): Promise<{ next(): Promise<Touched>; close(): void; ended: Promise<unknown> }> {
  const stop = new AbortController();
  const response = await fetch(`${server.base}/api/w/${me.workspace}/live`, {
    headers: { cookie: person.cookie },
    signal: stop.signal,
  });
  expect([response.status, response.headers.get('content-type')]).toEqual([200, 'text/event-stream; charset=utf-8']);
  const waiting: ((touched: Touched) => void)[] = [];
  const come: Touched[] = [];
  const ended = (async () => {
    let text = '';
    for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
      text += part;
      const blocks = text.split('\n\n');
      text = blocks.pop()!;
      for (const block of blocks.filter((b) => b.startsWith('event: touched'))) {
        const touched = JSON.parse(block.slice(block.indexOf('data: ') + 6)) as Touched;
        if (!wanted(touched)) continue;
        const first = waiting.shift();
        if (first) first(touched);
        else come.push(touched);
      }
    }
  })().catch(() => 'cut');
  return {
    next: async () => come.shift() ?? new Promise((resolve) => waiting.push(resolve)),
    close: () => stop.abort(),
    ended,
  };
}

test('everyone who looks at a workspace hears what a change touched, and no one else does', async () => {
  const mine = await streamOf(me);
  const theirs = await streamOf(other);
  const stranger = await server.person('steward');
  const refused = await fetch(`${server.base}/api/w/${me.workspace}/live`, { headers: { cookie: stranger.cookie } });
  expect(refused.status).toBe(404);
  await refused.text();
  const { changeId } = await me.at<Changed>('POST', '/tagging', { ids: [source], name: 'used', present: true });
  for (const stream of [mine, theirs])
    expect(await stream.next()).toMatchObject({
      changeId,
      kinds: { source: [source], tag: [expect.any(String) as string] },
    });
  mine.close();
  theirs.close();
});

test('signed out, one hears no more at once', async () => {
  const leaving = await server.person('contributor', me.workspace);
  const stream = await streamOf(leaving);
  await leaving.call('DELETE', '/session');
  await stream.ended;
  stream.close();
});

test('what is one member’s own is told to them alone', async () => {
  const mine = await streamOf(me);
  const theirs = await streamOf(other);
  await me.at('POST', '/stars', { ids: [source], present: true });
  const { changeId } = await other.at<Changed>('PATCH', `/sources/${source}`, { fields: { note: 'Seen' } });
  expect((await mine.next()).kinds).toEqual({ source: [source] });
  expect(await theirs.next()).toMatchObject({ changeId });
  mine.close();
  theirs.close();
});

test('words are told of once they can be found', async () => {
  await server.settle();
  const stream = await streamOf(other, (t) => Boolean(t.kinds.words));
  await me.at('PATCH', `/sources/${source}`, { fields: { note: 'Ebb and flood' } });
  await stream.next();
  expect(await other.ask('flood')).toMatchObject({ total: 1, settling: false });
  stream.close();
});

test('of very many it says that they are many', async () => {
  const sources = Array.from({ length: 300 }, (_, i) => ({ id: i, type: 'book', title: `Gauge book ${i}` }));
  await me.import({ 'gauges.json': JSON.stringify(sources) });
  const ids = (await me.ask('', '&count=200')).rows.map((r) => r.id);
  const stream = await streamOf(me);
  await me.at('POST', '/tagging', { ids, name: 'many', present: true });
  expect((await stream.next()).kinds).toMatchObject({ source: 'all', tag: [expect.any(String) as string] });
  stream.close();
});

test('when the line to the database was down, everyone is told to look at everything again', async () => {
  const stream = await streamOf(me);
  await server.app.services.database.pool.query(
    `select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'pandecta live' and datname = current_database()`,
  );
  expect(await stream.next()).toMatchObject({ everything: true });
  await me.at('POST', '/tagging', { ids: [source], name: 'again', present: true });
  expect((await stream.next()).kinds.source).toEqual([source]);
  stream.close();
});
