/**
 * What became of what searches found: records, the works they are of, and where those went. The numbers are those a methods
 * section gives (found, duplicates removed, screened, included; common practice in systematic reviews).
 */
import { counted, formatNumber } from '../wording/index.ts';

/** A record that was found. */
export interface FoundRecord {
  search: string;
  catalogue: string;
  accession: string;
  /** The work it is of, among those of its search. */
  work: number;
  /** Where it went, when it was gathered. */
  fate?: Fate;
}

/** Of what was gathered. `joined`: to a source that was here. */
export const FATES = ['taken in', 'joined', 'waiting', 'set aside'] as const;
export type Fate = (typeof FATES)[number];

export interface Flow {
  /** Different records, by catalogue in the order they were met. */
  catalogues: { name: string; records: number; works: number; taken: number }[];
  /** How many records the catalogues said they have; those that were not fetched nobody saw. */
  matched: number;
  /** How many were fetched, each once. */
  records: number;
  duplicates: number;
  works: number;
  fates: Record<Fate | 'left', number>;
}

/**
 * @param records over all searches that are counted; one that several searches found counts once
 * @param matched how many records the catalogues said they have, fetched or not
 */
export function flowOf(records: readonly FoundRecord[], matched = 0): Flow {
  const above = new Map<string, string>();
  // What was walked is shortened, so that the next walk is short (path halving, as usual for disjoint sets).
  const root = (key: string): string => {
    let at = key;
    for (let up = above.get(at); up !== undefined; up = above.get(at)) {
      const over = above.get(up);
      if (over !== undefined) above.set(at, over);
      at = over ?? up;
    }
    return at;
  };
  // A record, and the work of a search it was folded into, are one work over all searches.
  for (const r of records) {
    const [a, b] = [root(recordKey(r)), root(`work ${r.search} ${r.work}`)];
    if (a !== b) above.set(a, b);
  }
  const fateOf = new Map<string, Fate>();
  const seen = new Map<string, { catalogue: string; work: string }>();
  for (const r of records) {
    const work = root(recordKey(r));
    seen.set(recordKey(r), { catalogue: r.catalogue, work });
    const known = fateOf.get(work);
    if (r.fate && (!known || FATES.indexOf(r.fate) < FATES.indexOf(known))) fateOf.set(work, r.fate);
  }
  const works = new Set([...seen.values()].map((s) => s.work));
  const ofCatalogue = new Map<string, string[]>(records.map((r) => [r.catalogue, []]));
  for (const { catalogue, work } of seen.values()) ofCatalogue.get(catalogue)!.push(work);
  const fates = { 'taken in': 0, joined: 0, waiting: 0, 'set aside': 0, left: 0 };
  for (const work of works) fates[fateOf.get(work) ?? 'left'] += 1;
  return {
    catalogues: [...ofCatalogue].map(([name, own]) => {
      const of = new Set(own);
      return {
        name,
        records: own.length,
        works: of.size,
        taken: [...of].filter((w) => ['taken in', 'joined'].includes(fateOf.get(w) ?? '')).length,
      };
    }),
    matched: Math.max(matched, seen.size),
    records: seen.size,
    duplicates: seen.size - works.size,
    works: works.size,
    fates,
  };
}

const recordKey = (r: FoundRecord): string => `record ${r.catalogue} ${r.accession}`;

/** The numbers as a methods section has them. */
export function flowInWords(flow: Flow, searches: number, from: string, to: string): string {
  const of = flow.catalogues.map((c) => `${c.name} (${counted(c.records, 'record')})`);
  const where = of.length > 1 ? `${of.slice(0, -1).join(', ')} and ${of.at(-1)}` : (of[0] ?? 'no catalogue');
  const { fates } = flow;
  const included = fates['taken in'] + fates.joined;
  const rest = [
    fates.waiting ? `${counted(fates.waiting, 'work')} not yet decided on` : '',
    fates['set aside'] ? `${counted(fates['set aside'], 'work')} set aside after reading` : '',
    fates.left ? `${counted(fates.left, 'work')} not gathered` : '',
  ].filter(Boolean);
  return `${counted(searches, 'search', 'searches')} between ${from} and ${to} in ${where}. ${counted(flow.matched, 'record')} found${flow.matched > flow.records ? `, of which ${formatNumber(flow.records)} ${flow.records === 1 ? 'was' : 'were'} fetched` : ''}; ${counted(flow.duplicates, 'duplicate')} removed; ${counted(flow.works, 'work')} screened; ${counted(included, 'work')} included${fates.joined ? `, of which ${formatNumber(fates.joined)} were here already` : ''}${rest.length ? `; ${rest.join('; ')}` : ''}.`;
}
