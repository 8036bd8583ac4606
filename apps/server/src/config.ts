/** What the server is told from outside, read once. */
import { join } from 'node:path';

export interface Config {
  host: string;
  port: number;
  databaseUrl: string;
  /** Where files lie; everything in it belongs to the server. */
  dataFolder: string;
  /** The built page, or undefined when the page is served by its own development server. */
  webFolder: string | undefined;
  migrationsFolder: string;
  /** Resolves DOIs by content negotiation, as registries do; undefined: never asked. */
  registryUrl: string | undefined;
  /** Names led to other addresses than the name service has, as in a hosts file: "name=127.0.0.1:80", with blanks between. */
  hosts: string | undefined;
  /** Private hosts that may be asked as catalogues: "name", "name:port" or "10.0.0.5:8080", separated by blanks. */
  inside: string | undefined;
  /** Where mail is handed over, as smtp://host:port; without it none is sent. */
  smtp: string | undefined;
  /** Who mail comes from. */
  mailFrom: string;
  stylesFolder: string;
  secureCookies: boolean;
  /** Who may say of a request where it came from: addresses and networks of proxies, with commas between. */
  trustProxy: string | undefined;
  /** Opens the making of the first account, while there is none; without it none is made. */
  firstToken: string | undefined;
  /** The bundle the worker threads run, where it does not lie beside the server's. */
  tasksFile: string | undefined;
  /** In tests: replies are checked against the classes of their routes. */
  checkReplies: boolean;
}

export function readConfig(env: NodeJS.ProcessEnv): Config {
  const needed = (name: string): string => {
    const value = env[name];
    if (!value) throw new Error(`${name} is not set; \`npm start\` sets it, or set it to use a server of your own.`);
    return value;
  };
  return {
    host: env.PANDECTA_HOST ?? '127.0.0.1',
    port: Number(env.PANDECTA_PORT ?? 4700),
    databaseUrl: needed('DATABASE_URL'),
    dataFolder: needed('PANDECTA_DATA'),
    webFolder: env.PANDECTA_WEB,
    migrationsFolder: env.PANDECTA_MIGRATIONS ?? join(process.cwd(), 'apps/server/migrations'),
    registryUrl: env.PANDECTA_REGISTRY,
    hosts: env.PANDECTA_HOSTS,
    inside: env.PANDECTA_INSIDE,
    smtp: env.PANDECTA_SMTP,
    mailFrom: env.PANDECTA_MAIL_FROM ?? 'Pandecta <library@pandecta.example>',
    stylesFolder: env.PANDECTA_STYLES ?? '/usr/share/citation-style-language',
    tasksFile: env.PANDECTA_TASKS,
    checkReplies: env.PANDECTA_CHECK_REPLIES === '1',
    secureCookies: env.PANDECTA_HTTPS === '1',
    trustProxy: env.PANDECTA_TRUST_PROXY || undefined,
    firstToken: env.PANDECTA_FIRST_TOKEN || undefined,
  };
}
