/** What every capability is given. */
import type { Config } from './config.ts';
import type { Database, Db } from './database/connect.ts';
import type { Storage } from './storage/storage.ts';
import type { Followers } from './indexing/follower.ts';
import type { Jobs } from './queue/service.ts';
import type { Live } from './news/service.ts';
import type { Mail } from './mail/mail.ts';
import type { ColumnsService } from './columns/service.ts';
import type { Fetcher } from './fetching/fetch.ts';
import type { Workers } from './workers/pool.ts';

export interface Services {
  config: Config;
  database: Database;
  db: Db;
  storage: Storage;
  jobs: Jobs;
  /** Looks after what follows a write: words made findable, sources compared. */
  followers: Followers;
  live: Live;
  workers: Workers;
  columns: ColumnsService;
  mail: Mail;
  /** The only way to addresses a person or a page named. */
  fetcher: Fetcher;
  /** Tells whoever runs the server of an error that is no person's to mend. */
  report: (error: unknown) => void;
}
