/** Groups of sources that may be one work, from the pairs that were found. */
import type { SourceRecord } from '@pandecta/core/source';
import type { Services } from '../services.ts';
import type { FoundGroup } from '../workers/matching.ts';
import { countUncompared, findPairs, type LikelyPair } from './compare.ts';
import { findRecords } from '../records/store.ts';
import { findDecided } from './store.ts';

/** So many that wait to be compared are waited for by who asks. */
const WAITED_FOR = 400;

/** What was just written is compared first, unless it is very much. */
export async function catchUp({ db, followers }: Services, workspaceId: string): Promise<void> {
  const waiting = await countUncompared(db, workspaceId);
  if (waiting && waiting <= WAITED_FOR) await followers.catchUp('compare_queue', workspaceId);
}

export interface Group extends Omit<FoundGroup, 'members'> {
  /** With their records, as they are now. */
  members: { id: string; record: SourceRecord }[];
}

/** @param among only what is among these sources */
export async function groupsIn({ db, workers }: Services, workspaceId: string, among?: string[]): Promise<Group[]> {
  const likely = await findPairs(db, workspaceId, among);
  const found = await findRecords(db, workspaceId, [...new Set(likely.flatMap((p) => [p.of, p.other]))]);
  const live = [...found].map(([id, record]) => ({ id, record })).sort((a, b) => (a.id < b.id ? -1 : 1));
  const at = new Map(live.map(({ id }, i) => [id, i]));
  const known = likely.filter((p) => at.has(p.of) && at.has(p.other));
  const places = (p: LikelyPair): [number, number] => [at.get(p.of)!, at.get(p.other)!];
  const groups = await workers.run('findDuplicates', {
    records: live.map((l) => l.record),
    pairs: known.map(places),
    sameFile: known.filter((p) => p.sameFile).map(places),
    apart: await findDecided(db, workspaceId, [...at.keys()]),
  });
  return groups.map((g) => ({ ...g, members: g.members.map((m) => live[m]!) }));
}
