/** Finds out who calls and whether they may: session, forgery guard, membership, role. */
import type { FastifyRequest } from 'fastify';
import type { Action, Route } from '@pandecta/contract';
import type { Caller, Workspace } from '../access/principal.ts';
import { may } from '../access/permissions.ts';
import { findSession, findMembership } from '../access/store.ts';
import { findKey } from '../access/keys.ts';
import { Refusal } from '../errors.ts';
import type { Db } from '../database/connect.ts';

export const SESSION_COOKIE = 'pandecta_session';

/** As PostgreSQL reads one (RFC 9562, 4): of anything else it says so by an error. */
const isId = (text: string): boolean => /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(text);

const NOBODY: Caller['user'] = { id: '', name: '', email: '', csrf: '' };
const NOWHERE: Workspace = { id: '', number: 0, name: '', role: 'reader' };

export async function authorise(
  services: { db: Db },
  request: FastifyRequest,
  route: Pick<Route, 'may' | 'byKey' | 'bounded'>,
): Promise<Caller> {
  const { may: action } = route;
  const key = route.byKey && /^Bearer (\S+)$/.exec(request.headers.authorization ?? '')?.[1];
  if (key) return byGatherKey(services, request, key, route);
  guardOrigin(request);
  if (action === 'anyone') return { user: NOBODY, workspace: NOWHERE };
  const token = request.cookies[SESSION_COOKIE];
  const user = token ? await findSession(services.db, token) : undefined;
  if (!user) throw new Refusal('not_signed_in');
  const changes = request.method !== 'GET' && request.method !== 'HEAD';
  if (changes && request.headers['x-csrf-token'] !== user.csrf) throw new Refusal('forged');
  if (action === 'signed in') return { user, workspace: NOWHERE };
  const { workspace: id } = request.params as { workspace: string };
  return { user, workspace: await membership(services.db, user.id, id, route) };
}

/** @throws Refusal where it is no member, or the route is not for one with this role or these bounds */
async function membership(
  db: Db,
  userId: string,
  id: string,
  { may: action, bounded }: Pick<Route, 'may' | 'bounded'>,
): Promise<Workspace> {
  const workspace = isId(id) ? await findMembership(db, userId, id) : undefined;
  if (!workspace) throw new Refusal('not_a_member');
  if (!may(workspace.role, action as Action) || (workspace.bounds && !bounded)) throw new Refusal('not_allowed');
  return workspace;
}

/** Whoever holds a key needs no session, and a page that holds none cannot forge one. */
async function byGatherKey(
  { db }: { db: Db },
  request: FastifyRequest,
  key: string,
  route: Pick<Route, 'may' | 'bounded'>,
): Promise<Caller> {
  const { workspace: id } = request.params as { workspace: string };
  const user = isId(id) ? await findKey(db, key, id) : undefined;
  if (!user) throw new Refusal('key_refused');
  return { user: { ...user, csrf: '' }, workspace: await membership(db, user.id, id, route) };
}

/** A browser says where a request comes from; one from another page never changes anything, signing in included. */
function guardOrigin(request: FastifyRequest): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const { origin } = request.headers;
  // As whoever asked has it, where a proxy that is trusted says so.
  const { host } = request;
  if (origin && origin !== `http://${host}` && origin !== `https://${host}`) throw new Refusal('forged');
}
