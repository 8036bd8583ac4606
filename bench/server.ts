/** A server of its own with an account, for measurements through the HTTP API. */
import { sql } from 'drizzle-orm';
import { hash } from '@node-rs/argon2';
import { v7 as uuidv7 } from 'uuid';
import { buildApp, type App } from '@pandecta/server/composition/app';
import { readConfig } from '@pandecta/server/config';
import { migrateUp } from '@pandecta/server/database/connect';

export interface Bench {
  app: App;
  base: string;
  workspace: { id: string; number: number };
  userId: string;
  get(path: string): Promise<Response>;
  post(path: string, body: unknown): Promise<Response>;
  patch(path: string, body: unknown): Promise<Response>;
  close(): Promise<void>;
}

export const PASSWORD = 'bench bench bench';

export async function startBench(name: string): Promise<Bench> {
  const app = await buildApp(readConfig(process.env));
  const { db, database, config } = app.services;
  await migrateUp(database, config.migrationsFolder);
  await app.start();
  const base = await app.app.listen({ host: '127.0.0.1', port: 0 });
  const email = `${name}@bench.example`;
  const found = (
    await db.execute(
      sql`select w.id, w.number, m.user_id from workspaces w join members m on m.workspace_id = w.id join users u on u.id = m.user_id where u.email = ${email}`,
    )
  ).rows[0] as { id: string; number: number; user_id: string } | undefined;
  const id = found?.id ?? uuidv7();
  const userId = found?.user_id ?? uuidv7();
  if (!found) {
    await db.execute(sql`insert into workspaces (id, name) values (${id}, ${name})`);
    await db.execute(
      sql`insert into users (id, email, name, password_hash) values (${userId}, ${email}, 'Bench', ${await hash(PASSWORD)})`,
    );
    await db.execute(sql`insert into members (workspace_id, user_id, role) values (${id}, ${userId}, 'steward')`);
  }
  const number = ((await db.execute(sql`select number from workspaces where id = ${id}`)).rows[0] as { number: number })
    .number;
  const signIn = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: PASSWORD }),
  });
  const cookie = signIn.headers.get('set-cookie')!.split(';')[0]!;
  const { csrf } = (await signIn.json()) as { csrf: string };
  const send = (method: string, path: string, body: unknown): Promise<Response> =>
    fetch(`${base}/api/w/${id}${path}`, {
      method,
      headers: {
        cookie,
        'x-csrf-token': csrf,
        ...(body instanceof FormData ? {} : { 'content-type': 'application/json' }),
      },
      body: body instanceof FormData ? body : JSON.stringify(body),
    });
  return {
    app,
    base,
    workspace: { id, number },
    userId,
    get: (path) => fetch(`${base}/api/w/${id}${path}`, { headers: { cookie } }),
    post: (path, body) => send('POST', path, body),
    patch: (path, body) => send('PATCH', path, body),
    close: () => app.close(),
  };
}
