/**
 * How a declared route is served: who calls is found out before the body is read; the body is no larger than the route
 * says, and is checked by its class; what the handler gives is what the route says.
 */
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { ParamOf, Route } from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { networkOf } from '../access/attempts.ts';
import { SUBJECT_KINDS, type SubjectKind } from '@pandecta/core/changes';
import { refuseInvisible } from '../subjects/visible.ts';
import type { Access } from '../access/principal.ts';
import type { Acting, Caller } from '../access/principal.ts';
import { authorise } from './authorise.ts';
import { check, checkReply } from './check.ts';
import { watchPace, type Pace } from './pace.ts';
import { Turns, type End } from './turns.ts';

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

export function declarer(app: FastifyInstance, services: Services, declared: Declared, pace: Pace): Declare {
  app.decorateRequest('caller', null);
  const turns = new Turns();
  return (route, handler) => {
    if (!route.may) throw new Error(`The route ${route.method} ${route.path} names no permission.`);
    declared.push(route as Route);
    // A file is on its way for long, and what is heavy waits for its own turn: the machine has nothing to do meanwhile.
    const isQuestion = route.method === 'GET' && !route.produces && !route.heavy;
    app.route({
      method: route.method,
      url: `/api${route.path}`,
      bodyLimit: route.most ?? MOST_BYTES,
      onRequest: async (request, reply) => {
        checkParams(request.params as Record<string, string>);
        // What is told within holds for the moment, and for whoever asked.
        void reply.header('cache-control', 'no-store');
        request.caller = await authorise(services, request, route as Route);
        if (!route.stays)
          await takesTurn(reply, isQuestion ? turns.takeQuestion(whose(request)) : turns.take(whose(request)));
        if (route.heavy) await takesTurn(reply, turns.takeHeavy(whose(request)));
        await checkSubjects(services, request);
        watchPace(request, pace);
      },
      handler: async (request, reply) => {
        // Whoever asked may have gone while it waited.
        if (reply.raw.destroyed) return reply;
        const caller = request.caller!;
        const body = route.body ? await check(route.body, request.body ?? {}) : undefined;
        if (!route.heavy && isAboutMany(body)) await takesTurn(reply, turns.takeHeavy(whose(request)));
        const given = await handler({
          ...caller,
          actor: accessOf(caller),
          body: body as never,
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

/** Who waits for what they ask themselves: a member, or whoever is behind an address. */
const whose = ({ caller, ip }: FastifyRequest): string => caller?.user.id || networkOf(ip);

/** Its turn ends when it has been answered, or nobody waits for the answer any more. */
async function takesTurn({ raw }: FastifyReply, turn: Promise<End>): Promise<void> {
  const end = await turn;
  if (raw.destroyed || raw.writableEnded) end();
  else raw.once('close', end);
}

/** More sources than a person names one by one. */
const MANY = 500;

function isAboutMany(body: unknown): boolean {
  const { ids, matching } = (body ?? {}) as { ids?: unknown[]; matching?: object };
  return matching !== undefined || (Array.isArray(ids) && ids.length > MANY);
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** Every parameter of a path is an id. */
function checkParams(params: Record<string, string>): void {
  for (const [name, value] of Object.entries(params))
    if (name !== 'workspace' && !UUID.test(value)) throw new Refusal('invalid', `${name} is not an id`);
}

const accessOf = ({ workspace, user }: Caller): Access => ({
  workspaceId: workspace.id,
  userId: user.id,
  role: workspace.role,
  bounds: workspace.bounds,
});

const isSubject = (name: string): name is SubjectKind => SUBJECT_KINDS.includes(name as SubjectKind);

/** Of a path each parameter that names a subject: what the caller may not see is answered like what is not there. */
async function checkSubjects({ db }: Services, { params, caller }: FastifyRequest): Promise<void> {
  if (!caller?.workspace.id) return;
  for (const [name, id] of Object.entries(params as Record<string, string>))
    if (isSubject(name)) await refuseInvisible(db, accessOf(caller), name, id);
}
