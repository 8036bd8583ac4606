import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { AlterPreview, Changed, SourceDetail } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('contributor');
  const ris = ['pp. 1-9', 'pp. 12-19', '3'].map((p, i) => `TY  - JOUR\nTI  - Tides ${i}\nSP  - ${p}\nER  - \n`);
  await me.import({ 'three.ris': ris.join('') });
});

const all = { matching: {} };
const pages = async (): Promise<(string | undefined)[]> => {
  const { rows } = await me.ask('', '&sort=title');
  return Promise.all(rows.map(async (r) => (await me.at<SourceDetail>('GET', `/sources/${r.id}`)).record.page));
};

test('a part of a field is replaced in many by an expression: seen before, done as one change, undone in one step', async () => {
  const before = await pages();
  const asked = { ...all, field: 'page', way: 'replace', find: '^pp\\. *', value: '', expression: true };
  const preview = await me.at<AlterPreview>('POST', '/altering/preview', asked);
  expect(preview).toMatchObject({ altered: 2, same: 1 });
  expect(preview.first.map((f) => f.after).sort()).toEqual(['1-9', '12-19']);
  expect(await pages()).toEqual(before);
  const { says, changeId } = await me.at<Changed>('POST', '/altering', asked);
  expect([says, await pages()]).toEqual(['Changed pages in 2 sources', ['1-9', '12-19', '3']]);
  await me.at('POST', `/changes/${changeId}/undo`);
  expect(await pages()).toEqual(before);
});

test('what is set only where it is empty leaves what others wrote; what cannot be is refused with why, and nothing is changed', async () => {
  const [first] = (await me.ask('', '&sort=title')).rows;
  await me.at('PATCH', `/sources/${first!.id}`, { fields: { language: 'de' } });
  await me.at('POST', '/altering', { ...all, field: 'language', way: 'set', value: 'en', onlyEmpty: true });
  expect((await me.ask('language:de')).total).toBe(1);
  expect((await me.ask('language:en')).total).toBe(2);
  const wrong = await me.call<{ detail: string }>('POST', `/w/${me.workspace}/altering`, {
    ...all,
    field: 'title',
    way: 'replace',
    find: '(',
    expression: true,
  });
  expect([wrong.status, wrong.body.detail]).toEqual([400, expect.stringContaining('the expression cannot be read')]);
});

test('undone after someone wrote into one of them, none of it is taken back in silence', async () => {
  const { changeId } = await me.at<Changed>('POST', '/altering', {
    ...all,
    field: 'note',
    way: 'append',
    value: 'seen',
  });
  const [first] = (await me.ask('', '&sort=title')).rows;
  await me.at('PATCH', `/sources/${first!.id}`, { fields: { note: 'Box 4' } });
  const undone = await me.call('POST', `/w/${me.workspace}/changes/${changeId}/undo`);
  expect(undone.status).toBe(409);
  expect((await me.ask('', '&sort=title')).rows.length).toBe(3);
  expect((await me.at<SourceDetail>('GET', `/sources/${first!.id}`)).record.note).toBe('Box 4');
});
