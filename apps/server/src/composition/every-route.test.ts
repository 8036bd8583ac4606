/** Every route there is, with every role, and with ids of another workspace. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { routes, ROLES, type IntakePage, type Problem, type Role, type Route } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { makeLibrary } from '../testing/library.ts';
import { ROLES_OF } from '../access/permissions.ts';

const ALL = Object.entries(routes).flatMap(([capability, of]) =>
  Object.entries(of as Record<string, Route>).map(([name, route]) => ({ name: `${capability}.${name}`, route })),
);
const WITHIN = ALL.filter(
  ({ route }) => route.path.startsWith('/w/:workspace') && route.produces !== 'text/event-stream',
);

let server: TestServer;
const people = new Map<Role, Person>();
let stranger: Person;
/** What stands in the workspace of the three, by the name a path has for it. */
const ids: Record<string, string> = {};
beforeAll(async () => {
  server = await startTestServer();
  const steward = await server.person('steward');
  for (const role of ROLES)
    people.set(role, role === 'steward' ? steward : await server.person(role, steward.workspace));
  stranger = await server.person('steward');
  Object.assign(ids, await makeLibrary(steward));
}, 60_000);
afterAll(() => server.close());

const pathIn = (workspace: string, { path }: Route, of: Record<string, string>): string =>
  path.replace(/:(\w+)/g, (_, name: string) => (name === 'workspace' ? workspace : of[name]!));

/** Bodies and queries that speak of what is in the workspace, for routes that need them to be understood. */
const bodies = (): Record<string, object> => ({
  'sources.edit': { fields: { note: 'Mine now' } },
  'sources.add': {
    record: { type: 'book', title: 'x' },
    destination: { collections: [ids.collection], tags: [], reading: null },
  },
  'sources.presence': { ids: [ids.source], to: 'bin' },
  'sources.emptyBin': { seen: 0 },
  'sources.binDays': { days: 30 },
  'sources.summary': { ids: [ids.source] },
  'altering.preview': { ids: [ids.source], field: 'note', way: 'set', value: 'Mine now' },
  'altering.alter': { ids: [ids.source], field: 'note', way: 'set', value: 'Mine now' },
  'own.reading': { ids: [ids.source], state: 'read' },
  'own.star': { ids: [ids.source], present: true },
  'search.among': { ids: [ids.source] },
  'search.places': { ids: [ids.source] },
  'saved.keep': { name: 'Mine', ask: { q: 'gate' } },
  'saved.edit': { name: 'Mine now' },
  'saved.many': { ids: [ids.saved], to: 'remove' },
  'saved.log': { logs: true },
  'saved.note': { ask: { q: 'gate' }, words: 'gate', found: 1 },
  'saved.watch': { watched: true },
  'saved.makeFolder': { name: 'Mine' },
  'saved.editFolder': { name: 'Mine now' },
  'stating.makeLabel': { name: 'Mine', letter: 'M', tint: 'moss' },
  'stating.editLabel': { name: 'Mine now', letter: 'M', tint: 'moss' },
  'stating.label': { ids: [ids.source], label: ids.label, present: true },
  'stating.recheck': { ids: [ids.source], reason: 'mine' },
  'stating.rate': { ids: [ids.source], rating: 3 },
  'places.make': { name: 'Under theirs', parent: ids.collection },
  'places.edit': { name: 'Mine now' },
  'places.merge': { others: [ids.collection] },
  'places.byName': {},
  'places.place': { collection: ids.collection, parent: null },
  'places.file': { ids: [ids.source], collections: [ids.collection], present: true },
  'tags.edit': { name: 'Mine now' },
  'tags.bringVocabulary': { text: 'name\nmine' },
  'tags.toTags': { terms: [ids.tag], keep: true },
  'tags.merge': { into: ids.tag, terms: [ids.tag] },
  'tags.tag': { ids: [ids.source], name: 'mine', present: true },
  'marks.make': { page: 1, sense: ids.sense, quote: { exact: 'x', prefix: '', suffix: '' }, rects: [] },
  'marks.edit': { gloss: 'Mine now' },
  'gather.typed': { text: 'x 10.5555/y', destination: { collections: [ids.collection], tags: [], reading: null } },
  'gather.set': { passComplete: true, holdReferences: true },
  'gather.begin': { uploads: [ids.source] },
  'gather.clip': { address: 'https://a.example/', html: '<p>x</p>' },
  'gather.makeKey': { name: 'mine' },
  'outside.search': { question: { words: 'gate' }, catalogues: [ids.catalogue] },
  'outside.gather': { works: ['0'] },
  'outside.describe': { why: 'Mine now' },
  'outside.addWatch': { name: 'Mine', question: { words: 'gate' }, catalogues: [ids.catalogue], every: 'week' },
  'outside.pauseWatch': { paused: true },
  'intake.takeIn': { ids: [ids.source] },
  'intake.lookUpMany': { ids: [ids.source] },
  'intake.setAside': { ids: [ids.source], aside: true },
  'intake.respan': { start: 0, end: 1, field: 'title' },
  'intake.joinCertain': { ids: [ids.source] },
  'intake.join': { to: ids.source },
  'check.merge': { into: ids.source, sources: [ids.source] },
  'check.mergeMany': { groups: [] },
  'files.link': { address: 'https://a.example/x' },
  'files.edit': { name: 'Mine now.pdf' },
  'relations.cites': { cited: [ids.source] },
  'relations.say': { from: ids.source, to: ids.source, as: 'cites', present: true },
  'check.relate': { sources: [ids.source, ids.source], as: 'other than', present: true },
  'check.consolidation': { collection: ids.collection, ids: [ids.source] },
  'check.bring': { collection: ids.collection, ids: [ids.source], merge: [] },
  'check.settle': { what: 'aside', name: 'year', sources: [ids.source], present: true },
  'check.cases': { ids: [ids.source], to: 'sentence' },
  'check.mend': { rule: 'year', mends: [] },
  'cite.record': { record: { type: 'book', title: 'One' }, style: 'apa' },
  'cite.cite': { ids: [ids.source], style: 'chicago-author-date' },
  'cite.export': { ids: [ids.source], format: 'ris' },
});

describe.each(ROLES)('a %s', (role) => {
  test.each(WITHIN)('is let through or refused at $name as the table of permissions says', async ({ route }) => {
    const person = people.get(role)!;
    // Nothing is named that is there, so that nothing changes for the next.
    const nothing = Object.fromEntries(Object.keys(ids).map((k) => [k, '018f0000-0000-7000-8000-000000000000']));
    const { status, body } = await person.call<Problem>(
      route.method,
      pathIn(person.workspace, route, nothing),
      route.method === 'GET' ? undefined : {},
    );
    const allowed = ROLES_OF[route.may as keyof typeof ROLES_OF].includes(role);
    if (allowed) expect([401, 403]).not.toContain(status);
    else expect([status, body.code]).toEqual([403, 'not_allowed']);
  });
});

test('whoever is signed in is told by name what they may do, as the table says', () => {
  const told = Object.fromEntries(
    [...people].map(([role, p]) => [role, p.info.workspaces.find((w) => w.id === p.workspace)!.may]),
  );
  expect(told.reader).toEqual(['read', 'cite', 'own']);
  expect(told.steward).toEqual(Object.keys(ROLES_OF));
});

const state = async (): Promise<string> => {
  const steward = people.get('steward')!;
  const all = [
    '/places',
    `/sources/${ids.source}`,
    '/changes',
    `/sources/${ids.source}/files/${ids.file}`,
    '/tags',
    '/vocabulary',
    '/watches',
    '/saved',
    '/labels',
    '/catalogues',
  ];
  return JSON.stringify(await Promise.all(all.map((path) => steward.at('GET', path))));
};

test.each(WITHIN)(
  'with ids of another workspace, $name shows nothing of it and changes nothing in it',
  async ({ name, route }) => {
    const before = await state();
    const query =
      {
        WithinQuery: '?q=gate',
        AskIds: '?from=0&count=10',
        SuggestValues: '?field=tag',
        AskHeap: '?rows=tag&columns=kind',
      }[route.query?.name ?? ''] ?? '';
    const reply = await stranger.call<unknown>(
      route.method,
      pathIn(stranger.workspace, route, ids) + query,
      route.method === 'GET' ? undefined : bodies()[name],
    );
    // Its own workspace is empty: whoever names what is not in it is told so, or is answered with nothing.
    expect(reply.status).toBeLessThan(500);
    const text = JSON.stringify(reply.body);
    for (const [kind, id] of Object.entries(ids))
      if (kind !== 'sense') expect(text.includes(id) && reply.status < 400 ? `${kind} in ${text}` : '').toBe('');
    expect(text).not.toMatch(/Hours of the lower gate|The keeper/);
    expect(await state()).toBe(before);
  },
);

test('without a session no route within a workspace answers', async () => {
  for (const { route } of WITHIN) {
    const response = await fetch(`${server.base}/api${pathIn(stranger.workspace, route, ids)}`, {
      method: route.method,
    });
    expect([route.path, response.status]).toEqual([route.path, 401]);
  }
});

test('a reader who knows the id of a source that waits in the intake is shown nothing of it, by no route', async () => {
  const steward = people.get('steward')!;
  const reader = people.get('reader')!;
  const typed = {
    text: 'Two of them:\n\nOkonjo, Marit. The Unlicensed Weir. 2nd ed. 1999.\n\nOkonjo, Marit. The Unlicensed Sluice. 2nd ed. 2001.',
    through: 'intake',
  };
  const { jobId } = await steward.at<{ jobId: string }>('POST', '/gatherings', typed);
  await steward.jobEnds(jobId);
  const { rows } = await steward.at<IntakePage>('GET', '/intake');
  const waiting = rows.find((r) => r.record.title?.includes('Unlicensed'));
  const its = { ...ids, source: waiting!.id };
  const told = (await steward.call<unknown>('GET', `/w/${steward.workspace}/sources/${its.source}`)).body;
  expect(JSON.stringify(told)).toContain('Unlicensed');
  const own = ids.source!;
  ids.source = its.source;
  const asked = bodies();
  ids.source = own;
  for (const { name, route } of WITHIN) {
    const body = route.method === 'GET' ? undefined : asked[name];
    const reply = await reader.call<unknown>(route.method, pathIn(reader.workspace, route, its), body);
    expect([name, reply.status < 500]).toEqual([name, true]);
    expect(`${name}: ${JSON.stringify(reply.body)}`).not.toMatch(/Unlicensed|Okonjo/);
  }
});
