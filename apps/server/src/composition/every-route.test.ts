/** Every route there is, with every role, and with ids of another workspace. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ROLES, type IntakePage, type Problem, type Role } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { makeLibrary } from '../testing/library.ts';
import { bodiesFor, pathIn, queryFor, WITHIN } from '../testing/every-route.ts';
import { ROLES_OF } from '../access/permissions.ts';

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
});
afterAll(() => server.close());

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
    const reply = await stranger.call<unknown>(
      route.method,
      pathIn(stranger.workspace, route, ids) + queryFor(route),
      route.method === 'GET' ? undefined : bodiesFor(ids)[name],
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
  const asked = bodiesFor(its);
  for (const { name, route } of WITHIN) {
    const body = route.method === 'GET' ? undefined : asked[name];
    const reply = await reader.call<unknown>(route.method, pathIn(reader.workspace, route, its), body);
    expect([name, reply.status < 500]).toEqual([name, true]);
    expect(`${name}: ${JSON.stringify(reply.body)}`).not.toMatch(/Unlicensed|Okonjo/);
  }
});
