/** Signing in and out. */
import { verify } from '@node-rs/argon2';
import { routes } from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import { SESSION_COOKIE } from '../http/authorise.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import {
  countAttempts,
  endSession,
  findUser,
  forgetAttempts,
  makeSession,
  SESSION_DAYS,
  workspacesOf,
} from './store.ts';

const MOST_ATTEMPTS = 10;

/** The argon2id hash of no one's password: verified where there is no such user, so that both answers take as long. */
const NOBODYS_HASH =
  '$argon2id$v=19$m=19456,t=2,p=1$s17mlAPHxccWit9EEYyZSw$IbkRcwUxCd3UrE1k79Ysklq4/i70FkX4rtEjTd4cKUM';

export function accessRoutes(declare: Declare, { db, config }: Services): void {
  declare(routes.access.signIn, async ({ body, request, reply }) => {
    const email = body.email.trim().toLowerCase();
    const who = [`address ${request.ip}`, `account ${email}`];
    if ((await countAttempts(db, who)) > MOST_ATTEMPTS) throw new Refusal('too_many_attempts');
    const user = await findUser(db, email);
    const right = await verify(user?.passwordHash ?? NOBODYS_HASH, body.password).catch(() => false);
    if (!user || !right) throw new Refusal('sign_in_refused');
    await forgetAttempts(db, who);
    const { token, csrf } = await makeSession(db, user.id);
    void reply.setCookie(SESSION_COOKIE, token, {
      path: '/',
      httpOnly: true,
      sameSite: 'strict',
      secure: config.secureCookies,
      maxAge: SESSION_DAYS * 86_400,
    });
    return { userId: user.id, name: user.name, email: user.email, csrf, workspaces: await workspacesOf(db, user.id) };
  });

  declare(routes.access.session, async ({ user }) => ({
    userId: user.id,
    name: user.name,
    email: user.email,
    csrf: user.csrf,
    workspaces: await workspacesOf(db, user.id),
  }));

  declare(routes.access.signOut, async ({ request, reply }) => {
    await endSession(db, request.cookies[SESSION_COOKIE]!);
    void reply.clearCookie(SESSION_COOKIE, { path: '/' });
    return reply.status(204).send();
  });
}
