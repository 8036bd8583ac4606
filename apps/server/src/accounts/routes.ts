/** Signing in and out, the first account, and one's own password. */
import type { FastifyReply } from 'fastify';
import { routes, type SessionInfo } from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import { SESSION_COOKIE } from '../http/authorise.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { attempt } from '../access/attempts.ts';
import { makeFirstAccount, refuseSpent } from './first.ts';
import { hashPassword, isPassword } from '../access/passwords.ts';
import {
  endSession,
  findUser,
  makeSession,
  SESSION_DAYS,
  setPassword,
  workspacesOf,
  type Person,
} from '../access/store.ts';

export function accountRoutes(declare: Declare, { db, config }: Services): void {
  const infoOf = async ({ id, name, email }: Person, csrf: string): Promise<SessionInfo> => ({
    userId: id,
    name,
    email,
    csrf,
    workspaces: await workspacesOf(db, id),
  });
  const enter = async (reply: FastifyReply, user: Person): Promise<SessionInfo> => {
    const { token, csrf } = await makeSession(db, user.id);
    void reply.setCookie(SESSION_COOKIE, token, {
      path: '/',
      httpOnly: true,
      sameSite: 'strict',
      secure: config.secureCookies,
      maxAge: SESSION_DAYS * 86_400,
    });
    return infoOf(user, csrf);
  };

  declare(routes.access.signIn, async ({ body, request, reply }) => {
    const email = body.email.trim().toLowerCase();
    let user: Awaited<ReturnType<typeof findUser>>;
    const right = await attempt(db, email, request.ip, async () => {
      user = await findUser(db, email);
      return isPassword(user?.passwordHash, body.password);
    });
    if (!right) throw new Refusal('sign_in_refused');
    return enter(reply, user!);
  });

  declare(routes.access.firstLink, async ({ body, reply }) => {
    await refuseSpent(db, config.firstToken, body);
    return reply.status(204).send();
  });

  declare(routes.access.first, async ({ body, reply }) =>
    enter(reply, await makeFirstAccount(db, config.firstToken, body)),
  );

  declare(routes.access.session, ({ user }) => infoOf(user, user.csrf));

  declare(routes.access.changePassword, async ({ user, body, request, reply }) => {
    const right = await attempt(db, user.email, request.ip, async () =>
      isPassword((await findUser(db, user.email))?.passwordHash, body.old),
    );
    if (!right) throw new Refusal('password_refused');
    await setPassword(db, user.id, await hashPassword(body.password), request.cookies[SESSION_COOKIE]!);
    return reply.status(204).send();
  });

  declare(routes.access.signOut, async ({ request, reply }) => {
    await endSession(db, request.cookies[SESSION_COOKIE]!);
    // What the browser keeps of files goes with it (W3C Clear Site Data).
    void reply.clearCookie(SESSION_COOKIE, { path: '/' }).header('clear-site-data', '"cache"');
    return reply.status(204).send();
  });
}
