import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { sql } from 'drizzle-orm';
import type { Changed, Problem, SourceDetail } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { forgetReservedKeys, giveMissingKeys, reserveCitationKeys } from './citation-keys.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('steward');
});

const GATE = { type: 'book', title: 'The Licensed Gate', author: [{ family: 'Okonjo', given: 'Marit' }], issued: { 'date-parts': [[2014]] } }; // prettier-ignore
const add = async (record: object = GATE, who = me): Promise<string> =>
  (await who.at<Changed>('POST', '/sources', { record })).id!;
const keyOf = async (id: string): Promise<string | undefined> =>
  (await me.at<SourceDetail>('GET', `/sources/${id}`)).record['citation-key'];
const edit = (id: string, key: string | null) =>
  me.call<Problem & Changed>('PATCH', `/w/${me.workspace}/sources/${id}`, { fields: { 'citation-key': key } });

test('every source has a key of its own, which stays when its record is altered', async () => {
  const [a, b, c] = [await add(), await add(), await add({ type: 'report', title: 'The Tides' })];
  expect([await keyOf(a), await keyOf(b), await keyOf(c)]).toEqual(['okonjo2014', 'okonjo2014a', 'tides']);
  await me.at('PATCH', `/sources/${a}`, { fields: { issued: { 'date-parts': [[2016]] } } });
  expect(await keyOf(a)).toBe('okonjo2014');
});

test('of many added at once, and by several people, no two have one key', async () => {
  const others = await Promise.all([1, 2, 3].map(() => server.person('contributor', me.workspace)));
  const ids = await Promise.all([me, ...others, me, ...others].map((who) => add(GATE, who)));
  const keys = await Promise.all(ids.map(keyOf));
  expect(new Set(keys).size).toBe(8);
});

test('a key a file came with is kept, unless another source has it', async () => {
  const bib = (title: string) => ({ 'a.bib': `@book{Okonjo:Gate, title={${title}}, year={2014}}` });
  await me.import(bib('The licensed gate and who may close it'));
  await me.import(bib('Another book with another title altogether'));
  const keys = await Promise.all((await me.ask('')).rows.map((r) => keyOf(r.id)));
  expect(keys.toSorted()).toEqual(['Okonjo:Gate', 'Okonjo:Gatea']);
});

test('a key is altered to one that is free and sound, and given anew where it is emptied', async () => {
  const [a, b] = [await add(), await add()];
  const taken = await edit(b, 'OKONJO2014');
  expect([taken.status, taken.body.detail]).toEqual([409, 'The citation key “okonjo2014” is that of “The Licensed Gate”. Nothing was saved; choose another.']); // prettier-ignore
  expect((await edit(b, 'two words')).status).toBe(400);
  await edit(b, 'gate');
  expect(await keyOf(b)).toBe('gate');
  await edit(b, null);
  expect(await keyOf(b)).toBe('okonjo2014a');
  expect(await keyOf(a)).toBe('okonjo2014');
});

test('what is undone takes no key back that another work has by now', async () => {
  const a = await add();
  const { body } = await edit(a, 'gate');
  const b = await add();
  expect(await keyOf(b)).toBe('okonjo2014');
  expect((await me.call('POST', `/w/${me.workspace}/changes/${body.changeId}/undo`)).status).toBe(409);
  expect([await keyOf(a), await keyOf(b)]).toEqual(['gate', 'okonjo2014']);
});

test('through a merge the one that stays keeps its key, or takes the other’s where one says so; undone, each has its own', async () => {
  const [a, b] = [await add(), await add()];
  await me.at('POST', '/merges', { into: b, sources: [a] });
  expect(await keyOf(b)).toBe('okonjo2014a');
  expect((await me.ask('key:okonjo2014')).rows.map((r) => r.id)).toEqual([b]);
  await me.at('POST', '/undo');
  await me.at('POST', '/merges', { into: b, sources: [a], take: { 'citation-key': a } });
  expect(await keyOf(b)).toBe('okonjo2014');
  await me.at('POST', '/undo');
  expect([await keyOf(a), await keyOf(b)]).toEqual(['okonjo2014', 'okonjo2014a']);
});

test('a source is exported under its key, whatever else is chosen', async () => {
  const ids = [await add(), await add()];
  const as = (format: string, chosen: string[]) => me.at<string>('POST', '/export', { ids: chosen, format });
  expect(await as('bibtex', [ids[1]!])).toMatch(/^@book\{okonjo2014a,/);
  expect(await as('bibtex', ids)).toMatch(/@book\{okonjo2014,[^]*@book\{okonjo2014a,/);
  expect(await as('csl-json', [ids[1]!])).toContain('"id": "okonjo2014a"');
  expect(await as('ris', [ids[1]!])).toContain('ID  - okonjo2014a');
});

test('sources of the time before are given keys when the server starts', async () => {
  const ids = [await add(), await add()];
  const { db } = server.app.services;
  await db.execute(sql`update sources set record = record - 'citation-key' where workspace_id = ${me.workspace}`);
  await db.execute(sql`delete from source_keys where workspace_id = ${me.workspace} and key like 'cite:%'`);
  await giveMissingKeys(server.app.services);
  expect((await Promise.all(ids.map(keyOf))).toSorted()).toEqual(['okonjo2014', 'okonjo2014a']);
});

test('a key reserved for a gathering that never ended is free again after a day', async () => {
  const { db } = server.app.services;
  const reserve = async (id: string) =>
    (await reserveCitationKeys(db, me.workspace, [{ id, record: GATE as never }]))[0]!.record['citation-key'];
  // The first 48 bits of a UUID of version 7 are the milliseconds it was made at.
  const madeAt = (ms: number): string => {
    const hex = ms.toString(16).padStart(12, '0');
    return `${hex.slice(0, 8)}-${hex.slice(8)}-7000-8000-000000000001`;
  };
  const now = Date.now();
  expect([await reserve(madeAt(now - 2 * 86_400_000)), await reserve(madeAt(now))]).toEqual([
    'okonjo2014',
    'okonjo2014a',
  ]);
  await forgetReservedKeys(db);
  expect([await keyOf(await add()), await keyOf(await add())]).toEqual(['okonjo2014', 'okonjo2014b']);
});
