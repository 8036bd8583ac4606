/** Finds out who calls and whether they may: session, forgery guard, membership, role. */
import type { FastifyRequest } from 'fastify';
import type { Action } from '@pandecta/contract';
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
  action: Action | 'signed in' | 'anyone',
  byKey = false,
): Promise<Caller> {
  const key = byKey && /^Bearer (\S+)$/.exec(request.headers.authorization ?? '')?.[1];
  if (key) return byGatherKey(services, request, key, action as Action);
  guardOrigin(request);
  if (action === 'anyone') return { user: NOBODY, workspace: NOWHERE };
  const token = request.cookies[SESSION_COOKIE];
  const user = token ? await findSession(services.db, token) : undefined;
  if (!user) throw new Refusal('not_signed_in');
  const changes = request.method !== 'GET' && request.method !== 'HEAD';
  if (changes && request.headers['x-csrf-token'] !== user.csrf) throw new Refusal('forged');
  if (action === 'signed in') return { user, workspace: NOWHERE };
  const { workspace: id } = request.params as { workspace: string };
  const workspace = isId(id) ? await findMembership(services.db, user.id, id) : undefined;
  if (!workspace) throw new Refusal('not_a_member');
  if (!may(workspace.role, action)) throw new Refusal('not_allowed');
  return { user, workspace };
}

/** Whoever holds a key needs no session, and a page that holds none cannot forge one. */
async function byGatherKey({ db }: { db: Db }, request: FastifyRequest, key: string, action: Action): Promise<Caller> {
  const { workspace: id } = request.params as { workspace: string };
  const user = isId(id) ? await findKey(db, key, id) : undefined;
  if (!user) throw new Refusal('key_refused');
  const workspace = await findMembership(db, user.id, id);
  if (!workspace) throw new Refusal('not_a_member');
  if (!may(workspace.role, action)) throw new Refusal('not_allowed');
  return { user: { ...user, csrf: '' }, workspace };
}

/** A browser says where a request comes from; one from another page never changes anything, signing in included. */
function guardOrigin(request: FastifyRequest): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const { origin } = request.headers;
  // As whoever asked has it, where a proxy that is trusted says so.
  const { host } = request;
  if (origin && origin !== `http://${host}` && origin !== `https://${host}`) throw new Refusal('forged');
}
