/** People of a workspace with a session each, who speak to a server in a process of its own. */
import { createHash, randomBytes } from 'node:crypto';
import { setTimeout } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Db } from '@pandecta/server/database/connect';

export interface Person {
  cookie: string;
  csrf: string;
  workspace: string;
}

/** Makes accounts with a session each, without a password: they never sign in. */
export async function makePeople(db: Db, workspace: string, count: number): Promise<Person[]> {
  const people: Person[] = [];
  for (let i = 0; i < count; i += 1) {
    const id = uuidv7();
    const token = randomBytes(32).toString('base64url');
    const csrf = randomBytes(18).toString('base64url');
    await db.execute(
      sql`insert into users (id, email, name, password_hash) values (${id}, ${`${id}@bench.example`}, 'Bench', 'none')`,
    );
    await db.execute(
      sql`insert into members (workspace_id, user_id, role) values (${workspace}, ${id}, 'contributor')`,
    );
    await db.execute(
      sql`insert into sessions (token_hash, user_id, csrf, expires_at) values (${createHash('sha256').update(token).digest()}, ${id}, ${csrf}, now() + interval '1 day')`,
    );
    people.push({ cookie: `pandecta_session=${token}`, csrf, workspace });
  }
  return people;
}

export const headersOf = ({ cookie, csrf }: Person): Record<string, string> => ({ cookie, 'x-csrf-token': csrf });

export async function send(
  base: string,
  person: Person,
  method: string,
  path: string,
  body?: string | FormData,
): Promise<Response> {
  return fetch(`${base}/api/w/${person.workspace}${path}`, {
    method,
    headers: { ...headersOf(person), ...(typeof body === 'string' && { 'content-type': 'application/json' }) },
    ...(body !== undefined && { body }),
  });
}

/** What people ask all day: small questions, a source, a star. */
const SMALL = (ids: string[], nth: number): [method: string, path: string, body?: string] => {
  const id = ids[nth % ids.length]!;
  switch (nth % 5) {
    case 0:
      return ['GET', '/places'];
    case 1:
      return ['GET', `/sources/${id}`];
    case 2:
      return ['GET', '/sources?count=30'];
    case 3:
      return ['GET', '/jobs'];
    default:
      return ['POST', '/stars', JSON.stringify({ ids: [id], present: nth % 2 === 0 })];
  }
};

/** Each asks something small, looks at it for a while, and asks again; @returns how long each answer took, in ms. */
export async function ordinary(base: string, people: Person[], ids: string[], forMs: number): Promise<number[]> {
  const until = performance.now() + forMs;
  const times: number[] = [];
  const refused = new Map<number, number>();
  await Promise.all(
    people.map(async (person, p) => {
      await setTimeout((p / people.length) * 1000);
      for (let nth = p; performance.now() < until; nth += 1) {
        const start = performance.now();
        const response = await send(base, person, ...SMALL(ids, nth)).catch(() => undefined);
        await response?.arrayBuffer();
        times.push(performance.now() - start);
        if (!response?.ok) refused.set(response?.status ?? 0, (refused.get(response?.status ?? 0) ?? 0) + 1);
        await setTimeout(1000);
      }
    }),
  );
  if (refused.size) console.log(`  refused: ${[...refused].map(([s, n]) => `${s} × ${n}`).join(', ')}`);
  return times;
}
