/** What waits is looked up on request: one at once, many as a job. */
import pMap from 'p-map';
import type { Changed } from '@pandecta/contract';
import type { Change, EditChange } from '@pandecta/core/changes';
import { givenByLike } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import { commitWithin, type Committed } from '../changes/commit.ts';
import { lockSources } from '../records/store.ts';
import { withoutTimeout, type Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { defineJob } from '../capability.ts';
import { noteResult } from '../queue/once.ts';
import { lookUp, type LookedUpAnywhere } from '../catalogues/look-up.ts';
import type { Services } from '../services.ts';
import { edited } from '../records/edited.ts';
import { noteLookUp } from './origins.ts';
import { waitingOne } from './service.ts';
import { findWaiting } from './store.ts';

export async function lookUpOne(services: Services, actor: Actor, id: string): Promise<Changed> {
  const { record } = await waitingOne(services.db, actor.workspaceId, id);
  const looked = await lookUp(services, actor.workspaceId, record);
  const { changeId, says: did } = await commitLookedUp(services, actor, new Map([[id, looked]]));
  if (changeId) return { changeId, says: did };
  const says = {
    found: `${looked.found?.database ?? 'The registry'} has it, and nothing more of it`,
    silent: 'No answer; try again later',
    'not found': 'No catalogue has it',
  }[looked.state];
  return { changeId: null, says };
}

/**
 * Saves what was found for each waiting source in its record, together with the result of the look-up. The rows are read
 * again under a lock: one that was edited or taken in meanwhile is left as it is, and the others are still saved.
 */
async function commitLookedUp(
  { db, followers }: Services,
  actor: Actor,
  found: ReadonlyMap<string, LookedUpAnywhere>,
  more: { says?: string; also?: (tx: Db, committed: Committed) => Promise<void> } = {},
): Promise<Committed> {
  const { workspaceId } = actor;
  const committed = await withoutTimeout(db, async (tx) => {
    await lockSources(tx, workspaceId, [...found.keys()]);
    for (const [id, looked] of found) await noteLookUp(tx, workspaceId, id, looked);
    const now = await findWaiting(tx, workspaceId, [...found.keys()]);
    const changes = [...now.values()].flatMap(({ id, record }) => changeBy(id, record, found.get(id)!) ?? []);
    const change: Change =
      more.says === undefined && changes[0] ? changes[0] : { do: 'all', says: more.says ?? '', changes };
    const done = await commitWithin(tx, actor, change);
    await more.also?.(tx, done);
    return done;
  });
  followers.kick();
  return committed;
}

/** What was found by an identifier or its place is what it is; what is alike gives what one would not miss. */
function changeBy(id: string, record: SourceRecord, looked: LookedUpAnywhere): EditChange | undefined {
  if (!looked.record) return undefined;
  const { custom: _custom, ...fields } = looked.record;
  const from = looked.states ? 'stated on the page' : record.DOI ? 'identifier registry' : 'catalogue';
  return looked.alike
    ? edited(id, record, givenByLike(record, looked.record), { from, sure: 0.9 })
    : edited(id, record, fields, { from, sure: 0.97 });
}

const AT_ONCE = 4;

export async function startLookingUp(services: Services, actor: Actor, ids: string[]): Promise<Changed> {
  if (!ids.length) throw new Refusal('invalid', 'none is chosen');
  const title = `Looking up ${formatNumber(ids.length)}`;
  const jobId = await services.jobs.queue(lookUpJob, actor, title, { ids });
  return { changeId: null, says: `${title}; Jobs shows how far it is`, jobId };
}

export const lookUpJob = defineJob<{ ids: string[] }>({
  kind: 'look up',
  nothing: 'nothing was changed',
  failed: 'Looking up failed on the server; nothing was changed.',
  async work(services, { workspaceId, jobId, userId, input }, progress) {
    const asked = await findWaiting(services.db, workspaceId, input.ids);
    const found = new Map<string, LookedUpAnywhere>();
    await pMap(
      asked.values(),
      async ({ id, record }) => {
        const looked = await lookUp(services, workspaceId, record);
        found.set(id, looked);
        await progress(found.size, asked.size, `${formatNumber(found.size)} of ${formatNumber(asked.size)} asked for`);
      },
      { concurrency: AT_ONCE },
    );
    const says = inWords([...found.values()]);
    await commitLookedUp(services, { workspaceId, userId }, found, {
      says,
      also: (tx, { changeId }) => noteResult(tx, workspaceId, jobId, { changeId, says }),
    });
    return says;
  },
});

/** "Looked up 12: 9 found, 2 not found, 1 without an answer" */
function inWords(looked: LookedUpAnywhere[]): string {
  const count = (state: LookedUpAnywhere['state']): number => looked.filter((l) => l.state === state).length;
  const parts = [
    `${formatNumber(count('found'))} found`,
    ...(count('not found') ? [`${formatNumber(count('not found'))} not found`] : []),
    ...(count('silent') ? [`${formatNumber(count('silent'))} without an answer`] : []),
  ];
  return `Looked up ${formatNumber(looked.length)}: ${parts.join(', ')}`;
}
