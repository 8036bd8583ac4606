/** Documents that refer to works, and tables whose columns a person names. */
import { execFileSync } from 'node:child_process';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { ImportReport, IntakePage, Started } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => void (server = await startTestServer()));
beforeEach(async () => void (me = await server.person('contributor')));
afterAll(() => server.close());

const waiting = async (): Promise<string[]> =>
  (await me.at<IntakePage>('GET', '/intake')).rows.map((r) => r.record.title ?? '').sort();

test('a document puts the references of its notes and lists into the intake, and says what it is', async () => {
  const docx = execFileSync('pandoc', ['-f', 'markdown', '-t', 'docx', '-o', '-'], {
    input:
      'Gates close.^[Okonjo, M. (2014). Who closes the gate? *Coastal Processes*, 41(3), 1–20.] They open.^[Ibid.]\n\n# References\n\nVance, I. (2009). *Silt in small estuaries*. Quillback Press.\n',
  });
  const { files, messages, waiting: count } = await me.import({ 'chapter.docx': docx }, undefined, 'as set');
  expect(files).toMatchObject([{ format: 'a DOCX document', outcome: '2 in the intake' }]);
  expect(count).toBe(2);
  expect(await waiting()).toEqual(['Silt in small estuaries', 'Who closes the gate?']);
  expect(messages.map((m) => `${m.what}; ${m.done}`)).toEqual([
    'It is a DOCX document; taken out of it: 2 references',
    '1 of its notes name no source; left out',
  ]);
});

test('a plain list of references goes the same way, and a diary is refused', async () => {
  const list = 'Vance, I. (2009). Silt in small estuaries. Coastal Processes, 12(3), 201–209.\n';
  const report = await me.import({ 'list.txt': list, 'diary.txt': 'Dear diary' }, undefined, 'as set');
  expect(report.files.map((f) => f.outcome)).toEqual([
    '1 in the intake',
    'This kind of file cannot be read: it is no reference file, table, document, page, picture or PDF',
  ]);
});

test('a table is read as its columns were said to be', async () => {
  const send = async (columns: string): Promise<ImportReport> => {
    const form = new FormData();
    form.append('columns', columns);
    form.append('file', new Blob(['Werk,Wann\nSilt,2009\n']), 'a.csv');
    form.append('file', new Blob(['Title,Year\nGates,2014\n']), 'b.csv');
    const { importId, jobId } = await me.at<Started>('POST', '/imports', form);
    await me.jobEnds(jobId);
    return me.at<ImportReport>('GET', `/imports/${importId}`);
  };
  expect((await send('{"Werk":"title","Wann":"issued"}')).files.map((f) => f.outcome)).toEqual([
    '1 source new',
    '1 source new',
  ]);
  expect(await me.titles('silt')).toEqual(['Silt']);
  await expect(send('{"Werk":"weight"}')).rejects.toThrow('“Werk” is said to be');
});
