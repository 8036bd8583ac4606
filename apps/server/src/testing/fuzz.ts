/**
 * Requests nobody would send: made, with a seed, from the description of the API that the server serves. Most are almost as they
 * should be, so that they come further than the first check.
 */
import fc from 'fast-check';
import { broken } from '@pandecta/core/testing';

interface Schema {
  $ref?: string;
  type?: string;
  format?: string;
  enum?: unknown[];
  items?: Schema;
  properties?: Record<string, Schema>;
  required?: string[];
  minimum?: number;
  maximum?: number;
  maxLength?: number;
}

export interface Api {
  paths: Record<
    string,
    Record<
      string,
      {
        parameters: { name: string; in: string; schema: Schema }[];
        requestBody?: { content: Record<string, { schema: Schema }> };
      }
    >
  >;
  components: { schemas: Record<string, Schema> };
}

interface Operation {
  method: string;
  path: string;
  query: { name: string; schema: Schema }[];
  body: Schema | undefined;
  /** Whether it takes files. */
  form: boolean;
}

interface Sent {
  path: string;
  /** As it goes over the wire; undefined where the operation takes none. */
  body: string | undefined;
  /** What it is said to be. */
  type?: string;
}

const operationsOf = (api: Api): Operation[] =>
  Object.entries(api.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { parameters, requestBody }]) => ({
      method: method.toUpperCase(),
      path,
      query: parameters.filter((p) => p.in === 'query'),
      body: requestBody?.content['application/json']?.schema,
      form: requestBody?.content['multipart/form-data'] !== undefined,
    })),
  );

/** Texts that broke something somewhere before: quoting, encodings, numbers, expressions that grow, names of the language. */
const TEXTS = [
  '',
  ' ',
  '\u0000',
  '\ud800',
  '\udc00x',
  '🙂',
  '🙂'.repeat(200),
  'é'.normalize('NFD').repeat(300),
  '\u202e\u200b\ufeff',
  "' or 1=1 --",
  '");--',
  '\\',
  '%',
  '%_%',
  '${7*7}',
  '../../../../etc/passwd',
  '__proto__',
  'constructor',
  'toString',
  'null',
  'NaN',
  '-0',
  '1e999',
  '9'.repeat(400),
  '99999999999-99-99',
  '0000-00-00',
  '2020-02-30',
  '<i '.repeat(600),
  '<script>alert(1)</script>',
  '&'.repeat(900),
  '('.repeat(300),
  ')'.repeat(300),
  '"'.repeat(301),
  '{'.repeat(900),
  '}'.repeat(900),
  '[[[['.repeat(100),
  `${'a '.repeat(900)}!`,
  '(a+)+$',
  '(?<=x)',
  '\\p{L}*'.repeat(50),
  '-x '.repeat(660),
  'x OR '.repeat(300),
  'title:(a OR b) -year:1990..2000 has:pdf new:"x" is:cited',
  'year:99999999999999999999',
  'year:-9..9',
  'near("a" "b" 999999999)',
  '"a b"~99999999',
  'doi:10.1/(',
  'javascript:alert(1)',
  'http://[::1]:99999/',
  'http://169.254.169.254/latest',
  'file:///etc/passwd',
  '10.5555/'.repeat(50),
  'mine:x tag:y collection:z',
  'a'.repeat(5000),
  '=cmd|x',
];
const NUMBERS = [0, -1, 1, 2, 0.5, 199, 200, 201, 2 ** 31 - 1, 2 ** 31, -(2 ** 31) - 1, 2 ** 53, 1e21, 1e308, -1e308];
const SOME_ID = '018f0000-0000-7000-8000-000000000000';

const nested = (depth: number): unknown => (depth ? (depth % 2 ? [nested(depth - 1)] : { a: nested(depth - 1) }) : 1);
const text = fc.oneof(fc.constantFrom(...TEXTS), fc.string({ unit: 'binary', maxLength: 40 }), fc.string());
const wrong: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(null, true, false, [], {}, [[]], [null], nested(20), nested(60), nested(300)),
  fc.constantFrom<unknown>(...NUMBERS),
  text,
  fc.array(text, { maxLength: 4 }),
  fc.jsonValue({ maxDepth: 3 }),
);

/** Now and then something else, in its place. */
const or = (likely: fc.Arbitrary<unknown>, odds = 12): fc.Arbitrary<unknown> =>
  fc.oneof({ arbitrary: likely, weight: odds }, { arbitrary: wrong, weight: 1 });

/** @param ids of what is there, by the names that paths have for it */
function fuzzer(api: Api, ids: Record<string, string>): (operation: Operation) => fc.Arbitrary<Sent> {
  const known = Object.values(ids);
  const id = fc.oneof(
    { arbitrary: fc.constantFrom(...(known.length ? known : [SOME_ID])), weight: 6 },
    { arbitrary: fc.constantFrom(SOME_ID, 'x', '', `${SOME_ID}0`), weight: 1 },
  );
  const made = new Map<string, fc.Arbitrary<unknown>>();
  const of = (schema: Schema, depth = 0): fc.Arbitrary<unknown> => {
    if (depth > 6) return fc.constant(null);
    if (schema.$ref) {
      const name = schema.$ref.split('/').at(-1)!;
      const key = `${name} ${depth}`;
      if (!made.has(key)) made.set(key, of(api.components.schemas[name]!, depth + 1));
      return made.get(key)!;
    }
    if (schema.enum) return or(fc.constantFrom(...schema.enum));
    if (schema.format === 'uuid') return or(id, 20);
    switch (schema.type) {
      case 'string':
        return or(text);
      case 'boolean':
        return or(fc.boolean());
      case 'integer':
      case 'number':
        return or(fc.oneof(fc.integer({ min: 0, max: 30 }), fc.constantFrom(...NUMBERS)));
      case 'array':
        return or(fc.array(of(schema.items ?? {}, depth + 1), { maxLength: 4 }));
      case 'object': {
        const properties = Object.entries(schema.properties ?? {});
        // A record, or something else that is told by its meaning.
        if (!properties.length) return or(record);
        const fields = Object.fromEntries(properties.map(([name, s]) => [name, of(s, depth + 1)]));
        return or(fc.record(fields, { requiredKeys: schema.required ?? [] }));
      }
      default:
        return wrong;
    }
  };
  const query = (operation: Operation): fc.Arbitrary<string> =>
    fc
      .record(Object.fromEntries(operation.query.map((q) => [q.name, of(q.schema)])), {
        requiredKeys: operation.query.filter((q) => !/^(?:typing|find|group|sort)$/.test(q.name)).map((q) => q.name),
      })
      .map((given) => {
        const params = new URLSearchParams();
        for (const [name, value] of Object.entries(given))
          for (const one of Array.isArray(value) ? value.slice(0, 3) : [value])
            params.append(name, (typeof one === 'string' ? one : JSON.stringify(one)).slice(0, 3000));
        return params.size ? `?${params}` : '';
      });
  return (operation) => {
    const names = [...operation.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);
    const params = fc.tuple(
      ...names.map((name) =>
        name === 'workspace'
          ? fc.constant(ids.workspace!)
          : fc.oneof(
              { arbitrary: fc.constant(ids[name] ?? SOME_ID), weight: 10 },
              { arbitrary: id, weight: 2 },
              { arbitrary: fc.constantFrom('x', '%00', '%F0', '..', '1'.repeat(190)), weight: 1 },
            ),
      ),
    );
    const body: fc.Arbitrary<Pick<Sent, 'body' | 'type'>> = operation.form
      ? form
      : operation.body
        ? fc.oneof(or(of(operation.body), 30), wrong).map((b) => ({ body: asJson(b), type: 'application/json' }))
        : fc.constant({ body: undefined });
    return fc.tuple(params, query(operation), body).map(([values, q, b]) => {
      let nth = 0;
      return { path: operation.path.replace(/\{\w+\}/g, () => values[nth++]!) + q, ...b };
    });
  };
}

/** What was sent and what came of it, all in all. */
export interface Fuzzed {
  sent: number;
  /** Answered with 500, with what was sent. */
  failed: string[];
  /** The longest to be answered, in ms, and what it was. */
  longest: { ms: number; what: string };
}

/** @param runs of each operation */
export async function fuzzOperations(
  base: string,
  api: Api,
  ids: Record<string, string>,
  as: Record<string, string>,
  { runs, seed }: { runs: number; seed: number },
): Promise<Fuzzed> {
  const make = fuzzer(api, ids);
  const out: Fuzzed = { sent: 0, failed: [], longest: { ms: 0, what: '' } };
  for (const operation of operationsOf(api)) {
    // Streams never end, and without a session nothing more is to be had.
    if (/\/live$|\/session/.test(operation.path)) continue;
    for (const { path, body, type } of fc.sample(make(operation), { numRuns: runs, seed })) {
      const begun = performance.now();
      const response = await fetch(base + path, {
        method: operation.method,
        headers: { ...as, ...(type && { 'content-type': type }) },
        redirect: 'manual',
        ...(body !== undefined && { body: operation.form ? Buffer.from(body, 'latin1') : body }),
      });
      const says = await response.text();
      const ms = performance.now() - begun;
      const what = `${operation.method} ${path} ${body?.slice(0, 300)}`;
      out.sent += 1;
      if (ms > out.longest.ms) out.longest = { ms, what };
      if (response.status === 500) out.failed.push(`${what}: ${says}`);
    }
  }
  return out;
}

const BOUNDARY = 'x-the-boundary';
const FILES = [
  'TY  - BOOK\nTI  - Tides\nER  - \n',
  '@book{a, title={Tides}, year=1999}',
  '[{"type":"book","title":"Tides"}]',
  'title,author\nTides,Vance\n',
  '%PDF-1.7\n1 0 obj\n<< /Type /Catalog >>\nendobj\ntrailer << /Root 1 0 R >>\n%%EOF',
  'PK\u0003\u0004\u0014\u0000\u0000\u0000\u0008\u0000',
  '<html><head><title>Tides</title></head><body>The ebb ran late.</body></html>',
];
/** A form with files, broken in a few places: its parts, their heads, the lines between. A character of it is a byte. */
const form: fc.Arbitrary<Pick<Sent, 'body' | 'type'>> = fc
  .array(
    fc.record({
      name: fc.oneof(fc.constantFrom('file', 'destination', 'through', 'columns'), text),
      filename: fc.oneof(fc.constantFrom('a.ris', 'b.bib', 'c.pdf', 'd.zip', 'e.html', 'f.csv', '../g'), text),
      content: broken(FILES),
    }),
    { maxLength: 3 },
  )
  .map((parts) =>
    parts
      .map(
        ({ name, filename, content }) =>
          `--${BOUNDARY}\r\ncontent-disposition: form-data; name="${name}"; filename="${filename}"\r\n\r\n${content}\r\n`,
      )
      .concat(`--${BOUNDARY}--\r\n`)
      .join(''),
  )
  .chain((whole) => fc.oneof({ arbitrary: fc.constant(whole), weight: 3 }, { arbitrary: broken([whole]), weight: 1 }))
  .map((body) => ({ body, type: `multipart/form-data; boundary=${BOUNDARY}` }));

/** Half characters go as they are written by a careless program: as escapes. */
const asJson = (value: unknown): string => JSON.stringify(value);

/** Fields of a record, right ones and others. */
const FIELDS = ['title', 'author', 'issued', 'abstract', 'note', 'DOI', 'type', 'custom', 'page', 'URL', 'nonsense'];
const part = fc.oneof(text, fc.constantFrom('Vance', 'Ida'));
const record = fc.dictionary(
  fc.constantFrom(...FIELDS),
  fc.oneof(
    text,
    fc.constantFrom('book', 'article-journal'),
    fc.array(fc.record({ family: part, given: part, literal: part }, { requiredKeys: [] }), { maxLength: 3 }),
    fc.record({
      'date-parts': fc.array(fc.array(fc.oneof(fc.integer(), fc.constantFrom(...NUMBERS)), { maxLength: 4 })),
    }),
    wrong,
  ),
  { maxKeys: 5 },
);
