/** One work under one harm: what is wrong when it is over. */
import { setTimeout } from 'node:timers/promises';
import { sql } from 'drizzle-orm';
import { GOING, type JobList, type SourcePage } from '@pandecta/contract';
import { isUnavailable } from '../../database/connect.ts';
import { number, rows } from '../../database/read.ts';
import type { Person } from '../server.ts';
import { derived, deriveAnew } from '../rebuilt.ts';
import type { Ground } from './ground.ts';
import type { Harm } from './harm.ts';
import type { Work } from './works.ts';

/** Longer nobody would wait for a machine to be well again. */
const WELL_WITHIN_MS = 60_000;
/** What lasts, lasts so long. */
const LASTS_MS = 1000;
const MOST_LOOKS = 5;

/** Until the server answers, no job goes, and what was written can be found. */
async function well(me: Person): Promise<void> {
  const until = performance.now() + WELL_WITHIN_MS;
  for (let last = 'no answer'; ; await setTimeout(50)) {
    if (performance.now() > until) throw new Error(`it was not well again within a minute: ${last}`);
    try {
      const { jobs } = await me.at<JobList>('GET', '/jobs');
      const page = await me.at<SourcePage>('GET', '/sources?q=tide');
      last = JSON.stringify(jobs);
      if (!page.settling && !jobs.some((j) => GOING.includes(j.state))) return;
    } catch (error) {
      last = String(error);
    }
  }
}

const jobsOf = async (me: Person): Promise<JobList['jobs']> => (await me.at<JobList>('GET', '/jobs')).jobs;

async function jobsEnd(me: Person): Promise<void> {
  for (const job of await jobsOf(me)) await me.jobEnds(job.id);
}

/** How long a work takes where nothing befalls it. */
export async function undisturbed(ground: Ground, work: Work): Promise<number> {
  const me = await ground.person();
  await work.before?.(me);
  await well(me);
  let begun = performance.now();
  await work.ask(me);
  if (work.after) {
    await jobsEnd(me);
    begun = performance.now();
  }
  await well(me);
  return performance.now() - begun;
}

export interface Tried {
  /** Empty where all is as it must be. */
  wrong: string[];
  undone: boolean;
  /** From the end of the harm until all was well. */
  ms: number;
}

/**
 * @param chance from 0 to 1: when it is struck, and how
 * @param span how long the work takes, in ms
 */
export async function trial(
  ground: Ground,
  work: Work,
  harm: Harm,
  chance: { when: number; how: number },
  span: number,
): Promise<Tried> {
  const wrong: string[] = [];
  const me = await ground.person();
  await work.before?.(me);
  await well(me);
  // What lasts may have begun before.
  const early = harm.lift !== undefined && !work.after && chance.when < 0.4;
  if (early) await harm.strike(ground, chance.how);
  const asked = work.ask(me).catch(() => undefined);
  if (work.after) {
    await asked;
    await jobsEnd(me);
  }
  if (!early) {
    await setTimeout(chance.when * span);
    await harm.strike(ground, chance.how);
  }
  if (harm.lift) {
    await setTimeout(LASTS_MS);
    await harm.lift(ground);
  }
  const over = performance.now();
  const reply = await asked;
  const acknowledged = reply !== undefined && reply.status < 300;
  if (reply?.status === 500) wrong.push(`answered with 500: ${JSON.stringify(reply.body)}`);
  await well(me);
  const ms = performance.now() - over;
  let found = await work.found(me);
  const undone = found === 'nothing';
  const failed = (await jobsOf(me)).filter((j) => j.state === 'failed');
  if (!['all', 'nothing'].includes(found)) wrong.push(`some of it: ${found}`);
  if (acknowledged && found !== 'all' && !failed.length) wrong.push(`acknowledged, and not there: ${found}`);
  if (found === 'all' && failed.length) wrong.push(`there, and said to have failed: ${failed[0]!.says}`);
  if (failed[0] && /disk/.test(harm.name) && !/disk/.test(failed[0].says))
    wrong.push(`no word of why: ${failed[0].says}`);
  // Whoever sees that it was not done does it again.
  if (undone) {
    if (failed.length) await me.at('POST', `/jobs/${failed[0]!.id}/again`);
    else await work.ask(me);
    await well(me);
    found = await work.found(me);
    if (found !== 'all') wrong.push(`done again: ${found}`);
  }
  wrong.push(...(await patiently(() => contradictions(ground, me))));
  return { wrong, undone, ms };
}

/** Who only looks may come while the database is hardly back: they look again. */
async function patiently<T>(look: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await look();
    } catch (error) {
      if (!isUnavailable(error) || tries === MOST_LOOKS) throw error;
    }
  }
}

/** What is said of the sources twice, in two places, and not alike. */
async function contradictions(ground: Ground, me: Person): Promise<string[]> {
  const { db } = ground.database;
  const wrong: string[] = [];
  const twice = await rows(
    db,
    { n: number },
    sql`select count(*)::int as n from (select 1 from changes where workspace_id = ${me.workspace} and change->>'do' <> 'undo' group by change having count(*) > 1) x`,
  );
  if (twice[0]!.n) wrong.push(`${twice[0]!.n} changes stand in the history twice`);
  const maintained = await derived(db, me.workspace);
  await deriveAnew(db, me.workspace);
  await well(me);
  const anew = await derived(db, me.workspace);
  for (const [what, stood] of Object.entries(maintained))
    if (JSON.stringify(anew[what]) !== JSON.stringify(stood))
      wrong.push(`what is derived of “${what}” is not what it is when derived anew`);
  return wrong;
}
