/** Requests nobody would send, a few of each operation: none is answered with 500, and none brings the server to anything else. */
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { fuzzer, operationsOf, type Api } from '../testing/fuzz.ts';
import { makeLibrary } from '../testing/library.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

/** Of each operation; the bench sends as many as it is told. */
const RUNS = Number(process.env.FUZZ_RUNS ?? 8);

let server: TestServer;
let steward: Person;
let api: Api;
let ids: Record<string, string>;
beforeAll(async () => {
  server = await startTestServer();
  steward = await server.person('steward');
  ids = { ...(await makeLibrary(steward)), workspace: steward.workspace };
  api = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as Api;
}, 60_000);
afterAll(() => server.close());

test('no request of any operation is answered with 500', async () => {
  const logged = vi.spyOn(server.app.app.log, 'error');
  const make = fuzzer(api, ids);
  const failed: string[] = [];
  for (const operation of operationsOf(api)) {
    if (/\/live$|\/session/.test(operation.path)) continue;
    for (const { path, body } of fc.sample(make(operation), { numRuns: RUNS, seed: 4700 })) {
      const response = await fetch(server.base + path, {
        method: operation.method,
        headers: {
          cookie: steward.cookie,
          'x-csrf-token': steward.info.csrf,
          ...(body !== undefined && { 'content-type': 'application/json' }),
        },
        redirect: 'manual',
        ...(body !== undefined && { body }),
      });
      const says = await response.text();
      if (response.status === 500) failed.push(`${operation.method} ${path} ${body?.slice(0, 300)}: ${says}`);
    }
  }
  expect(failed).toEqual([]);
  expect(logged.mock.calls).toEqual([]);
}, 240_000);
