/**
 * How a declared route is served: who calls is found out before the body is read; the body is no larger than the route
 * says, and is checked by its class; what the handler gives is what the route says.
 */
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { ParamOf, Route } from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { authorise, type Acting, type Caller } from './authorise.ts';
import { check, checkReply } from './check.ts';

export interface Call<P extends string, B, Q> extends Acting {
  body: B;
  query: Q;
  params: Record<ParamOf<P>, string>;
  request: FastifyRequest;
  reply: FastifyReply;
}

/** A route without a reply of its own sends what it has to send. */
type Given<R> = [R] extends [undefined] ? FastifyReply : R;

export type Declare = <P extends string, B, Q, R>(
  route: Route<P, B, Q, R>,
  handler: (call: Call<P, B, Q>) => Given<R> | Promise<Given<R>>,
) => void;

/** All routes declared so far, for the description of the API. */
export type Declared = Route[];

/** The most bytes a body has where its route says nothing. */
const MOST_BYTES = 16 * 1024;

declare module 'fastify' {
  interface FastifyRequest {
    caller: Caller | null;
  }
}

export function declarer(app: FastifyInstance, services: Services, declared: Declared): Declare {
  app.decorateRequest('caller', null);
  return (route, handler) => {
    if (!route.may) throw new Error(`The route ${route.method} ${route.path} names no permission.`);
    declared.push(route as Route);
    app.route({
      method: route.method,
      url: `/api${route.path}`,
      bodyLimit: route.most ?? MOST_BYTES,
      onRequest: async (request, reply) => {
        checkParams(request.params as Record<string, string>);
        // What is told within holds for the moment, and for whoever asked.
        void reply.header('cache-control', 'no-store');
        request.caller = await authorise(
          services,
          request,
          route.may,
          route.path.startsWith('/w/:workspace'),
          route.byKey,
        );
      },
      handler: async (request, reply) => {
        const caller = request.caller!;
        const given = await handler({
          ...caller,
          actor: { workspaceId: caller.workspace.id, userId: caller.user.id },
          body: (route.body ? await check(route.body, request.body ?? {}) : undefined) as never,
          query: (route.query ? await check(route.query, request.query, true) : undefined) as never,
          params: request.params as never,
          request,
          reply,
        });
        if (services.config.checkReplies && route.reply) await checkReply(route, given);
        return given;
      },
    });
  };
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** Every parameter of a path is an id. */
function checkParams(params: Record<string, string>): void {
  for (const [name, value] of Object.entries(params))
    if (name !== 'workspace' && !UUID.test(value)) throw new Refusal('invalid', `${name} is not an id`);
}
