/** Whatever is sent has a limit: no field of any body or question may hold as much as the request has room for. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startTestServer, type TestServer } from '../testing/server.ts';

interface Schema {
  $ref?: string;
  type?: string;
  items?: Schema;
  properties?: Record<string, Schema>;
  [limit: string]: unknown;
}
interface Described {
  paths: Record<string, Record<string, { parameters: Parameter[]; requestBody?: Body }>>;
  components: { schemas: Record<string, Schema> };
}
interface Parameter {
  name: string;
  in: string;
  schema: Schema;
}
interface Body {
  content: Record<string, { schema: Schema }>;
}

let server: TestServer;
beforeAll(async () => void (server = await startTestServer()));
afterAll(() => server.close());

/** Bounded by what they mean, in the server: fields of a record, each by its own limit (core/source/limits.ts); the text of a note (core/notes/document.ts). */
const BY_MEANING =
  /^(?:EditRecord\.(?:fields|seen)|(?:NewSource|TakePages)\.record|CiteRecord\.record|MendOne\.(?:before|after)|AlterField\.value|(?:NewNote|EditNote|NoteSeen)\.text)$/;
/** Names of fields to ids, of which what is not a field says nothing. */
const OF_FIELDS = /^Merge\.take$/;

test('every text, number and list that comes in has a limit of its own', async () => {
  const api = (await (await fetch(`${server.base}/api/openapi.json`)).json()) as Described;
  const free: string[] = [];
  const seen = new Set<string>();
  const has = (s: Schema, ...limits: string[]): boolean => limits.some((l) => l in s);
  const look = (s: Schema, at: string): void => {
    if (s.$ref) {
      const name = s.$ref.split('/').at(-1)!;
      if (!seen.has(name)) look((seen.add(name), api.components.schemas[name]!), name);
      return;
    }
    if (BY_MEANING.test(at) || OF_FIELDS.test(at) || s.enum || s.type === 'boolean') return;
    const bounded =
      s.type === 'string'
        ? has(s, 'maxLength', 'format', 'pattern')
        : s.type === 'array'
          ? has(s, 'maxItems')
          : s.type === 'object'
            ? has(s, 'properties')
            : s.type !== undefined && has(s, 'maximum') && has(s, 'minimum');
    if (!bounded) free.push(at);
    if (s.items) look(s.items, `${at}[]`);
    for (const [name, of] of Object.entries(s.properties ?? {})) look(of, `${at}.${name}`);
  };
  for (const [path, methods] of Object.entries(api.paths))
    for (const { parameters, requestBody } of Object.values(methods)) {
      if (requestBody) look(requestBody.content['application/json']!.schema, path);
      for (const p of parameters) if (p.in === 'query') look(p.schema, `${path}?${p.name}`);
    }
  expect(free).toEqual([]);
  expect(seen.size).toBeGreaterThan(40);
});
