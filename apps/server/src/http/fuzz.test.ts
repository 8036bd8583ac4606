/** Requests nobody would send, a few of each operation: none is answered with 500, and none brings the server to anything else. */
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { fuzzOperations, type Api } from '../testing/fuzz.ts';
import { makeLibrary } from '../testing/library.ts';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

let server: TestServer;
let steward: Person;
let ids: Record<string, string>;
beforeAll(async () => {
  server = await startTestServer({ alone: true });
  steward = await server.person('steward');
  ids = { ...(await makeLibrary(steward)), workspace: steward.workspace };
});
afterAll(() => server.close());

test('no request of any operation is answered with 500, whether of JSON or of files', async () => {
  const logged = vi.spyOn(server.app.app.log, 'error');
  const api = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as Api;
  const as = { cookie: steward.cookie, 'x-csrf-token': steward.info.csrf };
  // The bench sends many more.
  const { sent, failed } = await fuzzOperations(server.base, api, ids, as, { runs: 8, seed: 4700 });
  expect(sent).toBeGreaterThan(1000);
  expect(failed).toEqual([]);
  expect(logged.mock.calls).toEqual([]);
});
