/** Duplicates become one: what is found, and what is done about it. */
import { counted } from '@pandecta/core/wording';
import { compareJob } from './jobs.ts';
import { OF_ALL, type Changed, type DuplicateGroup, type Duplicates, type Merge, type Merged, type MergeGroup, type Relate } from '@pandecta/contract'; // prettier-ignore
import { NOTHING_SAID, type Change } from '@pandecta/core/changes';
import { ALL_OF_THEM, bestOfField, canCombine, mergedRecord, planMerge } from '@pandecta/core/matching';
import { withoutMarkup } from '@pandecta/core/source';
import { answer } from '../changes/commit.ts';
import { commit, commitDecided } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { saidAmong } from '../relations/store.ts';
import { edited } from '../records/edited.ts';
import { countPresence, findRecords } from '../records/store.ts';
import type { Services } from '../services.ts';
import { Kept } from './kept.ts';
import { countUncompared, pairsAt } from './compare.ts';
import { catchUp, groupsIn } from './groups.ts';
import { findKnown, findRelations, revisionOf, tiesTo } from './store.ts';

/** What was found stands until something is written. */
const duplicatesKept = new Kept<DuplicateGroup[]>();

export async function duplicates(services: Services, workspaceId: string): Promise<Duplicates> {
  const { db } = services;
  await catchUp(services, workspaceId);
  const revision = await revisionOf(db, workspaceId);
  const [relations, pairs, live, behind] = await Promise.all([
    findRelations(db, workspaceId),
    pairsAt(db, workspaceId),
    countPresence(db, workspaceId, 'live'),
    countUncompared(db, workspaceId),
  ]);
  // What was said of pairs changes no source, but what is found.
  const said = relations.map((r) => `${r.from} ${r.to}`).join(' ');
  const groups = await duplicatesKept.of(workspaceId, `${revision} ${pairs} ${said}`, async () =>
    (await groupsIn(services, workspaceId)).map(({ members, ...g }): DuplicateGroup => {
      const records = members.map((m) => m.record);
      const title = withoutMarkup(records[Math.max(0, bestOfField('title', records))]!.title ?? 'Untitled');
      const ids = members.map((m) => m.id);
      return { ...g, id: `${ids[0]} ${ids[1]}`, members: ids, title };
    }),
  );
  return { groups, compared: Math.max(0, live - behind), behind };
}

/** All are compared with each other once more, as a job. */
export async function compareAgain({ jobs }: Services, actor: Actor): Promise<Changed> {
  const title = 'Comparing all sources with each other';
  const jobId = await jobs.queue(compareJob, actor, title, null);
  return { changeId: null, says: `${title} takes a while; Jobs shows how far it is`, jobId };
}

/** @throws Refusal where one of them is not there any more */
async function mergeChange(
  db: Db,
  workspaceId: string,
  into: string,
  others: string[],
  take: Record<string, string> = {},
): Promise<Change> {
  const ids = [into, ...others.filter((o) => o !== into)];
  const found = await findKnown(db, workspaceId, ids);
  const known = ids.flatMap((id) => found.get(id) ?? []);
  if (known.length < ids.length) throw new Refusal('no_such_source');
  const records = known.map((k) => k.record);
  const plan = planMerge(records, known);
  const from = { ...plan.from };
  for (const [field, id] of Object.entries(take)) {
    const i = id === OF_ALL && canCombine(field) ? ALL_OF_THEM : ids.indexOf(id);
    if (i === -1 || !(field in from)) throw new Refusal('invalid', `${field} is not of one of them`);
    from[field] = i;
  }
  const after = mergedRecord(records, from);
  const before = records[0]!;
  const gone = Object.fromEntries(
    Object.keys(before)
      .filter((f) => !(f in after))
      .map((f) => [f, null]),
  );
  const title = withoutMarkup(after.title ?? 'Untitled');
  const ties = await tiesTo(db, workspaceId, ids.slice(1), into);
  return {
    do: 'all',
    says: `Merged ${ids.length} sources into “${title}”`,
    changes: [
      // Merged first: the one that stays may take the citation key of another.
      ...ids.slice(1).map((source): Change => ({ do: 'merge', source, into, marks: [], present: true })),
      edited(into, before, { ...after, ...gone }),
      // Taken back in turn: what was tied is untied first, so that it is seen whose a file is.
      ...ties,
    ],
  };
}

export async function merge(services: Services, actor: Actor, { into, sources, take }: Merge): Promise<Changed> {
  const decide = (tx: Db): Promise<Change> => mergeChange(tx, actor.workspaceId, into, sources, take);
  return answer(await commitDecided(services, actor, [into, ...sources], decide));
}

/** Each a change of its own, so that one can be taken back by itself; the fullest record of a group stands. */
export async function mergeMany(services: Services, actor: Actor, groups: MergeGroup[]): Promise<Merged> {
  const changeIds: string[] = [];
  let skipped = 0;
  for (const { members } of groups) {
    const decide = async (tx: Db): Promise<Change> => {
      const records = await findRecords(tx, actor.workspaceId, members);
      const fullest = members[indexOfMost(members.map((m) => Object.keys(records.get(m) ?? {}).length))]!;
      return mergeChange(tx, actor.workspaceId, fullest, members);
    };
    try {
      const { changeId } = await commitDecided(services, actor, members, decide);
      if (changeId) changeIds.push(changeId);
    } catch (error) {
      // Someone merged one of them meanwhile: this group is looked at again.
      if (!(error instanceof Refusal) || error.code !== 'no_such_source') throw error;
      skipped += 1;
    }
  }
  const n = changeIds.length;
  const says = `Merged ${counted(n, 'group')}; each can be undone by itself`;
  return { changeIds, says: skipped ? `${says}; ${skipped} had changed and were left` : says };
}

const indexOfMost = (values: number[]): number => values.indexOf(Math.max(...values));

/** Says how every two of the sources stand to each other, or takes back what was said of them either way round. */
export async function relate(services: Services, actor: Actor, { sources, as, present }: Relate): Promise<Changed> {
  const said = await saidAmong(services.db, actor.workspaceId, sources, as);
  const known = new Set(said.map((s) => `${s.from} ${s.to}`));
  // What is said already is not said twice.
  const pairs = sources.flatMap((from, i) =>
    sources.slice(i + 1).flatMap((to) => (from === to || known.has(`${from} ${to}`) ? [] : [{ from, to }])),
  );
  const changes = present
    ? pairs.map((pair): Change => ({ do: 'relate', ...pair, as, said: { before: null, after: NOTHING_SAID } }))
    : said.map(({ from, to, note, page }): Change => ({
        do: 'relate',
        from,
        to,
        as,
        said: { before: { note, page }, after: null },
      }));
  const what = as === 'other than' ? 'not the same work' : 'versions of one work';
  const says = `${present ? 'Marked' : 'No longer marked'} ${sources.length} sources as ${what}`;
  return answer(await commit(services, actor, { do: 'all', says, changes }));
}
