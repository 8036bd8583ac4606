/** What befalls a machine in the middle of work. */
import type { Ground } from './ground.ts';

export interface Harm {
  name: string;
  /** @param chance from 0 to 1: how it falls out */
  strike(ground: Ground, chance: number): Promise<void> | void;
  /** What lasted is over; without it, it was over at once. */
  lift?(ground: Ground): Promise<void> | void;
}

/** So little is left that what goes on ends in the middle: bytes. */
const LEFT = { files: 60_000, database: 400_000 };

export const HARMS: Harm[] = [
  { name: 'the server killed', strike: (ground) => ground.killServer() },
  { name: 'the database killed', strike: (ground) => ground.killDatabase() },
  {
    name: 'one connection killed',
    async strike({ database }, chance) {
      const busy = (
        await database.pool.query<{ pid: number }>(
          `select pid from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()
           order by state = 'active' desc, xact_start is null, pid limit 3`,
        )
      ).rows;
      const { pid } = busy[Math.floor(chance * busy.length)]!;
      await database.pool.query('select pg_terminate_backend($1)', [pid]);
    },
  },
  {
    name: 'the disk of the files full',
    strike: ({ disks }, chance) => disks!.files.fill(Math.round(chance * LEFT.files)),
    lift: ({ disks }) => disks!.files.free(),
  },
  {
    name: 'the disk of the database full',
    strike: ({ disks }, chance) => disks!.database.fill(Math.round(chance * LEFT.database)),
    lift: ({ disks }) => disks!.database.free(),
  },
  {
    name: 'the clock set back by two hours',
    strike: ({ setClock }) => setClock(-7200),
    lift: ({ setClock }) => setClock(0),
  },
  {
    name: 'the clock set forward by two days',
    strike: ({ setClock }) => setClock(172_800),
    lift: ({ setClock }) => setClock(0),
  },
];
