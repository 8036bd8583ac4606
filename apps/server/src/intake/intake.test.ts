import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type {
  Changed,
  ImportReport,
  IntakeDetail,
  IntakePage,
  IntakeSummary,
  PlacesReply,
  SourceDetail,
  Started,
} from '@pandecta/contract';
import { makePdf } from '../testing/pdf.ts';
import { askAgain } from './again.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let registry: Server;
let server: TestServer;
let me: Person;
/** What the registry answers: records by DOI, or nothing at all. */
let registered: Record<string, object>;
let isSilent: boolean;
beforeAll(async () => {
  registry = createServer((request, response) => {
    const found = registered[decodeURIComponent(request.url!.slice(1))];
    response.writeHead(isSilent ? 503 : found ? 200 : 404).end(JSON.stringify(found ?? {}));
  });
  await new Promise<void>((done) => registry.listen(0, '127.0.0.1', done));
  server = await startTestServer({ registryUrl: `http://127.0.0.1:${(registry.address() as AddressInfo).port}` });
});
beforeEach(async () => {
  registered = {};
  isSilent = false;
  me = await server.person('contributor');
});
afterAll(async () => {
  await server.close();
  registry.close();
});

const COMPLETE = {
  type: 'article-journal',
  title: 'Who Closes the Gate and When',
  DOI: '10.5555/gate.2014',
  author: [{ family: 'Okonjo', given: 'Marit' }],
  'container-title': 'Coastal Processes',
  volume: '41',
  page: '311-328',
  issued: { 'date-parts': [[2014]] },
};

async function bring(text: string, more: object = {}, person = me): Promise<ImportReport> {
  const { jobId, importId } = await person.at<Started>('POST', '/gatherings', { text, ...more });
  await person.jobEnds(jobId);
  return person.at<ImportReport>('GET', `/imports/${importId}`);
}
const intake = (more = ''): Promise<IntakePage> => me.at<IntakePage>('GET', `/intake?${more}`);
const summary = (): Promise<IntakeSummary> => me.at<IntakeSummary>('GET', '/intake-summary');
const detail = (id: string): Promise<IntakeDetail> => me.at<IntakeDetail>('GET', `/intake/${id}`);

describe('what is typed', () => {
  test('is taken apart, looked up and read, and waits by its batch until it is taken in', async () => {
    registered['10.5555/gate.2014'] = COMPLETE;
    const report = await bring(
      '10.5555/gate.2014\n978-0-00-712345-?\n\nVance S, Ito R. Sediment starvation behind tidal barriers. Coast Proc. 2011;41(3):311-28.\n\nibid., at 214\n',
    );
    expect(report).toMatchObject({ added: 0, waiting: 4, way: 'typed', undoable: true });
    const page = await intake();
    expect(page.batches).toEqual([expect.objectContaining({ id: report.id, came: 4, waiting: 4, way: 'typed' })]);
    const byTitle = new Map(page.rows.map((r) => [r.record.title, r]));
    expect(byTitle.get(COMPLETE.title)).toMatchObject({ lacks: [], lookedUp: 'found', unread: false });
    expect(byTitle.get('Sediment starvation behind tidal barriers')).toMatchObject({
      record: { type: 'article-journal', volume: '41', page: '311-28', 'container-title': 'Coast Proc' },
      lacks: ['identifier'],
    });
    expect(byTitle.get('ibid., at 214')).toMatchObject({ unread: true });
    expect((await me.ask('')).total).toBe(0);
    expect(await summary()).toEqual({ waiting: 4, complete: 1, certain: 0, aside: 0 });
    const taken = await me.at<Changed>('POST', '/taking-in', { matching: { scope: 'intake' }, complete: true });
    expect(taken.says).toBe('Took in 1 source; 3 still wait');
    expect(await me.titles('')).toEqual([COMPLETE.title]);
    await me.at('POST', '/undo');
    expect([(await me.ask('')).total, (await summary()).waiting]).toEqual([0, 4]);
  });

  test('goes where it was said before: collections, tags and reading state stand when it is taken in', async () => {
    registered['10.5555/gate.2014'] = COMPLETE;
    const { id } = await me.at<{ id: string }>('POST', '/collections', { name: 'Chapter 2' });
    const destination = { collections: [id], tags: ['to check'], reading: 'to read', note: 'From the footnotes' };
    const report = await bring('10.5555/gate.2014', { destination });
    expect(report).toMatchObject({ destination: 'Chapter 2, to check, to read', note: 'From the footnotes' });
    expect((await me.at<PlacesReply>('GET', '/places')).collections[0]!.count).toBe(0);
    const [row] = (await intake()).rows;
    await me.at('POST', '/taking-in', { ids: [row!.id] });
    const source = await me.at<SourceDetail>('GET', `/sources/${row!.id}`);
    expect(source).toMatchObject({ reading: 'to read', places: [{ path: 'Chapter 2' }], tags: [{ name: 'to check' }] });
    expect((await me.at<PlacesReply>('GET', '/places')).collections[0]!.count).toBe(1);
  });

  test('and met silence waits with its identifier, and is asked again', async () => {
    isSilent = true;
    registered['10.5555/gate.2014'] = COMPLETE;
    await bring('10.5555/gate.2014');
    const [row] = (await intake()).rows;
    expect(row).toMatchObject({ lookedUp: 'silent', record: { DOI: '10.5555/gate.2014' } });
    isSilent = false;
    await me.at('POST', `/intake/${row!.id}/look-up`, {});
    const [again] = (await intake()).rows;
    expect(again).toMatchObject({ lookedUp: 'found', lacks: [], record: { title: COMPLETE.title } });
  });

  test('and met silence is asked again by itself, after a while that grows', async () => {
    const { services } = server.app;
    const { pool } = services.database;
    const origin = async (): Promise<unknown> =>
      (
        await pool.query(
          `select tries, looked_up, next_try - now() > interval '15 minutes' as late from source_origins where workspace_id = $1`,
          [me.workspace],
        )
      ).rows[0];
    const later = `update source_origins set at = at - interval '1 day', next_try = next_try - interval '1 day'`;
    isSilent = true;
    registered['10.5555/gate.2014'] = COMPLETE;
    await bring('10.5555/gate.2014');
    await askAgain(services);
    expect(await origin()).toMatchObject({ tries: 0 });
    for (const late of [false, true]) {
      await pool.query(later);
      await askAgain(services);
      expect(await origin()).toMatchObject({ looked_up: 'silent', late });
    }
    isSilent = false;
    await pool.query(later);
    await askAgain(services);
    expect((await intake()).rows[0]).toMatchObject({ lookedUp: 'found', record: { title: COMPLETE.title } });
  });

  test('that lacks something is mended in place, and is complete', async () => {
    await bring('Okonjo, Marit. The Licensed Gate. 2nd ed. 1999.');
    const [row] = (await intake()).rows;
    expect(row!.lacks).toEqual(['publisher']);
    await me.at('PATCH', `/sources/${row!.id}`, { fields: { publisher: 'Tidal Press' } });
    expect((await intake('include=lacks%3Dnothing')).rows.map((r) => r.id)).toEqual([row!.id]);
  });

  test('passes straight through where the workspace lets what is complete and new do so', async () => {
    const steward = await server.person('steward', me.workspace);
    registered['10.5555/gate.2014'] = COMPLETE;
    await steward.at('PUT', '/gathering-settings', { passComplete: true, holdReferences: false });
    expect(await bring('10.5555/gate.2014\n10.5555/unknown')).toMatchObject({ added: 1, waiting: 1 });
    // What is here already waits, however complete: someone decides.
    expect(await bring('10.5555/gate.2014')).toMatchObject({ added: 0, waiting: 1 });
  });
});

describe('a text that was read', () => {
  test('follows when a stretch of it is given to another field, and can be made a reference by hand', async () => {
    await bring('ibid., at 214 of the Gate Papers');
    const [row] = (await intake()).rows;
    expect(row!.unread).toBe(true);
    const came = 'ibid., at 214 of the Gate Papers';
    const give = (words: string, field: string | null): Promise<Changed> => {
      const start = came.indexOf(words);
      return me.at('POST', `/intake/${row!.id}/respan`, { start, end: start + words.length, field });
    };
    await give('Gate Papers', 'title');
    await give('214', 'page');
    const { source, origin } = await detail(row!.id);
    expect(source.record).toMatchObject({ title: 'Gate Papers', page: '214' });
    expect(origin.spans.map((s) => s.field)).toEqual(['page', 'title']);
    expect((await intake()).rows[0]!.unread).toBe(false);
    await give('214', null);
    expect((await detail(row!.id)).source.record.page).toBeUndefined();
    const wrong = await me.call('POST', `/w/${me.workspace}/intake/${row!.id}/respan`, {
      start: 5,
      end: 9000,
      field: 'title',
    });
    expect(wrong.status).toBe(400);
  });
});

describe('what is corrected in one of a pasted list', () => {
  const line = (who: string, what: string, press: string, year: number): string =>
    `${who} ${what}. Sallow: ${press}, ${year}.`;
  const LIST = [
    line('Okonjo, Marit.', 'The Gate and Its Keepers', 'Tern Press', 2014),
    line('Vance, Ines.', 'Silt in Small Estuaries', 'Reed and Sons', 1987),
    line('Quill, Tobias.', 'A Harbour Without Water', 'Marsh House', 1998),
  ].join('\n\n');
  const presses = async (field: string): Promise<unknown[]> =>
    (await intake()).rows.map((r) => (r.record as unknown as Record<string, unknown>)[field]).sort();

  test('is corrected in those made like it, in one step that undoes; what was mended by hand stands', async () => {
    await bring(LIST);
    expect(await presses('publisher')).toEqual(['Marsh House', 'Reed and Sons', 'Tern Press']);
    const { rows } = await intake();
    const byHand = rows.find((r) => /Harbour/.test(r.record.title!))!;
    await me.at('PATCH', `/sources/${byHand.id}`, { fields: { publisher: 'Marsh & Co' } });
    const one = rows.find((r) => /Gate/.test(r.record.title!))!;
    const { came } = (await detail(one.id)).origin;
    const start = came!.indexOf('Tern Press');
    const done = await me.at<Changed>('POST', `/intake/${one.id}/respan`, { start, end: start + 10, field: 'genre' });
    expect(done.says).toBe('Corrected it, and one that is made like it');
    expect(await presses('genre')).toEqual(['Reed and Sons', 'Tern Press', undefined]);
    expect(await presses('publisher')).toEqual(['Marsh & Co', undefined, undefined]);
    await me.at('POST', `/changes/${done.changeId}/undo`, {});
    expect(await presses('publisher')).toEqual(['Marsh & Co', 'Reed and Sons', 'Tern Press']);
  });
});

describe('what is here already', () => {
  const RIS =
    'TY  - JOUR\nTI  - Who Closes the Gate and When\nAU  - Okonjo, Marit\nPY  - 2014\nDO  - 10.5555/gate.2014\nER  - \n';

  test('is told with its reasons; joining adds places, tags and file, fills what is empty and overwrites nothing', async () => {
    await me.import({ 'a.ris': RIS });
    const [here] = (await me.ask('')).rows;
    registered['10.5555/gate.2014'] = { ...COMPLETE, title: 'WHO CLOSES THE GATE AND WHEN' };
    const { id: collection } = await me.at<{ id: string }>('POST', '/collections', { name: 'Chapter 2' });
    await bring('10.5555/gate.2014', { destination: { collections: [collection], tags: ['twice'], reading: null } });
    const [row] = (await intake()).rows;
    expect(row!.here).toEqual({ id: here!.id, verdict: 'certain', places: 0 });
    const { here: matches } = await detail(row!.id);
    expect(matches[0]).toMatchObject({ id: here!.id, verdict: 'certain' });
    expect(matches[0]!.fills.toSorted()).toEqual(['container-title', 'page', 'volume']);
    expect(matches[0]!.reasons[0]).toEqual({ field: 'DOI', says: 'same DOI', for: true });
    const joined = await me.at<Changed>('POST', `/intake/${row!.id}/join`, { to: here!.id });
    expect(joined.says).toBe('Joined to “Who Closes the Gate and When”: 3 fields filled');
    expect(await me.at<SourceDetail>('GET', `/sources/${here!.id}`)).toMatchObject({
      record: { title: 'Who Closes the Gate and When', volume: '41' },
      places: [{ path: 'Chapter 2' }],
      tags: [{ name: 'twice' }],
    });
    expect((await summary()).waiting).toBe(0);
    await me.at('POST', '/undo');
    const back = await me.at<SourceDetail>('GET', `/sources/${here!.id}`);
    expect([back.record.volume, back.places, back.tags]).toEqual([undefined, [], []]);
    expect((await intake()).rows.map((r) => r.id)).toEqual([row!.id]);
  });

  test('is known by the evidence of the whole record, where no key of it is the same', async () => {
    await me.import({ 'a.ris': RIS.replace('DO  - 10.5555/gate.2014\n', '') });
    const [here] = (await me.ask('')).rows;
    registered['10.5555/gaet.2014'] = { ...COMPLETE, title: 'Who closs the gates, and when', DOI: '10.5555/gaet.2014' };
    await bring('10.5555/gaet.2014');
    await server.settle();
    expect((await intake()).rows[0]!.here).toMatchObject({ id: here!.id });
  });

  test('is not taken in with the complete ones', async () => {
    await me.import({ 'a.ris': RIS });
    registered['10.5555/gate.2014'] = COMPLETE;
    await bring('10.5555/gate.2014');
    expect(await summary()).toMatchObject({ waiting: 1, complete: 0 });
    const taken = await me.at<Changed>('POST', '/taking-in', { matching: { scope: 'intake' }, complete: true });
    expect(taken.changeId).toBeNull();
  });

  test('decided by two at once, it takes effect once: joined twice, or joined and taken in', async () => {
    await me.at('POST', '/sources', { record: COMPLETE });
    const [here] = (await me.ask('')).rows;
    const other = await server.person('contributor', me.workspace);
    for (const second of ['join', 'take in'] as const) {
      const more = { ...COMPLETE, note: `Read ${second}`, type: 'article-journal', id: second };
      await me.import({ 'one.json': JSON.stringify([more]) }, undefined, 'intake');
      const [row] = (await intake()).rows;
      const w = `/w/${me.workspace}`;
      const replies = await Promise.all([
        me.call<Changed>('POST', `${w}/intake/${row!.id}/join`, { to: here!.id }),
        second === 'join'
          ? other.call<Changed>('POST', `${w}/intake/${row!.id}/join`, { to: here!.id })
          : other.call<Changed>('POST', `${w}/taking-in`, { ids: [row!.id] }),
      ]);
      const took = replies.filter((r) => r.status === 200 && r.body.changeId);
      expect(took.length, JSON.stringify(replies.map((r) => r.body))).toBe(1);
      if (took[0] === replies[1] && second === 'take in')
        await me.at('POST', '/presence', { ids: [row!.id], to: 'bin' });
    }
  });

  test('a document of the same bytes is certain, and its file is joined once', async () => {
    const pdf = await makePdf([['The Night Watch at the Sluice', 'Anton Brackwater', 'Operators closed late.']]);
    await me.import({ 'a.pdf': pdf });
    await me.import({ 'b.pdf': pdf }, undefined, 'as set');
    const [row] = (await intake()).rows;
    expect(row!.here?.verdict).toBe('certain');
    await me.at('POST', `/intake/${row!.id}/join`, { to: row!.here!.id });
    expect((await me.at<SourceDetail>('GET', `/sources/${row!.here!.id}`)).files).toHaveLength(1);
  });
});

describe('the intake', () => {
  test('gives up what is set aside, and takes it back', async () => {
    await bring('Okonjo, Marit. The Licensed Gate. 2nd ed. 1999.');
    const [row] = (await intake()).rows;
    const { says } = await me.at<Changed>('POST', '/setting-aside', { ids: [row!.id], aside: true });
    expect(says).toBe('Set 1 source aside, kept there 30 days');
    expect([(await intake()).total, (await intake('scope=aside')).total]).toEqual([0, 1]);
    await me.at('POST', '/setting-aside', { ids: [row!.id], aside: false });
    expect((await intake()).total).toBe(1);
    // What was taken in is no more set aside.
    await me.at('POST', '/taking-in', { ids: [row!.id] });
    expect((await me.at<Changed>('POST', '/setting-aside', { ids: [row!.id], aside: true })).changeId).toBeNull();
    expect((await me.call('GET', `/w/${me.workspace}/intake/${row!.id}`)).status).toBe(409);
  });

  test('of a gathering that is undone is empty, and what was taken in of it meanwhile goes too', async () => {
    const report = await bring(
      'Okonjo, Marit. The Licensed Gate. 2nd ed. 1999.\n\nQuill, Tobias. Marsh Accounts. 2001.',
    );
    expect(report.waiting).toBe(2);
    await me.at('POST', `/changes/${report.changeId}/undo`);
    expect((await intake()).total).toBe(0);
  });

  test('is seen by whoever may gather, and by no reader', async () => {
    await bring('Okonjo, Marit. The Licensed Gate. 2nd ed. 1999.');
    const reader = await server.person('reader', me.workspace);
    for (const path of ['/intake', '/intake-summary', '/sources?scope=intake', '/narrow?scope=aside'])
      expect((await reader.call('GET', `/w/${me.workspace}${path}`)).status).toBe(403);
  });

  test('may be narrowed by what is missing and by what came together', async () => {
    const first = await bring('Okonjo, Marit. The Licensed Gate. 2nd ed. 1999.');
    await bring('Vance S, Ito R. Sediment starvation behind tidal barriers. Coast Proc. 2011;41(3):311-28.');
    expect((await intake('include=lacks%3Dpublisher')).rows.map((r) => r.record.title)).toEqual(['The Licensed Gate']);
    expect((await intake(`include=batch%3D${first.id}`)).total).toBe(1);
    const sorted = (await intake('sort=title')).rows.map((r) => r.record.title);
    expect(sorted).toEqual(['The Licensed Gate', 'Sediment starvation behind tidal barriers']);
  });
});
