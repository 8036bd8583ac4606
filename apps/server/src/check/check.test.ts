/** Duplicates become one, records become right, and each of it can be taken back. */
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import type {
  Brought,
  CasesOf,
  Changed,
  Consolidation,
  Duplicates,
  Findings,
  JobList,
  Loose,
  Mark,
  Merged,
  SourceDetail,
  Suggestions,
} from '@pandecta/contract';
import { commit } from '../changes/service.ts';
import { rows, text } from '../database/read.ts';
import { lookOverBehind } from './behind.ts';
import { makePdf } from '../testing/pdf.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let me: Person;
beforeAll(async () => void (server = await startTestServer({ alone: true })));
beforeEach(async () => void (me = await server.person('contributor')));
afterAll(() => server.close());

const GATE = {
  type: 'article-journal',
  title: 'Who closes the gate and when',
  author: [{ family: 'Okonjo', given: 'Marit' }],
  'container-title': 'Coastal Processes',
  volume: '41',
  page: '311-328',
  issued: { 'date-parts': [[2014]] },
};
const LOUD = { ...GATE, title: 'WHO CLOSES THE GATE AND WHEN', author: [{ family: 'Okonjo', given: 'M.' }], DOI: '10.5555/gate', page: '311-28' }; // prettier-ignore
const add = async (record: object): Promise<string> => (await me.at<Changed>('POST', '/sources', { record })).id!;
const one = (id: string): Promise<SourceDetail> => me.at<SourceDetail>('GET', `/sources/${id}`);
const groups = async (): Promise<Duplicates['groups']> => (await me.at<Duplicates>('GET', '/duplicates')).groups;

describe('duplicates', () => {
  test('are told with how sure it is and why, and what a person said of them is remembered', async () => {
    const [a, b] = [await add(GATE), await add(LOUD)];
    await add({ type: 'book', title: 'Silt in small estuaries', author: [{ family: 'Vance', given: 'Ines' }] });
    const [group] = await groups();
    expect(group).toMatchObject({ members: [a, b].sort(), class: 'certain', versions: false });
    expect(group!.reasons.map((r) => r.says)).toContain('same title');
    await me.at('POST', '/relations', { sources: [a, b], as: 'other than', present: true });
    expect(await groups()).toEqual([]);
    // A third copy is compared with both, and does not bring them together.
    const c = await add(GATE);
    expect((await groups()).map((g) => g.members).every((m) => m.includes(c) && !(m.includes(a) && m.includes(b)))).toBe(true); // prettier-ignore
    await me.at('POST', '/undo');
  });

  test('said to be versions stand on the slip of each, through merging too, until it is taken back from either side', async () => {
    const [preprint, published, copy] = [await add({ ...GATE, type: 'article' }), await add(GATE), await add(LOUD)];
    await me.at('POST', '/relations', { sources: [preprint, published], as: 'version of', present: true });
    const versions = async (id: string): Promise<unknown> => (await one(id)).versions.map((v) => [v.id, v.kind]);
    expect(await versions(preprint)).toEqual([[published, 'article-journal']]);
    await me.at('POST', '/merges', { into: copy, sources: [published] });
    expect(await versions(preprint)).toEqual([[copy, 'article-journal']]);
    expect(await versions(copy)).toEqual([[preprint, 'article']]);
    await me.at('POST', '/undo');
    const { says } = await me.at<Changed>('POST', '/relations', { sources: [published, preprint], as: 'version of', present: false }); // prettier-ignore
    expect([says, await versions(preprint)]).toEqual(['No longer marked 2 sources as versions of one work', []]);
  });

  test('are compared anew as soon as one is altered, binned or restored', async () => {
    const [, loud] = [await add(GATE), await add(LOUD)];
    expect(await groups()).toHaveLength(1);
    await me.at('PATCH', `/sources/${loud}`, {
      fields: { title: 'Silt in small estuaries', page: '2-9', volume: '7' },
    });
    expect(await groups()).toEqual([]);
    await me.at('POST', '/undo');
    expect(await groups()).toHaveLength(1);
    await me.at('POST', '/presence', { ids: [loud], to: 'bin' });
    expect(await groups()).toEqual([]);
    await me.at('POST', '/undo');
    expect(await groups()).toHaveLength(1);
  });

  test('that hold the very same file are likely one work, whatever their records say', async () => {
    await me.import({ 'gate.pdf': await makePdf([['Hours of the lower gate', 'The keeper shut it at dusk.']]) });
    const { id: a, fileId: file } = (await me.ask('')).rows.find((r) => r.fileId)!;
    const b = await add({ type: 'document', title: 'scan_0021' });
    const actor = { workspaceId: me.workspace, userId: me.info.userId };
    await commit(server.app.services, actor, { do: 'attach', source: b, file: file!, name: 'gate.pdf', present: true });
    const [group] = await groups();
    expect(group).toMatchObject({ members: [a, b].sort(), class: 'look closely' });
    expect(group!.reasons[0]).toEqual({ field: 'file', says: 'the same file', for: true });
  });

  test('compared once more, all at a time, are those that were found one by one', async () => {
    const variants = [{}, { title: 'Who closes the gate, and when?' }, { author: [{ family: 'Okonjo', given: 'M' }], page: '311-28' }, { DOI: '10.5555/gate', 'container-title': 'Coast. Proc.' }]; // prettier-ignore
    for (const v of variants) await add({ ...GATE, ...v });
    for (const [i, title] of ['Silt in small estuaries', 'Silt in large estuaries', 'Annual report 1871', 'Annual report 1872'].entries()) await add({ type: 'report', title, author: [{ family: 'Vance' }], number: String(i) }); // prettier-ignore
    await server.settle();
    const pairs = (): Promise<unknown[]> =>
      rows(server.app.services.db, { a: text(), b: text() }, sql`select source_id as a, other_id as b from likely_pairs where workspace_id = ${me.workspace} order by 1, 2`); // prettier-ignore
    const found = await pairs();
    expect(found.length).toBeGreaterThanOrEqual(6);
    await server.app.services.db.execute(sql`delete from likely_pairs where workspace_id = ${me.workspace}`);
    const { jobId, says } = await me.at<Changed>('POST', '/duplicates/compare');
    expect(says).toBe('Comparing all sources with each other takes a while; Jobs shows how far it is');
    await me.jobEnds(jobId!);
    const { jobs } = await me.at<JobList>('GET', '/jobs');
    expect(jobs[0]!.says).toBe(`Compared 8 sources with each other; ${found.length} pairs are worth a look`);
    expect(await pairs()).toEqual(found);
  });

  test('merged are one with all that hung on them; the old address leads there, and undoing gives all of it back', async () => {
    const into = await add(GATE);
    await me.import({ 'gate.pdf': await makePdf([['Hours of the lower gate', 'The keeper shut it at dusk.']]) });
    const other = (await me.ask('')).rows.find((r) => r.fileId)!;
    await me.at('PATCH', `/sources/${other.id}`, { fields: LOUD });
    const { id: collection } = await me.at<Changed>('POST', '/collections', { name: 'Chapter 2' });
    await me.at('POST', '/filing', { ids: [other.id], collections: [collection], present: true });
    await me.at('POST', '/tagging', { ids: [other.id], name: 'used', present: true });
    const { senses } = await me.at<{ senses: { id: string }[] }>('GET', `/sources/${other.id}/files/${other.fileId}`);
    const mark = { page: 1, sense: senses[0]!.id, quote: { exact: 'gate', prefix: '', suffix: '' }, rects: [] };
    await me.at('POST', `/sources/${other.id}/files/${other.fileId}/marks`, mark);
    const [before, theirs] = [await one(into), await one(other.id)];

    const done = await me.at<Changed>('POST', '/merges', { into, sources: [other.id], take: { page: other.id } });
    expect(done.says).toBe('Merged 2 sources into “Who closes the gate and when”');
    const merged = await one(into);
    // The better of each field, but for what was chosen.
    expect(merged.record).toMatchObject({
      title: GATE.title,
      author: GATE.author,
      DOI: '10.5555/gate',
      page: '311-28',
    });
    expect(merged.places.map((p) => p.path)).toEqual(['Chapter 2']);
    expect(merged.tags.map((t) => t.name)).toEqual(['used']);
    expect(merged.files).toMatchObject([{ name: 'gate.pdf', marks: 1 }]);
    expect((await one(other.id)).id).toBe(into);
    expect(await me.titles('')).toEqual([GATE.title]);

    await me.at('POST', `/changes/${done.changeId}/undo`);
    expect((await one(into)).record).toEqual(before.record);
    const again = await one(other.id);
    expect(again).toMatchObject({ id: other.id, record: theirs.record, places: theirs.places, tags: theirs.tags });
    expect(again.files).toMatchObject([{ marks: 1 }]);
    const document = await me.at<{ marks: Mark[] }>('GET', `/sources/${other.id}/files/${other.fileId}`);
    expect(document.marks).toHaveLength(1);
  });

  test('taken apart after work on it: what was written since stays and is told, marks made since go back with their file', async () => {
    await me.import({ 'gate.pdf': await makePdf([['Hours of the lower gate', 'The keeper shut it at dusk.']]) });
    const other = (await me.ask('')).rows.find((r) => r.fileId)!;
    await me.at('PATCH', `/sources/${other.id}`, { fields: LOUD });
    const into = await add(GATE);
    const before = await one(into);
    const done = await me.at<Changed>('POST', '/merges', { into, sources: [other.id], take: { page: other.id } });
    await me.at('PATCH', `/sources/${into}`, { fields: { page: '311-329', publisher: 'Tern Press' } });
    const { senses } = await me.at<{ senses: { id: string }[] }>('GET', `/sources/${into}/files/${other.fileId}`);
    const mark = { page: 1, sense: senses[0]!.id, quote: { exact: 'gate', prefix: '', suffix: '' }, rects: [] };
    await me.at('POST', `/sources/${into}/files/${other.fileId}/marks`, mark);
    const { says } = await me.at<Changed>('POST', `/changes/${done.changeId}/undo`);
    expect(says).toBe('Undone: Merged 2 sources into “Who closes the gate and when”; pages stayed as written since');
    expect((await one(into)).record).toEqual({ ...before.record, page: '311-329', publisher: 'Tern Press' });
    expect((await one(into)).files).toEqual([]);
    expect((await one(other.id)).files).toMatchObject([{ marks: 1 }]);
    expect((await one(other.id)).record).toMatchObject({ title: LOUD.title });
  });

  test('their citation keys lead to the merged one, through one merging and the next', async () => {
    const [a, b, c] = [await add({ ...GATE, 'citation-key': 'okonjo2014' }), await add({ ...LOUD, 'citation-key': 'gate14' }), await add({ ...GATE, 'citation-key': 'Okonjo:Gate' })]; // prettier-ignore
    const keys = async (): Promise<string[][]> => Promise.all(['okonjo2014', 'gate14', '@okonjo:gate'].map(async (k) => (await me.ask(`key:"${k}"`)).rows.map((r) => r.id))); // prettier-ignore
    expect(await keys()).toEqual([[a], [b], [c]]);
    await me.at('POST', '/merges', { into: a, sources: [b] });
    await me.at('POST', '/merges', { into: c, sources: [a] });
    expect(await keys()).toEqual([[c], [c], [c]]);
    await me.at('POST', '/undo');
    expect(await keys()).toEqual([[a], [a], [c]]);
  });

  test('each member keeps their star and how far they had read; notes and numbers of both are put together', async () => {
    const [into, other] = [await add({ ...GATE, note: 'Seen at low water', ISSN: '1050-124X' }), await add({ ...LOUD, note: 'Lent by Ines', ISSN: '1050-124X, 2049-3630' })]; // prettier-ignore
    const they = await server.person('contributor', me.workspace);
    await me.at('POST', '/reading', { ids: [other], state: 'read' });
    await they.at('POST', '/stars', { ids: [other], present: true });
    await me.at('POST', '/merges', { into, sources: [other] });
    expect(await one(into)).toMatchObject({
      reading: 'read',
      starred: false,
      record: { note: 'Seen at low water\n\nLent by Ines', ISSN: '1050-124X, 2049-3630' },
    });
    expect(await they.at('GET', `/sources/${into}`)).toMatchObject({ reading: null, starred: true });
    await me.at('POST', '/undo');
    expect(await one(into)).toMatchObject({ reading: null, record: { note: 'Seen at low water' } });
  });

  test('said not to be the same, it holds for what each becomes part of and for copies that come later', async () => {
    const second = { ...GATE, title: 'Who closes the gate and when: part two', page: '400-410' };
    const [a, b] = [await add(GATE), await add(second)];
    await me.at('POST', '/relations', { sources: [a, b], as: 'other than', present: true });
    const c = await add(GATE);
    await me.at('POST', '/merges', { into: c, sources: [a] });
    expect(await groups()).toEqual([]);
    const later = await add({ ...GATE, DOI: '10.5555/gate' });
    expect((await groups()).map((g) => g.members.toSorted())).toEqual([[c, later].sort()]);
  });

  test('that are certain are merged at one go, each a change of its own', async () => {
    const pairs = [[await add(GATE), await add(LOUD)]];
    const other = { ...GATE, title: 'Silt in small estuaries of the north', volume: '3', page: '9-20' };
    pairs.push([await add(other), await add({ ...other, title: other.title.toUpperCase() })]);
    const { changeIds, says } = await me.at<Merged>('POST', '/merges/many', { groups: pairs.map((members) => ({ members })) }); // prettier-ignore
    expect([changeIds.length, says]).toEqual([2, 'Merged 2 groups; each can be undone by itself']);
    expect(await groups()).toEqual([]);
    await me.at('POST', `/changes/${changeIds[0]}/undo`);
    expect((await groups()).map((g) => g.members.toSorted())).toEqual([pairs[0]!.toSorted()]);
  });

  test('one that is not there any more is refused, and nothing is changed', async () => {
    const [a, b] = [await add(GATE), await add(LOUD)];
    await me.at('POST', '/bin', { ids: [b], present: true }).catch(() => undefined);
    const gone = '018f0000-0000-7000-8000-000000000000';
    const { status } = await me.call('POST', `/w/${me.workspace}/merges`, { into: a, sources: [gone] });
    expect(status).toBe(404);
    expect((await one(a)).record).toMatchObject(GATE);
  });
});

describe('proofing', () => {
  const asked = (rule = ''): Promise<Findings> =>
    me.at<Findings>('GET', `/findings?style=apa${rule && `&rule=${rule}`}`);

  test('finds by rule, mends what is chosen in one change, and finds it no more', async () => {
    const id = await add({ ...LOUD, page: 'pp. 311-328' });
    const { rules, findings } = await asked('label-in-field');
    expect(rules.map((r) => r.id)).toEqual(expect.arrayContaining(['title-capitals', 'label-in-field']));
    expect(findings).toMatchObject([{ source: id, before: { page: 'pp. 311-328' }, mend: { page: '311-328' } }]);
    const mends = findings.map((f) => ({ source: f.source, before: f.before!, after: f.mend! }));
    const done = await me.at<Changed>('POST', '/mends', { rule: 'label-in-field', mends });
    expect(done.says).toBe('Label inside a number: mended 1 record');
    expect((await one(id)).record.page).toBe('311-328');
    expect((await asked()).rules.map((r) => r.id)).not.toContain('label-in-field');
    // What someone changed since is not overwritten.
    const stale = await me.call('POST', `/w/${me.workspace}/mends`, { rule: 'label-in-field', mends });
    expect(stale.status).toBe(409);
  });

  test('misses only what the style prints', async () => {
    const { volume: _, ...record } = LOUD;
    await add({ ...record, page: '1-9' });
    expect((await asked('missing-part')).findings.map((f) => f.field)).toEqual(['volume']);
  });
});

describe('what is found', () => {
  const asked = (more = ''): Promise<Findings> => me.at<Findings>('GET', `/findings?style=apa${more}`);

  test('is asked for by `finding:` and as a facet as soon as a record is written, until it is mended', async () => {
    const loud = await add(LOUD);
    await add({ ...GATE, DOI: '10.5555/quiet' });
    expect(await me.titles('finding:title-capitals')).toEqual([LOUD.title]);
    expect(await me.titles('finding:"looks wrong"')).toEqual([LOUD.title]);
    expect(await me.titles('finding:none')).toEqual([GATE.title]);
    await me.at('PATCH', `/sources/${loud}`, { fields: { title: GATE.title } });
    expect(await me.titles('finding:title-capitals')).toEqual([]);
  });

  test('set aside is counted no more, here or everywhere, and taken up again it is', async () => {
    const [one, other] = [
      await add(LOUD),
      await add({ ...LOUD, title: 'SILT IN SMALL ESTUARIES', DOI: '10.5555/silt' }),
    ];
    const count = async (): Promise<unknown> => {
      const rule = (await asked()).rules.find((r) => r.id === 'title-capitals');
      return rule && [rule.count, rule.aside, rule.whole];
    };
    expect(await count()).toEqual([2, 0, false]);
    await me.at('POST', '/settled', { what: 'aside', name: 'title-capitals', sources: [one], present: true });
    expect(await count()).toEqual([1, 1, false]);
    expect((await asked('&rule=title-capitals')).findings.map((f) => f.source)).toEqual([other]);
    expect((await asked('&rule=title-capitals&only=aside')).findings.map((f) => f.source)).toEqual([one]);
    expect(await me.titles('finding:title-capitals')).toEqual(['SILT IN SMALL ESTUARIES']);
    await me.at('POST', '/settled', { what: 'aside', name: 'title-capitals', present: true });
    expect(await count()).toEqual([0, 2, true]);
    expect(await me.titles('finding:title-capitals')).toEqual([]);
    await me.at('POST', '/undo');
    expect(await count()).toEqual([1, 1, false]);
    expect((await me.call('POST', `/w/${me.workspace}/settled`, { what: 'aside', name: 'no such', present: true })).status).toBe(400); // prettier-ignore
  });

  test('is told of a collection, and of one source with what it would be', async () => {
    const id = await add(LOUD);
    await add({ ...LOUD, title: 'SILT IN SMALL ESTUARIES', DOI: '10.5555/silt' });
    const { id: collection } = await me.at<Changed>('POST', '/collections', { name: 'Chapter 2' });
    await me.at('POST', '/filing', { ids: [id], collections: [collection], present: true });
    const there = await asked(`&collection=${collection}`);
    expect([there.looked, [...new Set(there.findings.map((f) => f.source))]]).toEqual([1, [id]]);
    const { findings } = await me.at<Findings>('GET', `/sources/${id}/findings?style=apa`);
    expect(findings.find((f) => f.rule === 'title-capitals')).toMatchObject({
      before: { title: LOUD.title },
      mend: { title: GATE.title },
    });
  });

  test('a word the workspace keeps stands as it is written in any case, in findings and in titles set in another', async () => {
    const id = await add({ ...LOUD, title: 'THE BASIN AND ITS SALT' });
    const mend = async (): Promise<unknown> => (await asked('&rule=title-capitals')).findings[0]!.mend;
    expect(await mend()).toEqual({ title: 'The basin and its salt' });
    await me.at('POST', '/settled', { what: 'word', name: 'Basin', present: true });
    expect(await mend()).toEqual({ title: 'The Basin and its salt' });
    const cases = (to: string): Promise<CasesOf> => me.at<CasesOf>('POST', '/cases', { ids: [id], to });
    expect((await cases('title')).titles.map((t) => t.after)).toEqual(['The Basin and Its Salt']);
    const { titles, words } = await cases('sentence');
    expect([titles[0]!.after, words]).toEqual(['The Basin and its salt', ['Basin']]);
    const mends = titles.map((t) => ({ source: t.source, before: { title: t.before }, after: { title: t.after } }));
    const done = await me.at<Changed>('POST', '/mends', { rule: 'case: sentence', mends });
    expect(done.says).toBe('Sentence case: mended 1 record');
    expect((await cases('sentence')).same).toBe(1);
  });

  test('what files and other versions tell is found as well, in all and in one', async () => {
    await me.import({ 'gate.pdf': await makePdf([['Hours of the lower gate', ...Array<string>(20).fill('The keeper shut the gate at dusk.'), 'doi 10.5555/hours']]) }); // prettier-ignore
    const [row] = (await me.ask('')).rows;
    const wrong = { title: 'Licences for dredging under older statutes', DOI: null };
    await me.at('PATCH', `/sources/${row!.id}`, { fields: wrong });
    const of = async (rule: string): Promise<unknown[]> =>
      (await asked(`&rule=${rule}`)).findings.map((f) => [f.source, f.mend]);
    expect(await of('file-of-another')).toEqual([[row!.id, null]]);
    expect(await of('doi-in-file')).toEqual([[row!.id, { DOI: '10.5555/hours' }]]);
    const { findings } = await me.at<Findings>('GET', `/sources/${row!.id}/findings?style=apa`);
    expect(findings.map((f) => f.rule)).toEqual(expect.arrayContaining(['file-of-another', 'doi-in-file']));

    const [early, late] = [await add({ ...GATE, type: 'article' }), await add({ ...GATE, DOI: '10.5555/gate' })];
    expect(await of('newer-version')).toEqual([]);
    await me.at('POST', '/relations', { sources: [early, late], as: 'version of', present: true });
    expect(await of('newer-version')).toEqual([[early, null]]);
  });

  test('what was stored before records were looked over is looked over by and by', async () => {
    await add(LOUD);
    await server.app.services.db.execute(
      sql`update source_sort set findings = null where workspace_id = ${me.workspace}`,
    );
    expect(await lookOverBehind(server.app.services.db)).toBeGreaterThan(0);
    expect(await me.titles('finding:title-capitals')).toEqual([LOUD.title]);
    expect(await lookOverBehind(server.app.services.db)).toBe(0);
  });
});

test('what lies loose is counted, and goes when it is filed', async () => {
  const id = await add(GATE);
  const count = async (queue: string): Promise<number> =>
    (await me.at<Loose>('GET', '/loose-ends')).queues.find((q) => q.id === queue)!.count;
  expect([await count('no-collection'), await count('no-tag'), await count('no-file')]).toEqual([1, 1, 1]);
  const { id: collection } = await me.at<Changed>('POST', '/collections', { name: 'Chapter 2' });
  expect(await count('thin-collections')).toBe(1);
  await me.at('POST', '/filing', { ids: [id], collections: [collection], present: true });
  await me.at('POST', '/tagging', { ids: [id], name: 'used', present: true });
  expect([await count('no-collection'), await count('no-tag'), await count('rare-tags')]).toEqual([0, 0, 1]);
});

test('where a loose source may belong is told from those it is like, with the reason', async () => {
  const { id: collection } = await me.at<Changed>('POST', '/collections', { name: 'Gates' });
  const there = [await add(GATE), await add({ ...GATE, title: 'The lower gate at dusk', page: '9-12' })];
  await me.at('POST', '/filing', { ids: there, collections: [collection], present: true });
  await me.at('POST', '/tagging', { ids: there, name: 'primary', present: true });
  await add({ type: 'book', title: 'Silt in small estuaries', author: [{ family: 'Vance', given: 'Ines' }] });
  const loose = await add({ ...GATE, title: 'Keepers of the upper gate', 'container-title': 'Harbour History' });
  const of = (id: string): Promise<Suggestions> => me.at<Suggestions>('GET', `/sources/${id}/suggestions`);
  expect(await of(loose)).toEqual({
    collections: [{ id: collection, name: 'Gates', reason: '2 by Okonjo, Marit' }],
    tags: [{ id: null, name: 'primary', reason: '2 by Okonjo, Marit' }],
  });
  await me.at('POST', '/filing', { ids: [loose], collections: [collection], present: true });
  expect((await of(loose)).collections).toEqual([]);
});

test('a collection and another are brought together: what is in both stays, what is there twice is one, the rest is filed', async () => {
  const [here, there] = await Promise.all(['Here', 'There'].map(async (name) => (await me.at<Changed>('POST', '/collections', { name })).id!)); // prettier-ignore
  const silt = { type: 'book', title: 'Silt in small estuaries', author: [{ family: 'Vance', given: 'Ines' }] };
  const [both, one, copy, only] = [
    await add(silt),
    await add(GATE),
    await add(LOUD),
    await add({ ...silt, title: 'Ebb' }),
  ];
  await me.at('POST', '/filing', { ids: [both, one], collections: [here], present: true });
  await me.at('POST', '/filing', { ids: [both, copy, only], collections: [there], present: true });
  const asked = { collection: here!, matching: { collection: there! } };
  const found = await me.at<Consolidation>('POST', '/consolidations/ask', asked);
  expect(found).toMatchObject({ both: 1, onlyHere: 1, onlyThere: 2, twice: [{ here: { id: one }, other: { id: copy }, class: 'certain' }] }); // prettier-ignore
  const done = await me.at<Brought>('POST', '/consolidations', { ...asked, merge: [{ here: one, other: copy }] });
  expect(done.changeIds).toHaveLength(2);
  const inHere = async (): Promise<string[]> => (await me.ask('in:"Here"')).rows.map((r) => r.id).sort();
  expect((await inHere()).length).toBe(3);
  expect(await me.at('POST', '/consolidations/ask', asked)).toMatchObject({ both: 3, onlyHere: 0, onlyThere: 0, twice: [] }); // prettier-ignore
  // Each can be undone by itself, the merge too.
  await me.at('POST', `/changes/${done.changeIds[1]}/undo`);
  await me.at('POST', `/changes/${done.changeIds[0]}/undo`);
  expect(await inHere()).toEqual([both, one].sort());
});
