/** What stands in an address where a workspace belongs. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startTestServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeAll(async () => void (server = await startTestServer()));
afterAll(() => server.close());

test('what only looks like the id of a workspace is no workspace, and no error of the server', async () => {
  const me = await server.person('steward');
  for (const id of ['-'.repeat(36), 'f'.repeat(36), `${'0'.repeat(35)}-`])
    for (const [method, path] of [
      ['POST', '/undo'],
      ['GET', '/sources'],
    ] as const)
      expect((await me.call(method, `/w/${id}${path}`)).status).toBe(404);
});
