/** No entry, whatever it holds, costs its file or its import: what cannot be kept is said, the rest comes in. */
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => void (server = await startTestServer()));
beforeEach(async () => void (me = await server.person('contributor')));
afterAll(() => server.close());

const LONG = `${'x'.repeat(299)}🙂 and more`;
const MANY = '🙂'.repeat(400);
const DEEP = `${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}`;

test.each<[string, string, number]>([
  [
    'a.json',
    `[{"type":"book","title":"First"},
      {"type":"book","title":"${LONG}","author":[{"literal":"${LONG}"}],"container-title":"${MANY}","keyword":"${MANY}; İstanbul"},
      {"type":"book","title":"Half \\ud83d","note":"\\udc00","x\\ud800":"y"},
      {"type":"book","title":"Late","issued":{"date-parts":[[99999999999]]}},
      {"type":"book","title":"Deep","custom":${DEEP}},
      {"type":"book","title":"Last"}]`,
    5,
  ],
  [
    'a.ris',
    `TY  - BOOK\nTI  - First\nER  - \nTY  - BOOK\nTI  - ${LONG}\nAU  - ${MANY}, X\nT2  - ${LONG}\nKW  - ${MANY}\nPY  - 99999999999\nDO  - 10.5555/${MANY}\nER  - \nTY  - BOOK\nTI  - Half\nU5  - csl {"set":{"note":"\\ud83d"}}\nER  - \nTY  - BOOK\nTI  - Last\nER  - \n`,
    4,
  ],
  [
    'a.bib',
    `@book{a, title={First}}\n@book{b, title={${LONG}}, author={${MANY}, X}, date={Y99999999999}, keywords={${MANY}}}\n@book{c, title={Half \\char"D83D}, year={99999999999}, doi={10.5555/${MANY}}}\n@book{d, title={${'{'.repeat(20_000)}x${'}'.repeat(20_000)}}}\n@book{e, title={Last}}`,
    5,
  ],
])('in %s', async (name, content, count) => {
  const report = await me.import({ [name]: content });
  expect(report).toMatchObject({ added: count, job: { state: 'done' } });
  await server.settle();
  const titles = await me.titles('');
  expect(titles).toEqual(expect.arrayContaining(['First', 'Last']));
  expect(titles).toHaveLength(count);
  // Undone and done again, and asked for: nothing that was kept breaks later on.
  await me.at('POST', `/changes/${report.changeId}/undo`);
  await me.at('POST', '/redo');
  expect((await me.ask('first')).total).toBe(1);
});

test('the entry that was left out is named', async () => {
  const report = await me.import({ 'deep.json': `[{"type":"book","title":"One"},\n{"type":"book","custom":${DEEP}}]` });
  expect(report.added).toBe(1);
  expect(report.messages).toEqual([
    expect.objectContaining({ rule: 'too-deep', line: 2, severity: 'error', done: 'left out; the others were read' }),
  ]);
});

test('a file of a format that is known but not read is refused by its name', async () => {
  const report = await me.import({
    'index.ciw': 'FN Sallow Index\nVR 1.0\nPT J\nAU Vance, I\nTI Silt\nER\n\nEF\n',
    'page.pdf': '<!DOCTYPE html><html><title>Sign in</title></html>',
    'package.json': '{"name":"gauge","version":"1"}',
  });
  expect(Object.fromEntries(report.files.map((f) => [f.name, f.trouble]))).toEqual({
    'index.ciw': 'It is a tagged export with two-letter tags (FN, PT, AU, TI), which is not read',
    'page.pdf': 'It is an HTML page, which is not read',
    'package.json': 'It is JSON, but not of the CSL-JSON form, which is not read',
  });
  expect(report.added).toBe(0);
});

test('half a character typed into a record is refused with a sentence', async () => {
  const { changeId: _, ...report } = await me.import({ 'a.bib': '@book{a, title={First}}' });
  expect(report.added).toBe(1);
  const { rows } = await me.ask('');
  const half = String.fromCharCode(0xd83d);
  await expect(me.at('PATCH', `/sources/${rows[0]!.id}`, { fields: { title: `x${half}` } })).rejects.toThrow(
    'half a character',
  );
});
