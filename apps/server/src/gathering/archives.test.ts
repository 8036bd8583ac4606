import { ZipFile } from 'yazl';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { ImportReport, IntakePage, PlacesReply, Started } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => void (server = await startTestServer()));
beforeEach(async () => void (me = await server.person('contributor')));
afterAll(() => server.close());

const ris = (title: string): string => `TY  - BOOK\nTI  - ${title}\nER  - \n`;

async function zip(files: Record<string, string | Buffer>): Promise<Buffer> {
  const made = new ZipFile();
  for (const [name, content] of Object.entries(files)) made.addBuffer(Buffer.from(content), name);
  made.end();
  const parts: Buffer[] = [];
  for await (const part of made.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

async function bring(files: Record<string, string | Buffer>, destination = {}): Promise<ImportReport> {
  const form = new FormData();
  form.append('destination', JSON.stringify({ collections: [], tags: [], reading: null, ...destination }));
  for (const [path, content] of Object.entries(files)) form.append('file', new Blob([content as string]), path);
  const { importId, jobId } = await me.at<Started>('POST', '/imports', form);
  await me.jobEnds(jobId);
  return me.at<ImportReport>('GET', `/imports/${importId}`);
}

test('an archive is taken apart, each file in it read as what it is', async () => {
  const report = await bring({
    'box.zip': await zip({ 'a.ris': ris('First of the box'), 'deep/b.ris': ris('Second of the box') }),
  });
  expect(report.files.map((f) => [f.name, f.outcome])).toEqual([
    ['a.ris', '1 source new'],
    ['b.ris', '1 source new'],
  ]);
});

test('folders become collections where that was chosen, those that are there are used, and all of it is undone at once', async () => {
  const { id: archive } = await me.at<{ id: string }>('POST', '/collections', { name: 'Archive' });
  await me.at('POST', '/collections', { name: 'Box 4', parent: archive });
  const files = {
    'Box 4/a.ris': ris('A letter of the box'),
    'Box 4/letters/b.ris': ris('Another letter below'),
    'Box 5.zip': await zip({ 'plans/c.ris': ris('A plan in an archive') }),
  };
  const report = await bring(files, { collections: [archive], folders: true });
  expect(report.added).toBe(3);
  const places = await me.at<PlacesReply>('GET', '/places');
  const count = Object.fromEntries(places.collections.map((c) => [c.name, c.count]));
  expect(count).toEqual({ Archive: 3, 'Box 4': 2, letters: 1, plans: 1 });
  await me.at('POST', `/changes/${report.changeId}/undo`);
  const after = await me.at<PlacesReply>('GET', '/places');
  expect(after.collections.map((c) => [c.name, c.count])).toEqual([
    ['Archive', 0],
    ['Box 4', 0],
  ]);
});

test('a path never leads out of an archive, and a name with one is only a name', async () => {
  const sound = await zip({ 'aa/b.ris': ris('Kept where it belongs') });
  // The same length, so that the archive stays whole.
  const slipped = Buffer.from(sound.toString('latin1').replaceAll('aa/b.ris', '../b.ris'), 'latin1');
  const report = await bring({ 'slip.zip': slipped, '../../up.ris': ris('Up and out') });
  expect(report.messages.map((m) => m.what).join()).toContain('leads out of itself');
  expect(report.files.find((f) => f.name === 'up.ris')?.added).toBe(1);
});

test('an archive that unpacks to more than it may gives what comes before, and says so', async () => {
  const report = await bring({
    'bomb.zip': await zip({ 'a.ris': ris('Before the flood'), 'b.txt': Buffer.alloc(60 * 1024 ** 2) }),
  });
  expect(report.added).toBe(1);
  expect(report.messages.map((m) => m.what)).toContain('It unpacks to more than it may: “b.txt” and what comes after');
});

test('an archive that is torn or empty is told of, and the rest is kept', async () => {
  const whole = await zip({ 'a.ris': ris('In a whole one') });
  const report = await bring({ 'torn.zip': whole.subarray(0, 40), 'empty.zip': await zip({}), 'whole.zip': whole });
  expect(report.added).toBe(1);
  expect(report.files.map((f) => f.name).sort()).toEqual(['a.ris', 'empty.zip', 'torn.zip']);
});

test('a saved page is read for what it states of itself, with where it was saved from', async () => {
  const html = `<!doctype html>
<!-- saved from url=(0033)https://packet.sallow.example/1 -->
<html><head><meta name="citation_title" content="A saved page of the Packet"></head><body></body></html>`;
  const report = await bring({ 'page.html': html });
  expect(report).toMatchObject({ waiting: 1, files: [{ format: 'a saved page' }] });
  const { rows } = await me.at<IntakePage>('GET', '/intake');
  expect(rows[0]!.record).toMatchObject({
    title: 'A saved page of the Packet',
    URL: 'https://packet.sallow.example/1',
  });
});
