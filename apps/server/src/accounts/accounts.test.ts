import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ROLES, routes, type Action, type Problem, type Route } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';
import { ROLES_OF } from '../access/permissions.ts';

let server: TestServer;
let steward: Person;
beforeAll(async () => {
  server = await startTestServer();
  steward = await server.person('steward');
});
afterAll(() => server.close());

const signIn = (email: string, password: string): Promise<Response> =>
  fetch(`${server.base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });

describe('signing in', () => {
  test('the cookie cannot be read by scripts and goes to no other site', async () => {
    const response = await signIn(steward.info.email, 'a long enough password');
    expect(response.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Strict/i);
  });

  test('the answer does not say which half was wrong', async () => {
    const wrongPassword = await signIn(steward.info.email, 'wrong');
    const wrongAddress = await signIn('nobody@sallow.example', 'wrong');
    expect([wrongPassword.status, wrongAddress.status]).toEqual([401, 401]);
    expect(await wrongPassword.json()).toEqual(await wrongAddress.json());
  });

  test('signing out ends the session on the server', async () => {
    const p = await server.person('reader');
    await p.call('DELETE', '/session');
    expect((await p.call('GET', '/session')).status).toBe(401);
  });
});

describe('who may', () => {
  test('nothing is answered without a session', async () => {
    const response = await fetch(`${server.base}/api/w/${steward.workspace}/sources`);
    expect(response.status).toBe(401);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
  });

  test('a workspace one does not belong to is as if it were not there', async () => {
    const stranger = await server.person('steward');
    const reply = await stranger.call<Problem>('GET', `/w/${steward.workspace}/sources`);
    expect([reply.status, reply.body.code]).toEqual([404, 'not_a_member']);
  });

  test('a change without the forgery guard, or from another page, is refused', async () => {
    const path = `/w/${steward.workspace}/collections`;
    expect((await steward.call<Problem>('POST', path, { name: 'X' }, { 'x-csrf-token': 'guess' })).body.code).toBe(
      'forged',
    );
    expect(
      (await steward.call<Problem>('POST', path, { name: 'X' }, { origin: 'https://elsewhere.example' })).body.code,
    ).toBe('forged');
  });

  test('the description of the API holds every route of the contract, and says who may', async () => {
    const api = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as {
      paths: Record<string, Record<string, { description: string }>>;
    };
    for (const { method, path, may } of Object.values(routes).flatMap((r) =>
      Object.values(r as Record<string, Route>),
    )) {
      const described = api.paths[`/api${path.replace(/:(\w+)/g, '{$1}')}`]?.[method.toLowerCase()];
      const who = may in ROLES_OF ? ROLES_OF[may as Action].join(', ') : may;
      expect([path, described?.description]).toEqual([path, `Allowed to: ${who}.`]);
    }
  });

  test('the table of roles in the documents is the one that is asked', () => {
    const page = readFileSync(fileURLToPath(new URL('../../../../docs/security.md', import.meta.url)), 'utf8');
    const written = Object.fromEntries(
      [...page.matchAll(/^\| `(\w+)` +\|[^|]*\|([^|]*)\|([^|]*)\|([^|]*)\|$/gm)].map(([, action, ...may]) => [
        action,
        ROLES.filter((_, i) => may[i]!.trim() === 'yes'),
      ]),
    );
    expect(written).toEqual(ROLES_OF);
  });

  test('a misspelt field and a wrong id are refused with words', async () => {
    const reply = await steward.call<Problem>('POST', `/w/${steward.workspace}/collections`, { nmae: 'X' });
    expect(reply.status).toBe(400);
    expect(reply.body.detail).toContain('nmae');
    expect((await steward.call<Problem>('GET', `/w/${steward.workspace}/sources/42`)).body.code).toBe('invalid');
  });
});
