/** Records compared with each other: those that come, those that are likely one work, or all of a workspace. */
import type { MessagePort } from 'node:worker_threads';
import type { GroupClass } from '@pandecta/contract';
import { CERTAIN, clustersOf, decide, Folding, matchAll, meetingKeys, reasonsOf, seenOf, standingIn, weigh, withSameFile, WORTH_A_LOOK, type Decision, type Pair, type Reason } from '@pandecta/core/matching'; // prettier-ignore
import type { SourceRecord } from '@pandecta/core/source';
import { receiveRecords } from './records.ts';

/** The keys by which each record meets others. */
export const keysToMeet = (records: SourceRecord[]): number[][] => records.map(meetingKeys);

/** The works records are of, among those that came before them; by their numbers. */
export function fold({
  before,
  records,
}: {
  before: { record: SourceRecord; work: number }[];
  records: SourceRecord[];
}): number[] {
  const folding = new Folding();
  for (const { record, work } of before) folding.put(record, work);
  return records.map((record) => folding.add(record));
}

/** How sure it is of pairs of records, by their places. */
export const weighPairs = ({ records, pairs }: { records: SourceRecord[]; pairs: [number, number][] }): Float64Array =>
  weigh(records, pairs);

/** What the thread that compares all records says on its way. */
export type CompareAllSays = { done: number; total: number };

/** All records of a workspace, which come through the port, compared with each other. */
export async function compareAll(
  port: MessagePort,
): Promise<{ a: Int32Array; b: Int32Array; probability: Float64Array }> {
  const { records } = await receiveRecords(port);
  const tell = (done: number, total: number): void => port.postMessage({ done, total } satisfies CompareAllSays);
  const { pairs } = matchAll(records, { progress: tell });
  port.close();
  return {
    a: Int32Array.from(pairs, (p) => p.a),
    b: Int32Array.from(pairs, (p) => p.b),
    probability: Float64Array.from(pairs, (p) => p.probability),
  };
}

export interface FoundGroup {
  /** Places among the records. */
  members: number[];
  probability: number;
  class: GroupClass;
  versions: boolean;
  reasons: Reason[];
}

/** Those that were not put together and are worth a look. */
const MOST_DOUBTED = 500;

type Places = [a: number, b: number];

/** Of pairs that are likely, decided anew as their records stand, the groups that are one work; and those that are doubted. */
export function findDuplicates({
  records,
  pairs: likely,
  sameFile,
  apart,
}: {
  records: SourceRecord[];
  pairs: Places[];
  /** Those of the pairs that hold the very same file. */
  sameFile: Places[];
  /** Pairs a person decided. */
  apart: Places[];
}): FoundGroup[] {
  const seen = seenOf(records);
  const [decided, ofFile] = [bothWays(apart), bothWays(sameFile)];
  const by = (a: number, b: number): Decision => {
    const decision = decide(seen(a), seen(b));
    return ofFile.has(`${a} ${b}`) ? withSameFile(decision) : decision;
  };
  const pairs = likely
    .filter(([a, b]) => !decided.has(`${a} ${b}`))
    .map(([a, b]): Pair => ({ a, b, probability: by(a, b).probability }))
    .filter((p) => p.probability >= WORTH_A_LOOK)
    .sort((x, y) => y.probability - x.probability || x.a - y.a || x.b - y.b);
  const found = clustersOf(records.length, by, pairs, (a, b) => decided.has(`${a} ${b}`));
  const { clusters, clusterOf } = found;
  const versions = (members: number[]): boolean => {
    const forms = new Set(members.map((m) => seen(m).form).filter((f) => f !== 'any'));
    const editions = new Set(members.flatMap((m) => seen(m).edition ?? []));
    return forms.size > 1 || editions.size > 1;
  };
  const why = (members: number[], decision: Decision): Reason[] => [
    ...(members.some((m) => members.some((o) => ofFile.has(`${m} ${o}`))) ? [SAME_FILE] : []),
    ...reasonsOf(decision),
  ];
  const groups = clusters
    .filter((c) => c.length > 1)
    .map((members): FoundGroup => {
      // As sure as the member one is least sure of.
      const standings = members.map((m) => standingIn({ ...found, by }, m)!);
      const least = standings.reduce((x, y) => (x.probability <= y.probability ? x : y));
      const sure = least.probability;
      const asVersions = versions(members);
      const of = sure >= CERTAIN && !asVersions ? 'certain' : 'likely';
      return { members, probability: sure, class: of, versions: asVersions, reasons: why(members, least) };
    });
  // What was said of two holds for the copies of each: they are not asked about again.
  const told = bothWays(apart.map(([a, b]): Places => [clusterOf[a]!, clusterOf[b]!]));
  const doubted = pairs
    .filter(({ a, b }) => clusterOf[a] !== clusterOf[b] && !told.has(`${clusterOf[a]} ${clusterOf[b]}`))
    .slice(0, MOST_DOUBTED)
    .map(({ a, b, probability }): FoundGroup => ({
      members: [a, b],
      probability,
      class: 'look closely',
      versions: versions([a, b]),
      reasons: why([a, b], by(a, b)),
    }));
  return [...groups.sort((x, y) => y.probability - x.probability), ...doubted];
}

const SAME_FILE: Reason = { field: 'file', says: 'the same file', for: true };
const bothWays = (pairs: Places[]): Set<string> => new Set(pairs.flatMap(([a, b]) => [`${a} ${b}`, `${b} ${a}`]));
