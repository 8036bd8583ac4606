import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import type { Changed, CheckedQuotations, HistoryEntry, NoteReply, NotesReply, OutlineList, Problem, SourceRow, TimelineReply, WebReply } from '@pandecta/contract'; // prettier-ignore
import { quotation, type DocNode } from '@pandecta/core/notes';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
let other: Person;
let row: SourceRow;
let sense: string;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());
beforeEach(async () => {
  me = await server.person('steward');
  other = await server.person('contributor', me.workspace);
  await me.import({
    'letter.pdf': await makePdf([
      ['Letter to the Secretary'],
      ['We pray that the barrier be not shut upon the ebb', 'as the Commissioners did promise.'],
    ]),
  });
  [row] = (await me.ask('')).rows as [SourceRow];
  const at = await me.at<{ senses: { id: string }[] }>('GET', `/sources/${row.id}/files/${row.fileId!}`);
  sense = at.senses[0]!.id;
});

const p = (text: string): DocNode => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const doc = (...content: DocNode[]): DocNode => ({ type: 'doc', content });
const make = async (body: object, person = me): Promise<string> =>
  (await person.at<Changed>('POST', '/notes', body)).id!;
const note = (id: string, person = me): Promise<NoteReply> => person.at('GET', `/notes/${id}`);
const list = (body: object = {}, person = me): Promise<NotesReply> => person.at('POST', '/notes/list', body);
const titles = async (body: object = {}, person = me): Promise<string[]> => (await list(body, person)).notes.map((n) => n.title); // prettier-ignore
const heading = async (name: string, kind = 'person', more: object = {}): Promise<string> =>
  (await me.at<Changed>('POST', '/headings', { name, kind, ...more })).id!;
const mark = async (exact: string, gloss = ''): Promise<string> =>
  (await me.at<Changed>('POST', `/sources/${row.id}/files/${row.fileId!}/marks`, { page: 2, sense, quote: { exact, prefix: '', suffix: '' }, rects: [], gloss })).id!; // prettier-ignore
const quoted = (words: string, page = 2): DocNode =>
  quotation({ source: row.id, file: row.fileId!, page, cited: String(page), mark: null }, words);

test('a note is made of marks: each a quotation with its page and its gloss, and it leads back to them', async () => {
  const marks = [await mark('be not shut upon the ebb', 'Four days before'), await mark('did promise')];
  const id = await make({ marks });
  const { title, text, sources } = await note(id);
  expect(title).toBe('be not shut upon the ebb');
  expect(text.content!.map((n) => [n.type, n.content![0]!.text])).toEqual([
    ['quotation', 'be not shut upon the ebb'],
    ['paragraph', 'Four days before'],
    ['quotation', 'did promise'],
  ]);
  expect(text.content![0]!.attrs).toMatchObject({
    source: row.id,
    file: row.fileId,
    page: 2,
    cited: '2',
    mark: marks[0],
  });
  expect(sources).toMatchObject([{ id: row.id, cited: '2', page: 2, mark: marks[0] }]);
});

test('what is written is kept, said in the history of note and source, and undone step by step', async () => {
  const id = await make({ title: 'Who knew', text: doc(quoted('be not shut')) });
  await me.at('PATCH', `/notes/${id}`, { event: 'spring 1872' });
  await me.at('PATCH', `/notes/${id}`, { title: 'Who knew of it' });
  await me.at('DELETE', `/notes/${id}`);
  const { entries } = await me.at<{ entries: HistoryEntry[] }>('GET', `/sources/${row.id}/history`);
  expect(entries.map((e) => e.says).slice(0, 4)).toEqual([
    'Removed the note “Who knew of it”',
    'Renamed the note “Who knew” to “Who knew of it”',
    'Dated the note “Who knew” spring 1872',
    'Wrote the note “Who knew”',
  ]);
  expect(await titles()).toEqual([]);
  const states = [];
  for (let n = 0; n < 3; n += 1) {
    await me.at('POST', '/undo');
    const { title, event } = await note(id);
    states.push([title, event]);
  }
  expect(states).toEqual([['Who knew of it', 'spring 1872'], ['Who knew', 'spring 1872'], ['Who knew', null]]); // prettier-ignore
  await me.at('POST', '/undo');
  expect((await me.call('GET', `/w/${me.workspace}/notes/${id}`)).status).toBe(404);
});

test('who writes over another’s text is told, and nothing is lost', async () => {
  const id = await make({ title: 'Ours', text: doc(p('One')) });
  await other.at('PATCH', `/notes/${id}`, { text: doc(p('Theirs')), seen: { text: doc(p('One')) } });
  const reply = await me.call<Problem>('PATCH', `/w/${me.workspace}/notes/${id}`, { text: doc(p('Mine')), seen: { text: doc(p('One')) } }); // prettier-ignore
  expect([reply.status, reply.body.code]).toEqual([409, 'stale_edit']);
  expect((await note(id)).text).toEqual(doc(p('Theirs')));
});

test('a text that is none, a mark or a source that is not there: refused with what is wrong', async () => {
  const refused = async (body: object): Promise<string> => (await me.call<Problem>('POST', `/w/${me.workspace}/notes`, body)).body.detail; // prettier-ignore
  expect(await refused({ text: { type: 'doc', content: [{ type: 'script' }] } })).toContain('no “script”');
  expect(await refused({})).toContain('a title or some text');
  expect(await refused({ marks: [row.id] })).toContain('no such mark');
  expect(await refused({ title: 'x', about: [row.id] })).toContain('no such heading');
  expect(await refused({ text: doc(quotation({ source: me.workspace, file: null, page: null, cited: '', mark: null }, 'x')) })).toContain('no such source'); // prettier-ignore
  expect(await titles()).toEqual([]);
});

test('a note of one’s own is nobody else’s: not in lists, counts, webs, history, exports or answers', async () => {
  const about = await heading('Okonjo, Elias');
  const id = await make({ title: 'Zygomorphic', text: doc(quoted('be not shut')), about: [about], event: '1872', personal: true }); // prettier-ignore
  await server.settle();
  expect(await titles()).toEqual(['Zygomorphic']);
  expect(await list({}, other)).toMatchObject({ total: 0, about: [], years: [] });
  expect((await other.at<{ total: number }>('GET', '/notes/count')).total).toBe(0);
  expect(await other.at<TimelineReply>('POST', '/notes/timeline', {})).toMatchObject({ notes: [], undated: 0 });
  expect((await other.at<WebReply>('POST', '/notes/web', {})).nodes).toEqual([]);
  expect(await other.at('GET', `/headings/${about}`)).toMatchObject({ notes: [], beside: [], first: null, marks: 0 });
  for (const [method, path, body] of [
    ['GET', '', undefined],
    ['PATCH', '', { title: 'Mine' }],
    ['DELETE', '', undefined],
    ['GET', '/check', undefined],
    ['POST', '/share', undefined],
    ['POST', '/split', { start: 0, end: 2, title: '' }],
  ] as const)
    expect([path, (await other.call(method, `/w/${me.workspace}/notes/${id}${path}`, body)).status]).toEqual([
      path,
      404,
    ]);
  expect([await me.titles('zygomorphic'), await other.titles('zygomorphic')]).toEqual([[row.record.title], []]);
  expect([await me.titles('about:Okonjo'), await other.titles('about:Okonjo')]).toEqual([[row.record.title], []]);
  expect([await me.titles('has:research'), await other.titles('has:research')]).toEqual([[row.record.title], []]);
  const history = async (person: Person): Promise<number> =>
    (await person.at<{ entries: HistoryEntry[] }>('GET', `/sources/${row.id}/history`)).entries.filter((e) => e.says.includes('note')).length; // prettier-ignore
  expect([await history(me), await history(other)]).toEqual([1, 0]);
  await me.at('POST', `/notes/${id}/share`);
  await server.settle();
  expect([await titles({}, other), await other.titles('zygomorphic')]).toEqual([['Zygomorphic'], [row.record.title]]);
});

test('a reader writes for themselves alone', async () => {
  const reader = await server.person('reader', me.workspace);
  const shared = await make({ title: 'Ours' });
  const own = await make({ title: 'Mine' }, reader);
  expect((await note(own, reader)).personal).toBe(true);
  expect([await titles({}, reader), await titles()]).toEqual([['Mine', 'Ours'], ['Ours']]);
  for (const [method, path] of [['PATCH', shared], ['DELETE', shared], ['POST', `${own}/share`]] as const) // prettier-ignore
    expect((await reader.call(method, `/w/${me.workspace}/notes/${path}`, method === 'PATCH' ? { title: 'x' } : undefined)).status).toBe(403); // prettier-ignore
});

test('notes are asked in the language of the ask line, narrowed, and put in order by several keys', async () => {
  const [okonjo, promise] = [await heading('Okonjo, Elias', 'person', { others: ['E. Okonjo'] }), await heading('promise of 1872', 'theme')]; // prettier-ignore
  await make({ title: 'Petition of the boatmen', text: doc(p('That the promise be kept')), event: 'February 1871', about: [promise], tags: ['used'] }); // prettier-ignore
  await make({ title: 'Okonjo reminds the Commission', text: doc(quoted('did promise')), event: '18 Feb 1872', about: [okonjo, promise] }); // prettier-ignore
  await make({ title: 'What a court would call it', text: doc(p('Reliance and loss')) });
  const sorted = { sort: ['event', 'title'] };
  expect(await titles(sorted)).toEqual(['Petition of the boatmen', 'Okonjo reminds the Commission', 'What a court would call it']); // prettier-ignore
  expect(await titles({ sort: ['-event'] })).toEqual(['Okonjo reminds the Commission', 'Petition of the boatmen', 'What a court would call it']); // prettier-ignore
  const asked: [object, string[]][] = [
    [{ q: 'promises' }, ['Petition of the boatmen', 'Okonjo reminds the Commission']],
    [{ q: '"promise be kept"' }, ['Petition of the boatmen']],
    [{ q: 'promise -boatmen' }, ['Okonjo reminds the Commission']],
    [{ q: 'relian* or petition' }, ['Petition of the boatmen', 'What a court would call it']],
    [{ q: 'promise near/3 kept' }, ['Petition of the boatmen']],
    [{ q: 'about:"E. Okonjo"' }, ['Okonjo reminds the Commission']],
    [{ q: 'tag:used' }, ['Petition of the boatmen']],
    [{ q: `title:Letter` }, ['Okonjo reminds the Commission']],
    [{ about: [promise] }, ['Petition of the boatmen', 'Okonjo reminds the Commission']],
    [{ about: [promise, okonjo] }, ['Okonjo reminds the Commission']],
    [{ from: ['neither'] }, ['Petition of the boatmen', 'What a court would call it']],
    [{ yearFrom: 1872, yearTo: 1872 }, ['Okonjo reminds the Commission']],
    [{ source: row.id }, ['Okonjo reminds the Commission']],
  ];
  for (const [body, found] of asked) expect([body, await titles({ ...body, ...sorted })]).toEqual([body, found]);
  const { about, years, from, tags } = await list();
  expect(about.map((h) => [h.name, h.count])).toEqual([['promise of 1872', 2], ['Okonjo, Elias', 1]]); // prettier-ignore
  expect(years).toEqual([{ year: 1871, count: 1 }, { year: 1872, count: 1 }]); // prettier-ignore
  expect(from.map((f) => [f.key, f.count])).toEqual([['neither', 2], ['source', 1]]); // prettier-ignore
  expect(tags.map((f) => [f.name, f.count])).toEqual([['used', 1]]);
  const excerpt = (await list({ q: 'kept' })).notes[0]!.excerpt;
  expect(excerpt).toContain('be kept');
});

test('a stretch becomes a note of its own with headings, date and the way back; joined again, and each undone', async () => {
  const about = [await heading('Okonjo, Elias')];
  const id = await make({ title: 'Letter', text: doc(quoted('be not shut upon the ebb'), p('He knew')), about, event: '1872', tags: ['used'] }); // prettier-ignore
  const before = await note(id);
  const { id: part, says } = await me.at<Changed>('POST', `/notes/${id}/split`, { start: 24, end: 31, title: 'He knew of it' }); // prettier-ignore
  expect(says).toBe('Took the note “He knew of it” out of “Letter”');
  const [rest, taken] = [await note(id), await note(part!)];
  expect([rest.text, taken.text]).toEqual([doc(quoted('be not shut upon the ebb')), doc(p('He knew'))]);
  expect([taken.event, taken.tags, taken.about.map((h) => h.id), taken.sources.map((s) => [s.id, s.cited])]).toEqual(['1872', ['used'], about, [[row.id, '2']]]); // prettier-ignore
  await me.at('POST', `/notes/${id}/join`, { notes: [part] });
  expect((await note(id)).text.content!.map((n) => n.type)).toEqual(['quotation', 'heading', 'paragraph']);
  expect(await titles()).toEqual(['Letter']);
  await me.at('POST', '/undo');
  expect((await titles({ sort: ['title'] })).sort()).toEqual(['He knew of it', 'Letter']);
  await me.at('POST', '/undo');
  expect(await note(id)).toEqual({ ...before, changed: expect.any(String) as string });
});

test('its quotations are looked for on their pages: right, nearly, on another page, not there', async () => {
  const id = await make({
    text: doc(
      quoted('barrier be not shut upon the ebb as the Commissioners'),
      quoted('barrier be not closed upon the ebb'),
      quoted('be not shut upon the ebb', 1),
      quoted('the harbour master had a key of his own'),
      quotation({ source: row.id, file: null, page: null, cited: '', mark: null }, 'be not shut'),
    ),
  });
  const { quotations } = await me.at<CheckedQuotations>('GET', `/notes/${id}/check`);
  expect(quotations.map((q) => [q.stands, q.elsewhere])).toEqual([['yes', null], ['nearly', null], ['no', 2], ['no', null], ['unknown', null]]); // prettier-ignore
  expect(quotations[1]!.differences).toEqual([{ quoted: 'closed', page: 'shut', misread: false }]);
});

test('notes link to each other, and each says what leads to it and how', async () => {
  const minute = await make({ title: 'The minute' });
  const to = { type: 'reference', attrs: { to: 'note', id: minute, label: 'the minute', how: 'disagrees' } };
  const id = await make({ title: 'The letter', text: doc({ type: 'paragraph', content: [to] }), about: [await heading('The promise', 'theme')] }); // prettier-ignore
  expect((await note(minute)).leadsHere).toEqual([{ to: 'note', id, title: 'The letter', how: 'disagrees' }]);
  const { nodes, links } = await me.at<WebReply>('POST', '/notes/web', { around: id });
  expect(nodes.map((n) => [n.kind, n.name]).sort()).toEqual([['note', 'The letter'], ['note', 'The minute'], ['theme', 'The promise']]); // prettier-ignore
  expect(links.map((l) => l.how).sort()).toEqual(['about', 'disagrees']);
});

test('an outline holds notes in an order made by hand; what one does not see is left out of it', async () => {
  const [one, own] = [await make({ title: 'One' }), await make({ title: 'Own', personal: true })];
  const node = (note: string, children: object[] = []) => ({ note, title: '', used: false, children });
  const { id } = await me.at<Changed>('POST', '/outlines', { name: 'Chapter 2', nodes: [node(own, [node(one)])] });
  const of = async (person: Person) => (await person.at<OutlineList>('GET', '/outlines')).outlines[0]!.nodes;
  expect(await of(me)).toEqual([node(own, [node(one)])]);
  expect(await of(other)).toEqual([node(one)]);
  expect(await titles({ outline: id, sort: ['title'] })).toEqual(['One', 'Own']);
  expect((await list({ sort: ['title'] })).notes.map((n) => n.outlines)).toEqual([1, 1]);
  await me.at('DELETE', `/outlines/${id}`);
  expect((await titles()).length).toBe(2);
});

test('notes go out as a folder of Markdown and as JSON', async () => {
  await make({ title: 'The letter', text: doc(quoted('be not shut upon the ebb')), event: 'spring 1872' });
  const reply = await me.bytes('/notes/export', { format: 'markdown' });
  const files = unzipSync(reply);
  expect(Object.keys(files)).toEqual(['The letter.md']);
  expect(strFromU8(files['The letter.md']!)).toMatch(
    /date: spring 1872[^]*> be not shut upon the ebb\[\^1\][^]*\[\^1\]: .*p\. 2/,
  );
});
