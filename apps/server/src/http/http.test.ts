/** The whole API as its own description tells it, asked with anything at all. */
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { SourcePage } from '@pandecta/contract';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

interface Schema {
  type?: string;
  properties?: Record<string, Schema>;
  $ref?: string;
}
interface Operation {
  parameters: { name: string; in: string; schema: Schema }[];
  requestBody?: { content: Record<string, { schema: Schema }> };
  responses: Record<string, { content?: Record<string, { schema?: Schema }> }>;
}
interface Api {
  openapi: string;
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}

let server: TestServer;
let me: Person;
let api: Api;
let known: string[];
const operations: [path: string, method: string, operation: Operation][] = [];

beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
  await me.import({ 'a.ris': 'TY  - BOOK\nTI  - Silt\nKW  - tides\nER  - \nTY  - MAP\nTI  - Chart\nER  - \n' });
  api = (await me.call<Api>('GET', '/openapi.json')).body;
  known = [me.workspace, ...(await me.at<SourcePage>('GET', '/sources')).rows.map((r) => r.id)];
  for (const [path, methods] of Object.entries(api.paths))
    for (const [method, operation] of Object.entries(methods)) operations.push([path, method.toUpperCase(), operation]);
});
afterAll(() => server.close());

test('every shape the description refers to is in it', () => {
  const named = new Set([...JSON.stringify(api).matchAll(/#\/components\/schemas\/(\w+)/g)].map((m) => m[1]!));
  expect([...named].filter((n) => !api.components.schemas[n])).toEqual([]);
  expect(named.size).toBeGreaterThan(20);
  expect(api.openapi).toMatch(/^3\.1/);
});

test('the page that shows it lists every route', async () => {
  const { body, headers } = await me.call<string>('GET', '');
  expect(headers.get('content-type')).toContain('text/html');
  for (const [path] of operations) expect(body).toContain(path);
});

const scrap = fc.oneof(
  fc.string({ maxLength: 30, unit: 'binary' }),
  fc.integer(),
  fc.double(),
  fc.boolean(),
  fc.constant(null),
  fc.uuid(),
  fc.constantFrom('', '-title,year', '"', '2026-01-01', 'live', 'bin', 'ris', 'apa', '\u0000', "'; drop table sources"),
);
const anything = fc.oneof(scrap, fc.array(scrap, { maxLength: 3 }), fc.jsonValue({ maxDepth: 2 }));

/** A body of the shape's fields, each right, wrong or missing. */
function bodyOf(schema: Schema | undefined): fc.Arbitrary<unknown> {
  const shape = schema?.$ref ? api.components.schemas[schema.$ref.split('/').at(-1)!] : schema;
  const ids = fc.array(fc.oneof(fc.constantFrom(...known), fc.uuid()), { maxLength: 3 });
  const fields = Object.entries(shape?.properties ?? {}).map(([name, s]) => [
    name,
    fc.oneof(
      {
        weight: 3,
        arbitrary: s.type === 'array' ? ids : s.type === 'boolean' ? fc.boolean() : fc.string({ minLength: 1 }),
      },
      { weight: 1, arbitrary: anything },
    ),
  ]);
  return fc.oneof(
    {
      weight: 6,
      arbitrary: fc.record(Object.fromEntries(fields) as Record<string, fc.Arbitrary<unknown>>, { requiredKeys: [] }),
    },
    { weight: 1, arbitrary: fc.jsonValue({ maxDepth: 2 }) },
  );
}

test('whatever is asked of it, the answer is what was asked for or a problem in words, never a failure', async () => {
  const ask = fc
    .constantFrom(...operations.filter(([path]) => !['/api/session', '/api/w/{workspace}/live'].includes(path)))
    .chain(([path, method, operation]) =>
      fc.record({
        path: fc.constant(path),
        method: fc.constant(method),
        ids: fc.array(fc.oneof(fc.constantFrom(...known), fc.uuid(), fc.string({ minLength: 1, maxLength: 8 })), {
          minLength: 4,
          maxLength: 4,
        }),
        query: fc.record(
          Object.fromEntries(operation.parameters.filter((p) => p.in === 'query').map((p) => [p.name, scrap])),
          { requiredKeys: [] },
        ),
        body:
          method === 'GET'
            ? fc.constant(undefined)
            : bodyOf(operation.requestBody?.content['application/json']?.schema),
      }),
    );
  await fc.assert(
    fc.asyncProperty(ask, async ({ path, method, ids, query, body }) => {
      let n = 0;
      const address = path
        .replace(/^\/api/, '')
        .replace('{workspace}', me.workspace)
        .replace(/\{\w+\}/g, () => encodeURIComponent(ids[n++ % ids.length]!));
      const search = new URLSearchParams(Object.entries(query).map(([k, v]): [string, string] => [k, String(v)]));
      const reply = await me.call<{ code?: string; detail?: string }>(method, `${address}?${search}`, body);
      expect([method, address, reply.status < 500]).toEqual([method, address, true]);
      if (reply.status >= 400) {
        expect(reply.headers.get('content-type')).toContain('application/problem+json');
        expect(reply.body.code).toMatch(/^[a-z_]+$/);
        expect(reply.body.detail).toMatch(/\S/);
      }
    }),
    { numRuns: 400 },
  );
});
