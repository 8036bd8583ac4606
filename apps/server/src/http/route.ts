/**
 * How a route is declared: its method and path, who may call it, what goes in and out. Nothing is registered without
 * a permission; bodies and queries are checked by their contract classes; the description of the API is made of the
 * same declarations.
 */
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { Action } from '../access/permissions.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { authorise, type Actor, type Caller } from './authorise.ts';
import { check } from './check.ts';

export type Class<T> = new () => T;

export interface RouteSpec<B, Q> {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** Below /api; a path under /w/:workspace speaks of one workspace. */
  path: string;
  /** An action of the permission table; `signed in` for one's own session; `anyone` before signing in. */
  may: Action | 'signed in' | 'anyone';
  summary: string;
  body?: Class<B>;
  query?: Class<Q>;
  reply?: Class<unknown>;
  /** The media type of the answer where it is not JSON. */
  produces?: string;
  handler: (call: Call<B, Q>) => unknown;
}

export interface Call<B, Q> extends Caller {
  actor: Actor;
  body: B;
  query: Q;
  params: Record<string, string>;
  request: FastifyRequest;
  reply: FastifyReply;
}

export type Declare = <B = undefined, Q = undefined>(spec: RouteSpec<B, Q>) => void;

/** All routes declared so far, for the description of the API. */
export type Declared = Omit<RouteSpec<unknown, unknown>, 'handler'>[];

export function declarer(app: FastifyInstance, services: Services, declared: Declared): Declare {
  return (spec) => {
    if (!spec.may) throw new Error(`The route ${spec.method} ${spec.path} names no permission.`);
    declared.push(spec as never);
    app.route({
      method: spec.method,
      url: `/api${spec.path}`,
      handler: async (request, reply) => {
        const caller = await authorise(services, request, spec.may, spec.path.startsWith('/w/:workspace'));
        const body = (spec.body ? await check(spec.body, request.body ?? {}) : undefined) as never;
        const query = (spec.query ? await check(spec.query, request.query, true) : undefined) as never;
        const params = checkParams(request.params as Record<string, string>);
        const actor = { workspaceId: caller.workspace.id, userId: caller.user.id };
        return (await spec.handler({ ...caller, actor, body, query, params, request, reply })) ?? reply;
      },
    });
  };
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** Every parameter of a path is an id. */
function checkParams(params: Record<string, string>): Record<string, string> {
  for (const [name, value] of Object.entries(params))
    if (!UUID.test(value)) throw new Refusal('invalid', `${name} is not an id`);
  return params;
}
