/** How sure it is that two records are of one work, and in words why. */
import { features, FEATURES, TOLD, type Compared } from './features.ts';
import type { Seen } from './seen.ts';
import { WEIGHTS } from './weights.ts';

/** One thing that speaks for or against. */
export interface Reason {
  field: string;
  /** In words: "same DOI", "other year". */
  says: string;
  for: boolean;
}

export interface Decision {
  /** From 0 to 1. */
  probability: number;
  compared: Compared;
  /** An explicit contradiction that stands whatever else agrees. */
  veto: string | undefined;
}

/** From here on two records are of one work for certain (docs/measurements.md). */
export const CERTAIN = 0.995;
const LEAST = 1e-6;
/** What a contradiction leaves. */
const VETOED = 0.02;
const EDITION = 'other edition';
/** Two editions are versions of one work: proposed, never put together. */
const VERSION = 0.2;
const DOUBTED = 0.3;
const IDENTIFIED = 0.9997;
/** What lacks a fact that would tell it: a person is asked. */
const ASKED = 0.4;

/** @param values see `features` */
export function decide(one: Seen, other: Seen, values?: Float64Array): Decision {
  // A pair has no order: what is compared word by word begins with the same one of them, whichever is named first.
  const [a, b] = one.order <= other.order ? [one, other] : [other, one];
  const compared = features(a, b, values);
  let sum = 0;
  for (let i = 0; i < FEATURES.length; i += 1) sum += compared.values[i]! * WEIGHTS[i]!;
  const weighed = Math.min(1 - LEAST, Math.max(LEAST, 1 / (1 + Math.exp(-sum))));
  const veto = vetoOf(a, b, compared);
  const most = veto === EDITION ? VERSION : veto ? VETOED : lacksEvidence(a, b, compared) ? ASKED : 1;
  const least = veto ? 0 : identified(compared) ? IDENTIFIED : samePlace(compared) ? DOUBTED : 0;
  return { probability: Math.min(Math.max(weighed, least), most), compared, veto };
}

/** Two that hold the very same file are one work unless the record says otherwise: a file may hold several. */
export function withSameFile(decision: Decision): Decision {
  const { probability, veto, compared } = decision;
  const alike = !compared.title || compared.title.least >= ALIKE;
  return veto ? decision : { ...decision, probability: Math.max(probability, alike ? SAME_FILE : ASKED) };
}
const SAME_FILE = 0.97;
const ALIKE = 0.5;

/** An identifier of the work itself, and nothing of it that denies it. */
function identified({ title, people, says }: Compared): boolean {
  if (says.DOI !== 'same' && says.PMID !== 'same') return false;
  return title === undefined || title.least > 0.6 || (people.share ?? 0) >= 0.5;
}

/** All but the title says one place: a translated title, or one that was mistaken. */
const samePlace = ({ people, says }: Compared): boolean =>
  people.share === 1 && says.volume === 'same' && says.page === 'same' && says.issued === 'same';

/**
 * Letters to one person, and the like, have one title: without the day, or a place in an archive, nothing tells them apart.
 */
function lacksEvidence(a: Seen, b: Seen, { says, title }: Compared): boolean {
  // Two pieces of one page stand under one address, volume and page number.
  const identified = says.DOI === 'same' || says.PMID === 'same';
  if (title && title.least < 0.35 && !identified) return true;
  const letters = a.form === 'letter' || b.form === 'letter';
  return letters && says.day !== 'same' && says.archive_location !== 'same' && says.URL !== 'same';
}

/**
 * Contradictions that are explicit: a record would have to be wrong in what it says outright. A shared identifier of the
 * work itself overrides those of the title.
 */
function vetoOf(a: Seen, b: Seen, { title, people, says }: Compared): string | undefined {
  const identified = says.DOI === 'same' || says.PMID === 'same';
  if (title && !identified) {
    if (title.notice) return 'one is a notice of the other';
    if (title.numbers === 2 && title.least > 0.5) return 'other number or part';
    if (title.numbers === 1 && !title.subset && title.most > 0.6) return 'a number or part in one alone';
  }
  if (!identified && people.share === 0 && people.otherGiven) return 'another person of the name';
  if (says.edition === 'other' && says.ISBN !== 'same') return EDITION;
  const letters = a.form === 'letter' || b.form === 'letter' || (a.form === 'web' && b.form === 'web');
  if (letters && says.day === 'other') return 'other day';
  if (a.form === 'case' && b.form === 'case') {
    if (says.number === 'other') return 'other docket number';
    if (says.issued === 'other') return 'other year';
    if (says.authority === 'other' && says.page !== 'same') return 'other court';
  }
  if ((a.form === 'review') !== (b.form === 'review') && !identified && a.form !== 'any' && b.form !== 'any')
    return 'one is a review';
  const serial = (a.form === 'report' || a.form === 'book' || a.form === 'any') && (b.form === 'report' || b.form === 'book' || b.form === 'any'); // prettier-ignore
  if (!identified && serial && says.number === 'other' && says.issued !== 'same') return 'other number and year'; // prettier-ignore
  // Volumes of one set share its ISBN; those of a series may stand under either number.
  if (a.form === 'book' && b.form === 'book' && says.volume === 'other') return 'other volume';
  if (
    says.volume === 'other' &&
    says.page === 'other' &&
    says['container-title'] !== 'other' &&
    !identified &&
    a.form === b.form
  )
    // prettier-ignore
    return 'other volume and pages';
  return undefined;
}

const IN_WORDS: Record<string, string> = {
  DOI: 'DOI',
  ISBN: 'ISBN',
  PMID: 'number',
  issued: 'year',
  'container-title': 'journal or book',
  volume: 'volume',
  issue: 'issue',
  page: 'first page',
  number: 'number',
  edition: 'edition',
  publisher: 'publisher',
  authority: 'court',
  archive_location: 'place in the archive',
  URL: 'address',
};

/** In words, what weighs most first. */
export function reasonsOf({ compared, veto }: Decision): Reason[] {
  const { title, people, says } = compared;
  const out: Reason[] = [];
  const add = (field: string, text: string, isFor: boolean): void => void out.push({ field, says: text, for: isFor });
  if (veto) add('title', veto, false);
  for (const field of ['DOI', 'ISBN', 'PMID'] as const) {
    const s = says[field];
    if (s) add(field, s === 'same' ? `same ${IN_WORDS[field]}` : `other ${IN_WORDS[field]}`, s === 'same');
  }
  if (title) {
    if (title.exact) add('title', 'same title', true);
    else if (title.subset) add('title', 'same title but for the subtitle', true);
    else if (title.least > 0.8) add('title', `title ${Math.round(title.least * 100)} % alike`, true);
    else add('title', 'other title', false);
  }
  if (people.share !== undefined) {
    if (people.share === 1) add('author', people.sameLength ? 'same authors' : 'same first author', true);
    else if (people.share > 0) add('author', 'some of the authors', people.firstSame);
    else add('author', people.otherGiven ? 'other given names' : 'other authors', false);
  }
  for (const field of TOLD) {
    const s = says[field];
    if (!s || !IN_WORDS[field] || field === 'DOI' || field === 'ISBN' || field === 'PMID') continue;
    if (field === 'issued' && s === 'like') add(field, 'a year apart', false);
    else if (s === 'other') add(field, `other ${IN_WORDS[field]}`, false);
    else add(field, `same ${IN_WORDS[field]}`, true);
  }
  return out;
}
