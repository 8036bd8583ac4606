/** All records of a workspace, compared with each other and looked over. */
import type { GroupClass } from '@pandecta/contract';
import { CERTAIN, decide, matchSeen, reasonsOf, see, standingIn, type Reason } from '@pandecta/core/matching';
import { englishWords } from '@pandecta/core/english';
import { amongOf, inCase, proof, usesByKind, type Finding, type TitleCasing, type View } from '@pandecta/core/proofing';
import type { SourceRecord } from '@pandecta/core/source';
import { citerOf } from './citers.ts';

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

/** @param apart pairs a person decided, by their places */
export function findDuplicates({
  records,
  apart,
}: {
  records: SourceRecord[];
  apart: [number, number][];
}): FoundGroup[] {
  const seen = records.map(see);
  const decided = new Set(apart.flatMap(([a, b]) => [`${a} ${b}`, `${b} ${a}`]));
  const matched = matchSeen(seen, { apart: (a, b) => decided.has(`${a} ${b}`) });
  const { clusters, clusterOf, pairs, rarity } = matched;
  const versions = (members: number[]): boolean => {
    const forms = new Set(members.map((m) => seen[m]!.form).filter((f) => f !== 'any'));
    const editions = new Set(members.flatMap((m) => seen[m]!.edition ?? []));
    return forms.size > 1 || editions.size > 1;
  };
  const groups = clusters
    .filter((c) => c.length > 1)
    .map((members): FoundGroup => {
      // As sure as the member one is least sure of.
      const standings = members.map((m) => standingIn(seen, matched, m)!);
      const least = standings.reduce((x, y) => (x.probability <= y.probability ? x : y));
      const sure = least.probability;
      const asVersions = versions(members);
      const of = sure >= CERTAIN && !asVersions ? 'certain' : 'likely';
      return { members, probability: sure, class: of, versions: asVersions, reasons: reasonsOf(least) };
    });
  // What was said of two holds for the copies of each: they are not asked about again.
  const told = new Set(
    apart.flatMap(([a, b]) => [`${clusterOf[a]} ${clusterOf[b]}`, `${clusterOf[b]} ${clusterOf[a]}`]),
  );
  const doubted = pairs
    .filter(({ a, b }) => clusterOf[a] !== clusterOf[b] && !told.has(`${clusterOf[a]} ${clusterOf[b]}`))
    .slice(0, MOST_DOUBTED)
    .map(({ a, b, probability }): FoundGroup => ({
      members: [a, b],
      probability,
      class: 'look closely',
      versions: versions([a, b]),
      reasons: reasonsOf(decide(seen[a]!, seen[b]!, rarity)),
    }));
  return [...groups.sort((x, y) => y.probability - x.probability), ...doubted];
}

/** What is known of a source beside its record. */
type Beside = Pick<View, 'files' | 'versions'>;

/** How records are looked at. */
interface As {
  style: string;
  folder: string;
  /** The day it is, as "2026-11-28". */
  today: string;
  thisYear: number;
  /** Words that keep their form. */
  keep: string[];
}

export function proofAll({
  records,
  style,
  folder,
  thisYear,
  keep,
  today,
  beside,
}: As & { records: SourceRecord[]; beside: (Beside | undefined)[] }): (Finding & { at: number })[] {
  const among = amongOf(records);
  const usesFor = usesByKind(citerOf(folder, style));
  const english = englishWords();
  return records.flatMap((record, at) =>
    proof({ record, among, english, keep, uses: usesFor(record.type), today, thisYear, ...beside[at] }).map((f) => ({
      at,
      ...f,
    })),
  );
}

/** A record by itself. */
export const proofOne = ({
  record,
  style,
  folder,
  beside,
  ...as
}: As & { record: SourceRecord; beside?: Beside | undefined }): Finding[] =>
  proof({ record, english: englishWords(), uses: usesByKind(citerOf(folder, style))(record.type), ...as, ...beside });

/** Titles in another case; which words are names, the records tell. */
export function casesOf({
  titles,
  records,
  to,
  keep,
}: {
  titles: { title: string; language?: string | undefined }[];
  records: SourceRecord[];
  to: TitleCasing;
  keep: string[];
}): string[] {
  const { isProper } = amongOf(records);
  return titles.map(({ title, language }) => inCase(title, to, { isProper, english: englishWords(), keep, language }));
}
