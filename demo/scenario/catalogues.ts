/**
 * Three invented catalogues that overlap, each with the faults such catalogues have: capitals, initials, missing DOIs,
 * abbreviations, entities that were not undone, years that are one off.
 */
import type { SourceRecord } from '@pandecta/core/source';
import { Chance } from './random.ts';
import { WORKS } from './works.ts';
import { JOURNALS } from './words.ts';

export interface Entry {
  /** Its number in the catalogue. */
  accession: string;
  record: SourceRecord;
  subjects: string[];
  day: number;
  hasPdf: boolean;
  /** The work it is of: what folding must find. */
  work: number;
}

export const CATALOGUES = ['shoreline', 'northmere', 'registry'] as const;
export type CatalogueName = (typeof CATALOGUES)[number];

/** How much of all works each has, and how often each fault is in it. */
const MAKE: Record<CatalogueName, { share: number; seed: number; lead: string; faults: Record<string, number> }> = {
  shoreline: {
    share: 0.62,
    seed: 11,
    lead: 'SI',
    faults: { capitals: 0.08, initials: 0.5, noDoi: 0.12, short: 0.3, year: 0.02 },
  },
  northmere: {
    share: 0.48,
    seed: 23,
    lead: 'NC',
    faults: { capitals: 0.02, initials: 0.1, noDoi: 0.7, entity: 0.1, year: 0.03 },
  },
  registry: {
    share: 0.55,
    seed: 37,
    lead: 'R',
    faults: { initials: 0.2, subtitle: 0.1, noAuthor: 0.03, entity: 0.04 },
  },
};

function faulty(record: SourceRecord, faults: Record<string, number>, chance: Chance): SourceRecord {
  const out: SourceRecord = { ...record };
  const strikes = (fault: string): boolean => chance.odds(faults[fault] ?? 0);
  if (strikes('capitals')) out.title = out.title!.toUpperCase();
  if (strikes('initials') && out.author)
    out.author = out.author.map((n) =>
      n.given ? { ...n, given: n.given.replace(/(\p{L})\p{L}*/gu, '$1.').replace(/\.-/g, '.-') } : n,
    );
  if (strikes('noDoi')) delete out.DOI;
  if (strikes('short')) {
    const short = JOURNALS.find(([j]) => j === out['container-title'])?.[1];
    if (short) out['container-title'] = short;
  }
  if (strikes('entity')) out.title = out.title!.replace(/ and /, ' &amp; ').replace(/’/g, '&#8217;');
  if (strikes('subtitle')) out.title = out.title!.split(':')[0]!;
  if (strikes('noAuthor')) delete out.author;
  const year = out.issued?.['date-parts']?.[0]?.[0];
  if (strikes('year') && year) out.issued = { 'date-parts': [[year + 1]] };
  return out;
}

function make(name: CatalogueName): Entry[] {
  const { share, seed, lead, faults } = MAKE[name];
  const chance = new Chance(seed);
  return WORKS.flatMap(({ record, subjects, day, hasPdf }, work) => {
    // The registry knows what has a DOI, the Northmere Catalogue books and cases before all.
    const fits = name === 'registry' ? Boolean(record.DOI) : name === 'northmere' && record.type !== 'article-journal';
    if (!(fits ? chance.odds(0.9) : chance.odds(share))) return [];
    return [
      {
        accession: `${lead}${String(100_000 + work * 7)}`,
        record: faulty(record, faults, chance),
        subjects,
        day,
        hasPdf,
        work,
      },
    ];
  });
}

const made = new Map<CatalogueName, Entry[]>();

/** Made when it is first asked for. */
export function entriesOf(name: CatalogueName): Entry[] {
  const known = made.get(name);
  if (known) return known;
  const entries = make(name);
  made.set(name, entries);
  return entries;
}
