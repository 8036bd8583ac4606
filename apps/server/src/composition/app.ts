/** The server, put together. The order of registration is the table of contents. */
import cookie from '@fastify/cookie';
import helmet from '@fastify/helmet';
import multipart from '@fastify/multipart';
import staticFiles from '@fastify/static';
import Fastify, { type FastifyInstance } from 'fastify';
import { DEFAULT_STYLE } from '@pandecta/core/citing';
import { CAPABILITIES } from './capabilities.ts';
import './registries.ts';
import type { Config } from '../config.ts';
import { comparing } from '../check/compare.ts';
import { connect } from '../database/connect.ts';
import { FolderStorage } from '../storage/storage.ts';
import { registerDescription } from '../http/describe.ts';
import { registerJson } from '../http/json.ts';
import { PACE } from '../http/pace.ts';
import { PART_LIMITS } from '../http/parts.ts';
import { refuseConnection, refuseUnrouted, registerProblems } from '../http/problems.ts';
import { declarer, type Declared } from '../http/route.ts';
import { measured, SERIALIZERS } from '../log.ts';
import { Followers } from '../indexing/follower.ts';
import { indexing } from '../indexing/indexer.ts';
import { Jobs } from '../queue/service.ts';
import { Live } from '../news/service.ts';
import { Mail } from '../mail/mail.ts';
import { ColumnsService } from '../columns/service.ts';
import type { Services } from '../services.ts';
import { Fetcher, readHosts, readInside } from '../fetching/fetch.ts';
import { Workers } from '../workers/pool.ts';

export interface App {
  app: FastifyInstance;
  services: Services;
  /** Starts what works in the background: jobs and the indexer. */
  start(): Promise<void>;
  close(): Promise<void>;
}

export async function buildApp(config: Config, pace = PACE): Promise<App> {
  const app = Fastify({
    logger: { level: process.env.PANDECTA_LOG ?? 'warn', serializers: SERIALIZERS, hooks: measured() },
    routerOptions: { maxParamLength: 200 },
    // Streams never end by themselves; what is cut in the middle of a change has changed nothing.
    forceCloseConnections: true,
    trustProxy: config.trustProxy ?? false,
    frameworkErrors: refuseUnrouted,
    clientErrorHandler: refuseConnection,
  });
  const database = connect(config.databaseUrl);
  const workers = new Workers(config.tasksFile);
  const report = (error: unknown): void => app.log.error({ err: error }, 'in the background');
  const services: Services = {
    config,
    database,
    db: database.db,
    workers,
    mail: new Mail(database.db, config.smtp, config.mailFrom),
    report,
    fetcher: new Fetcher(readHosts(config.hosts), readInside(config.inside)),
    storage: new FolderStorage(`${config.dataFolder}/files`),
    jobs: new Jobs(database, config.databaseUrl, report),
    live: new Live(config.databaseUrl),
    followers: new Followers(database.db, report, [indexing(workers), comparing(database.db, workers)]),
    columns: new ColumnsService(database.db, config.tasksFile),
  };
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: true,
      directives: {
        'script-src': ["'self'", "'wasm-unsafe-eval'"],
        'worker-src': ["'self'", 'blob:'],
        'img-src': ["'self'", 'data:', 'blob:'],
        // A kept page is shown under this policy too: nothing it holds is fetched from elsewhere.
        'font-src': ["'self'", 'data:'],
        'style-src': ["'self'", "'unsafe-inline'"],
        'upgrade-insecure-requests': null,
      },
    },
    // Of this name alone: what else its domain serves is not ours to say.
    hsts: config.secureCookies && { maxAge: 180 * 86_400, includeSubDomains: false },
  });
  await app.register(cookie);
  await app.register(multipart, { preservePath: true, limits: PART_LIMITS });
  app.server.headersTimeout = pace.headersMs;
  registerJson(app);
  registerProblems(app);
  const declared: Declared = [];
  const declare = declarer(app, services, declared, pace);
  for (const { routes } of CAPABILITIES) routes?.(declare, services);
  registerDescription(app, declared);
  if (config.webFolder) {
    await app.register(staticFiles, {
      root: config.webFolder,
      wildcard: false,
      setHeaders: (reply, path) =>
        void reply.header(
          'cache-control',
          /\/assets\//.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache',
        ),
    });
  }
  let closing = false;
  return {
    app,
    services,
    start: async () => {
      for (const { first } of CAPABILITIES) await first?.(services);
      await services.live.start();
      await services.jobs.start(
        CAPABILITIES.flatMap((c) => c.jobs ?? []),
        services,
      );
      for (const [name, { at, work }] of CAPABILITIES.flatMap((c) => Object.entries(c.regular ?? {})))
        await services.jobs.regularly(name, at, () => work(services));
      services.followers.start();
      // The first citation anyone looks at should not wait for its style to be read.
      void workers
        .run('cite', { folder: config.stylesFolder, style: DEFAULT_STYLE, sources: [] })
        .catch((error) => closing || report(error));
    },
    close: async () => {
      closing = true;
      await app.close();
      await services.live.stop();
      await services.jobs.stop();
      await services.followers.stop();
      await services.fetcher.close();
      services.mail.close();
      await workers.close();
      await services.columns.close();
      await database.close();
    },
  };
}
