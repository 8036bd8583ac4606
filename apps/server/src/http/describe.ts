/** The description of the API (OpenAPI 3.1), made of the declared routes and the contract classes. */
import { createRequire } from 'node:module';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import type { FastifyInstance } from 'fastify';
import type { Action } from '@pandecta/contract';
import { ROLES_OF } from '../access/permissions.ts';
import { ERRORS } from '../errors.ts';
import type { Declared } from './route.ts';

// The package keeps its storage out of its entry point; nested arrays are described by it.
const { defaultMetadataStorage } = createRequire(import.meta.url)('class-transformer/cjs/storage.js') as {
  defaultMetadataStorage: never;
};

export function describeApi(declared: Declared): Record<string, unknown> {
  const schemas = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage,
    refPointerPrefix: '#/components/schemas/',
  });
  const paths: Record<string, Record<string, unknown>> = {};
  const ref = (name: string): unknown => ({ 'application/json': { schema: { $ref: `#/components/schemas/${name}` } } });
  for (const route of declared) {
    const path = `/api${route.path.replace(/:(\w+)/g, '{$1}')}`;
    const params = [...route.path.matchAll(/:(\w+)/g)].map((m) => ({
      name: m[1],
      in: 'path',
      required: true,
      schema: { type: 'string', format: 'uuid' },
    }));
    const query = route.query
      ? Object.entries(schemas[route.query.name]?.properties ?? {}).map(([name, schema]) => ({
          name,
          in: 'query',
          schema,
        }))
      : [];
    (paths[path] ??= {})[route.method.toLowerCase()] = {
      summary: route.summary,
      description:
        route.may in ROLES_OF
          ? `Allowed to: ${ROLES_OF[route.may as Action].join(', ')}.`
          : `Allowed to: ${route.may}.`,
      parameters: [...params, ...query],
      ...(route.body ? { requestBody: { required: true, content: ref(route.body.name) } } : {}),
      responses: {
        200: {
          description: 'Done',
          ...(route.reply
            ? { content: ref(route.reply.name) }
            : route.produces
              ? { content: { [route.produces]: {} } }
              : {}),
        },
        default: {
          description: 'A problem document',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Pandecta',
      version: '1',
      description:
        'Sign in with POST /api/session; send its csrf value in the header x-csrf-token with every request that changes something.',
      license: { name: 'AGPL-3.0-or-later' },
    },
    paths,
    components: { schemas },
  };
}

const escape = (t: unknown): string => String(t).replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** The same, for a person to read. */
function readable(api: Record<string, unknown>): string {
  const paths = api.paths as Record<
    string,
    Record<
      string,
      {
        summary: string;
        description: string;
        parameters: { name: string; in: string }[];
        requestBody?: { content: Record<string, { schema: { $ref: string } }> };
      }
    >
  >;
  const name = (r: string): string => r.split('/').at(-1)!;
  const routes = Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, r]) => {
      const body = r.requestBody && name(r.requestBody.content['application/json']!.schema.$ref);
      const query = r.parameters
        .filter((p) => p.in === 'query')
        .map((p) => `<code>${escape(p.name)}</code>`)
        .join(', ');
      return `<section><h2><code>${method.toUpperCase()} ${escape(path)}</code></h2><p>${escape(r.summary)} ${escape(r.description)}</p>${query ? `<p>Query: ${query}</p>` : ''}${body ? `<p>Body: <a href="#${body}">${body}</a></p>` : ''}</section>`;
    }),
  );
  const schemas = Object.entries((api.components as { schemas: Record<string, unknown> }).schemas).map(
    ([n, s]) => `<section id="${n}"><h2>${n}</h2><pre>${escape(JSON.stringify(s, null, 2))}</pre></section>`,
  );
  const { description } = api.info as { description: string };
  return page(
    'Pandecta: the HTTP API',
    `<p>${escape(description)} As JSON: <a href="openapi.json">openapi.json</a>. What may go wrong: <a href="problems">problems</a>.</p>${routes.join('')}<h1>Shapes</h1>${schemas.join('')}`,
  );
}

/** Every problem there may be, where the `type` of a problem document leads. */
function readableProblems(): string {
  const problems = Object.entries(ERRORS).map(
    ([code, [status, says]]) =>
      `<section id="${code}"><h2><code>${code}</code> ${status}</h2><p>${escape(says.replace(/%s/g, '…'))}</p></section>`,
  );
  return page('Pandecta: problems', problems.join(''));
}

const page = (title: string, content: string): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><style>body{max-width:52rem;margin:2rem auto;padding:0 1rem;font:16px/1.5 Georgia,serif;color:#1f262d;background:#fcfbf8}h2{font-size:1rem;border-top:1px solid #dfdacd;padding-top:.7rem;margin:1rem 0 0}pre{font-size:.8rem;overflow:auto;background:#f4f2ec;padding:.6rem}p{margin:.2rem 0}</style><h1>${title}</h1>${content}</html>`;

export function registerDescription(app: FastifyInstance, declared: Declared): void {
  app.get('/api/openapi.json', () => describeApi(declared));
  app.get('/api/problems', (_, reply) => reply.type('text/html').send(readableProblems()));
  app.get('/api', (_, reply) => reply.type('text/html').send(readable(describeApi(declared))));
}
