/** A whole server on a database of its own, for tests: real PostgreSQL, real HTTP. */
import { createHash, randomBytes } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { hash } from '@node-rs/argon2';
import { sql } from 'drizzle-orm';
import pg from 'pg';
import PgBoss from 'pg-boss';
import { v7 as uuidv7 } from 'uuid';
import type { Destination, ImportReport, JobList, Through, Role, SessionInfo, SourcePage } from '@pandecta/contract';
import { buildApp, type App } from '../composition/app.ts';
import { writeFirstSenses } from '../marks/senses.ts';
import { connect, migrateUp, type Db } from '../database/connect.ts';

const PASSWORD = 'a long enough password';

export interface Reply<T> {
  status: number;
  body: T;
  headers: Headers;
}

/** Someone signed in, who speaks to the server over HTTP. */
export class Person {
  constructor(
    readonly base: string,
    readonly cookie: string,
    readonly info: SessionInfo,
    readonly workspace: string,
  ) {}

  async call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Reply<T>> {
    const form = body instanceof FormData;
    const response = await fetch(`${this.base}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        'x-csrf-token': this.info.csrf,
        ...(body === undefined || form ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    const isJson =
      /json/.test(response.headers.get('content-type') ?? '') &&
      !/citationstyles/.test(response.headers.get('content-type')!);
    return { status: response.status, body: (isJson ? JSON.parse(text) : text) as T, headers: response.headers };
  }

  /** Speaks of the workspace; anything but success is an error of the test. */
  async at<T>(method: string, path: string, body?: unknown): Promise<T> {
    const reply = await this.call<T>(method, `/w/${this.workspace}${path}`, body);
    if (reply.status >= 300) throw new Error(`${method} ${path}: ${reply.status} ${JSON.stringify(reply.body)}`);
    return reply.body;
  }

  /** A file the workspace gives out. @param body sent where what is given out is asked for by POST */
  async bytes(path: string, body?: object): Promise<Uint8Array> {
    const headers = { cookie: this.cookie, 'x-csrf-token': this.info.csrf, 'content-type': 'application/json' };
    const post = body && { method: 'POST', body: JSON.stringify(body) };
    const reply = await fetch(`${this.base}/api/w/${this.workspace}${path}`, post ? { ...post, headers } : { headers: { cookie: this.cookie } }); // prettier-ignore
    if (!reply.ok) throw new Error(`${post ? 'POST' : 'GET'} ${path}: ${reply.status} ${await reply.text()}`);
    return new Uint8Array(await reply.arrayBuffer());
  }

  /** Brings files in, past the intake unless it is said otherwise. */
  async import(
    files: Record<string, string | Uint8Array>,
    collection?: string,
    through: Through | 'as set' = 'straight',
  ): Promise<ImportReport> {
    const form = new FormData();
    const destination: Destination = { collections: collection ? [collection] : [], tags: [], reading: null };
    form.append('destination', JSON.stringify(destination));
    if (through !== 'as set') form.append('through', through);
    for (const [name, content] of Object.entries(files)) form.append('file', new Blob([content as string]), name);
    const { importId, jobId } = await this.at<{ importId: string; jobId: string }>('POST', '/imports', form);
    await this.jobEnds(jobId);
    return this.at<ImportReport>('GET', `/imports/${importId}`);
  }

  async jobEnds(jobId: string): Promise<void> {
    for (;;) {
      const { jobs } = await this.at<JobList>('GET', '/jobs');
      const job = jobs.find((j) => j.id === jobId);
      if (job && !['waiting', 'running'].includes(job.state)) return;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }

  ask(q: string, more = ''): Promise<SourcePage> {
    return this.at<SourcePage>('GET', `/sources?q=${encodeURIComponent(q)}${more}`);
  }

  async titles(q: string, more = ''): Promise<string[]> {
    return (await this.ask(q, more)).rows.map((r) => r.record.title ?? '').sort();
  }
}

export interface TestServer {
  base: string;
  app: App;
  /** Makes an account with a role in a workspace, and signs it in. */
  person(role: Role, workspace?: string): Promise<Person>;
  workspace(): Promise<string>;
  /** Waits until all that was written can be found. */
  settle(): Promise<void>;
  close(): Promise<void>;
}

export interface TestSetting {
  /** A server of the test's own: for what stops it, replaces a part of it, or is told of all workspaces at once. */
  alone?: true;
  /** What to do to the empty database before it is taken to the newest form. */
  prepare?: (url: string) => Promise<void>;
  registryUrl?: string;
  /** See the configuration: names led to servers of the test. */
  hosts?: string;
  inside?: string;
  smtp?: string;
  trustProxy?: string;
  firstToken?: string;
  secureCookies?: boolean;
}

/** Where they lie is said where this runs out of a bundle. */
const MIGRATIONS = process.env.PANDECTA_MIGRATIONS ?? fileURLToPath(new URL('../../migrations', import.meta.url));
/** Any number: one test makes the template, others wait. */
const MAKING_TEMPLATE = 4_700_002;

/** A database of the newest form, made once a cluster: to copy it takes a tenth of the time the migrations do. */
async function ensureTemplate(client: pg.Client, admin: string): Promise<string> {
  const journal = readFileSync(join(MIGRATIONS, 'meta/_journal.json'));
  const name = `template_${createHash('sha256').update(journal).digest('hex').slice(0, 12)}`;
  await client.query('select pg_advisory_lock($1)', [MAKING_TEMPLATE]);
  try {
    const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [name]);
    if (rowCount) return name;
    await client.query(`create database ${name}_new`);
    const url = new URL(admin);
    url.pathname = `/${name}_new`;
    const database = connect(url.href);
    await migrateUp(database, MIGRATIONS);
    await database.close();
    const boss = new PgBoss({ connectionString: url.href });
    await boss.start();
    await boss.stop({ wait: true });
    await client.query(`alter database ${name}_new rename to ${name}`);
    return name;
  } finally {
    await client.query('select pg_advisory_unlock($1)', [MAKING_TEMPLATE]);
  }
}

/** A workspace with nothing in it but what marks may mean. */
export async function makeWorkspace(db: Db): Promise<string> {
  const id = uuidv7();
  await db.execute(sql`insert into workspaces (id, name) values (${id}, 'Test')`);
  await writeFirstSenses(db, id);
  return id;
}

/** Tests share a server where they set nothing: each has workspaces and people of its own. It ends with the process. */
let shared: Promise<TestServer> | undefined;

export async function startTestServer(setting: TestSetting = {}): Promise<TestServer> {
  if (Object.keys(setting).length) return startServer(setting);
  shared ??= startServer({});
  return { ...(await shared), close: async () => {} };
}

async function startServer({ prepare, alone: _, ...setting }: TestSetting): Promise<TestServer> {
  const admin = process.env.PANDECTA_TEST_DATABASE;
  if (!admin) throw new Error('PANDECTA_TEST_DATABASE is not set: run the tests with `npm test`.');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  const template = prepare ? undefined : await ensureTemplate(client, admin);
  await client.query(`create database ${name}${template ? ` template ${template}` : ''}`);
  const url = new URL(admin);
  url.pathname = `/${name}`;
  await prepare?.(url.href);
  const folder = mkdtempSync(join(tmpdir(), 'pandecta-files-'));
  const app = await buildApp({
    host: '127.0.0.1',
    port: 0,
    databaseUrl: url.href,
    dataFolder: folder,
    webFolder: undefined,
    registryUrl: undefined,
    hosts: undefined,
    inside: undefined,
    smtp: undefined,
    trustProxy: undefined,
    firstToken: undefined,
    secureCookies: false,
    ...setting,
    mailFrom: 'library@sallow.example',
    migrationsFolder: MIGRATIONS,
    stylesFolder: '/usr/share/citation-style-language',
    checkReplies: true,
    tasksFile: process.env.PANDECTA_TASKS,
  });
  await migrateUp(app.services.database, app.services.config.migrationsFolder);
  await app.start();
  const base = await app.app.listen({ host: '127.0.0.1', port: 0 });
  const { db } = app.services;
  const passwordHash = await hash(PASSWORD, { memoryCost: 8192, timeCost: 1 });

  const workspace = (): Promise<string> => makeWorkspace(db);
  return {
    base,
    app,
    workspace,
    async person(role, inWorkspace) {
      const id = uuidv7();
      const email = `${id}@sallow.example`;
      const w = inWorkspace ?? (await workspace());
      await db.execute(
        sql`insert into users (id, email, name, password_hash) values (${id}, ${email}, ${`A ${role}`}, ${passwordHash})`,
      );
      await db.execute(sql`insert into members (workspace_id, user_id, role) values (${w}, ${id}, ${role})`);
      const response = await fetch(`${base}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email, password: PASSWORD }),
      });
      if (!response.ok) throw new Error(`sign-in: ${response.status} ${await response.text()}`);
      return new Person(
        base,
        response.headers.get('set-cookie')!.split(';')[0]!,
        (await response.json()) as SessionInfo,
        w,
      );
    },
    settle: () => app.services.followers.settle(),
    async close() {
      await app.close();
      await client.query(`drop database ${name} with (force)`);
      await client.end();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
