import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Changed, DocumentReply, HistoryEntry, SourceDetail, WithinReply } from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let source: string;
let file: string;

beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
  const bytes = await makePdf([
    ['Hours of the lower gate', 'The keeper shut the gate at dusk.'],
    ['Second leaf', 'At dusk it was shut again, and the gate held.'],
  ]);
  await me.import({ 'hours.pdf': bytes });
  const [row] = (await me.ask('')).rows;
  source = row!.id;
  file = row!.fileId!;
});
afterAll(() => server.close());

const open = (): Promise<DocumentReply> => me.at('GET', `/sources/${source}/files/${file}`);
async function mark(exact: string, more: object = {}): Promise<Changed> {
  const { senses } = await open();
  return me.at('POST', `/sources/${source}/files/${file}/marks`, {
    page: 1,
    sense: senses[0]!.id,
    quote: { exact, prefix: '', suffix: '' },
    rects: [{ x0: 40, y0: 90, x1: 120, y1: 104 }],
    ...more,
  });
}

describe('a mark', () => {
  test('is there for whoever opens the document next, with who made it', async () => {
    const { id } = await mark('shut the gate');
    const [found] = (await open()).marks.filter((m) => m.id === id);
    expect(found).toMatchObject({
      page: 1,
      quote: { exact: 'shut the gate' },
      rects: [{ x0: 40, y0: 90, x1: 120, y1: 104 }],
      by: 'A steward',
    });
  });

  test('has a gloss, which is found by search and said in the history', async () => {
    const { id } = await mark('at dusk');
    await me.at('PATCH', `/marks/${id}`, { gloss: 'Compare the ferryman’s almanack' });
    await server.settle();
    const found = await me.ask('almanacks');
    expect(found.rows.map((r) => r.hits[0])).toMatchObject([{ where: 'Gloss, p. 1', page: 1 }]);
    const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', `/sources/${source}/history`);
    expect(entries[0]!.says).toBe('Changed a gloss');
  });

  test('changes its sense, goes, and comes back, step by step', async () => {
    const { senses } = await open();
    const { id } = await mark('The keeper');
    const standing = async (): Promise<string | undefined> => (await open()).marks.find((m) => m.id === id)?.sense;
    await me.at('PATCH', `/marks/${id}`, { sense: senses[2]!.id });
    expect(await standing()).toBe(senses[2]!.id);
    await me.at('DELETE', `/marks/${id}`);
    expect(await standing()).toBeUndefined();
    await me.at('POST', '/undo', {});
    expect(await standing()).toBe(senses[2]!.id);
    await me.at('POST', '/undo', {});
    expect(await standing()).toBe(senses[0]!.id);
    await me.at('POST', '/undo', {});
    expect(await standing()).toBeUndefined();
  });

  test('is asked for by what it is and by its sense, as soon as it is another', async () => {
    const { senses } = await open();
    const found = async (q: string): Promise<number> => (await me.ask(q)).total;
    const named = (n: number): string => `sense:"${senses[n]!.name}"`;
    const { id } = await mark('at dusk', { sense: senses[1]!.id });
    expect([await found('has:mark'), await found(named(1)), await found(named(3))]).toEqual([1, 1, 0]);
    await me.at('PATCH', `/marks/${id}`, { sense: senses[3]!.id });
    expect([await found(named(1)), await found(named(3))]).toEqual([0, 1]);
    await me.at('PATCH', `/marks/${id}`, { gloss: 'At what hour?' });
    expect(await found('has:gloss -has:tag')).toBe(1);
    for (const { id: each } of (await open()).marks) await me.at('DELETE', `/marks/${each}`);
    expect([await found('has:mark'), await found('has:gloss')]).toEqual([0, 0]);
  });

  test('of a sense, on a file or in a workspace that is not one’s own is refused', async () => {
    const stranger = await server.person('steward');
    const theirs = (
      await stranger.call<DocumentReply>('GET', `/w/${stranger.workspace}/sources/${source}/files/${file}`)
    ).status;
    expect(theirs).toBe(404);
    const body = { page: 1, sense: source, quote: { exact: 'x', prefix: '', suffix: '' }, rects: [] };
    const wrong = await me.call<{ detail: string }>(
      'POST',
      `/w/${me.workspace}/sources/${source}/files/${file}/marks`,
      body,
    );
    expect([wrong.status, wrong.body.detail]).toEqual([400, expect.stringContaining('sense')]);
    const { id } = await mark('gate at');
    expect((await stranger.call('DELETE', `/w/${stranger.workspace}/marks/${id}`)).status).toBe(404);
  });

  test('is not for a reader to make', async () => {
    const reader = await server.person('reader', me.workspace);
    const { senses } = await open();
    const reply = await reader.call('POST', `/w/${me.workspace}/sources/${source}/files/${file}/marks`, {
      page: 1,
      sense: senses[0]!.id,
      quote: { exact: 'x', prefix: '', suffix: '' },
      rects: [],
    });
    expect(reply.status).toBe(403);
  });

  test('goes to the bin and comes back with its source', async () => {
    const before = (await open()).marks.length;
    await me.at('POST', '/presence', { ids: [source], to: 'bin' });
    await me.at('POST', '/presence', { ids: [source], to: 'live' });
    expect((await open()).marks).toHaveLength(before);
    expect((await me.at<SourceDetail>('GET', `/sources/${source}`)).presence).toBe('live');
  });
});

test('words are found within a document on every page, each with the place it stands at', async () => {
  const { hits, total } = await me.at<WithinReply>('GET', `/sources/${source}/files/${file}/within?q=gates`);
  expect(total).toBe(3);
  expect(hits.map((h) => h.page)).toEqual([1, 1, 2]);
  for (const h of hits) {
    expect(h.text.slice(h.lit[0]!.start, h.lit[0]!.end)).toBe('gate');
    // Words of 10 or 18 points, 40 points from the left edge or more.
    expect(h.rects).toHaveLength(1);
    expect(h.rects[0]!.y1 - h.rects[0]!.y0).toBeGreaterThan(8);
    expect(h.rects[0]!.x0).toBeGreaterThanOrEqual(40);
  }
});

describe('the content of a file', () => {
  const get = (headers: Record<string, string> = {}): Promise<Response> =>
    fetch(`${server.base}/api/w/${me.workspace}/files/${file}/content`, { headers: { cookie: me.cookie, ...headers } });

  test('comes whole, under its name, and may run nothing in the browser', async () => {
    const whole = await get();
    expect(
      Buffer.from(await whole.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    expect(whole.headers.get('content-disposition')).toContain('hours.pdf');
    expect(whole.headers.get('content-security-policy')).toContain('sandbox');
    expect(whole.headers.get('x-content-type-options')).toBe('nosniff');
  });

  // RFC 9110, section 14: first and last byte, open end, suffix, and a range that cannot be.
  test.each([
    ['bytes=0-4', 206, '%PDF-'],
    ['bytes=1-3', 206, 'PDF'],
    ['bytes=-6', 206, undefined],
    ['bytes=99999999-', 416, ''],
  ])('in ranges: %s', async (range, status, text) => {
    const part = await get({ range });
    expect(part.status).toBe(status);
    const body = Buffer.from(await part.arrayBuffer()).toString('latin1');
    if (text !== undefined) expect(body).toBe(text);
    else expect(body).toContain('EOF');
  });

  test('is not given to another workspace', async () => {
    const stranger = await server.person('steward');
    const reply = await fetch(`${server.base}/api/w/${stranger.workspace}/files/${file}/content`, {
      headers: { cookie: stranger.cookie },
    });
    expect(reply.status).toBe(404);
  });
});
