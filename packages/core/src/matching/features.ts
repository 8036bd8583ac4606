/** What a pair of records says for and against being one work, as numbers that are weighed, and as reasons in words. */
import { containers, type Says } from './containers.ts';
import { comparePeople, type PeopleEvidence } from './people.ts';
import type { Seen } from './seen.ts';
import { compareTitles, type TitleEvidence } from './titles.ts';

export const FEATURES = [
  'bias',
  'title least',
  'title most',
  'title exact',
  'title rare',
  'title subset',
  'title missing',
  'title other words',
  'title short',
  'numbers both',
  'numbers one',
  'notice',
  'people same',
  'people part',
  'people none',
  'people other given',
  'people missing',
  'people first',
  'year same',
  'year one',
  'year few',
  'year far',
  'year missing',
  'container same',
  'container like',
  'container other',
  'volume same',
  'volume other',
  'issue same',
  'issue other',
  'first same',
  'first other',
  'last same',
  'place same',
  'place other',
  'doi same',
  'doi other',
  'isbn same',
  'isbn other',
  'id same',
  'id other',
  'number same',
  'number other',
  'edition same',
  'edition other',
  'publisher same',
  'publisher other',
  'form same',
  'form other',
  'day same',
  'day other',
  'court same',
  'court other',
  'shelf same',
  'shelf other',
  'url same',
  'exact and people',
  'exact and year far',
  'whole',
] as const;
export type Feature = (typeof FEATURES)[number];
const AT = Object.fromEntries(FEATURES.map((f, i) => [f, i])) as Record<Feature, number>;

/** The fields something is said of, in the order they are told. */
export const TOLD = ['issued', 'container-title', 'volume', 'issue', 'page', 'number', 'edition', 'DOI', 'ISBN', 'PMID', 'publisher', 'day', 'authority', 'archive_location', 'URL'] as const; // prettier-ignore
export type SaysOf = Partial<Record<(typeof TOLD)[number], Says>>;

export interface Compared {
  values: Float64Array;
  title: TitleEvidence | undefined;
  people: PeopleEvidence;
  /** What is said of a field: the same, or another. */
  says: SaysOf;
}

const told = (a: string | undefined, b: string | undefined): Says =>
  a === undefined || b === undefined ? undefined : a === b ? 'same' : 'other';
const shared = (a: readonly string[], b: readonly string[]): Says =>
  !a.length || !b.length ? undefined : a.some((x) => b.includes(x)) ? 'same' : 'other';

/** Kinds that are told apart, and may not be mistaken for each other. */
function forms(a: Seen, b: Seen): Says {
  if (a.form === 'any' || b.form === 'any') return undefined;
  return a.form === b.form ? 'same' : 'other';
}

/** @param values where the numbers are written: one's own where many pairs are decided one after another */
export function features(a: Seen, b: Seen, values: Float64Array = new Float64Array(FEATURES.length)): Compared {
  values.fill(0);
  const says: SaysOf = {};
  const both = (same: Feature, other: Feature, s: Says): void => {
    if (s === 'same') values[AT[same]] = 1;
    else if (s === 'other') values[AT[other]] = 1;
  };
  values[AT['bias']] = 1;
  const title = compareTitles(a, b);
  if (title) {
    values[AT['title least']] = title.least;
    values[AT['title most']] = title.most;
    values[AT['title exact']] = Number(title.exact);
    values[AT['title rare']] = title.least > 0.85 ? Math.min(1.5, title.bits / 15) : 0;
    values[AT['title subset']] = Number(title.subset);
    values[AT['title other words']] = Math.min(1, title.other / 6);
    values[AT['title short']] = Number(title.bits < 6);
    values[AT['numbers both']] = Number(title.numbers === 2);
    values[AT['numbers one']] = Number(title.numbers === 1);
    values[AT['notice']] = Number(title.notice);
  } else values[AT['title missing']] = 1;

  const people = comparePeople(a.people, b.people);
  if (people.share === undefined) values[AT['people missing']] = 1;
  else {
    values[AT['people same']] = Number(people.share === 1 && (people.sameLength || a.others || b.others));
    values[AT['people part']] = people.share;
    values[AT['people none']] = Number(people.share === 0);
    values[AT['people first']] = Number(people.firstSame);
  }
  values[AT['people other given']] = Number(people.otherGiven);

  const apart = a.year === undefined || b.year === undefined ? undefined : Math.abs(a.year - b.year);
  if (apart === undefined) values[AT['year missing']] = 1;
  else values[AT[apart === 0 ? 'year same' : apart === 1 ? 'year one' : apart <= 3 ? 'year few' : 'year far']] = 1;
  if (apart !== undefined) says.issued = apart === 0 ? 'same' : apart === 1 ? 'like' : 'other';

  const container = (says['container-title'] = containers(a.container, b.container));
  values[AT['container same']] = Number(container === 'same');
  values[AT['container like']] = Number(container === 'like');
  values[AT['container other']] = Number(container === 'other' && forms(a, b) !== 'other');

  const volume = (says.volume = told(a.volume, b.volume));
  both('volume same', 'volume other', volume);
  const issue = (says.issue = told(a.issue, b.issue));
  both('issue same', 'issue other', issue);
  const first = (says.page = told(a.first, b.first));
  both('first same', 'first other', first);
  values[AT['last same']] = Number(first === 'same' && a.last !== undefined && a.last === b.last);
  values[AT['place same']] = Number(volume === 'same' && first === 'same');
  values[AT['place other']] = Number(volume === 'other' && first === 'other');
  const number = (says.number = told(a.number, b.number));
  both('number same', 'number other', number);
  const edition = (says.edition = a.edition !== b.edition && (a.edition === undefined || b.edition === undefined) ? oneEdition(a.edition ?? b.edition) : told(a.edition, b.edition)); // prettier-ignore
  both('edition same', 'edition other', edition);

  const doi = (says.DOI = shared(a.dois, b.dois));
  values[AT['doi same']] = Number(doi === 'same');
  values[AT['doi other']] = Number(doi === 'other');
  // The ISBN of a book is that of all its chapters.
  const isbn = (says.ISBN = a.form === 'chapter' || b.form === 'chapter' || a.form === 'conference' || b.form === 'conference' ? undefined : shared(a.isbns, b.isbns)); // prettier-ignore
  values[AT['isbn same']] = Number(isbn === 'same');
  values[AT['isbn other']] = Number(isbn === 'other');
  const id = (says.PMID = sameIds(a.ids, b.ids));
  values[AT['id same']] = Number(id === 'same');
  values[AT['id other']] = Number(id === 'other');

  const publisher = (says.publisher = containers(a.publisher, b.publisher));
  values[AT['publisher same']] = Number(publisher === 'same' || publisher === 'like');
  values[AT['publisher other']] = Number(publisher === 'other');
  const form = forms(a, b);
  values[AT['form same']] = Number(form === 'same');
  values[AT['form other']] = Number(form === 'other');
  const day = (says.day = told(a.day, b.day));
  values[AT['day same']] = Number(day === 'same');
  values[AT['day other']] = Number(day === 'other');
  const court = (says.authority = containers(a.court, b.court));
  values[AT['court same']] = Number(court === 'same' || court === 'like');
  values[AT['court other']] = Number(court === 'other');
  const shelf = (says.archive_location = told(a.shelf, b.shelf));
  values[AT['shelf same']] = Number(shelf === 'same');
  values[AT['shelf other']] = Number(shelf === 'other');
  values[AT['url same']] = Number((says.URL = told(a.url, b.url)) === 'same');

  const close = title !== undefined && (title.exact || title.least > 0.93);
  values[AT['exact and people']] = Number(close && people.share === 1);
  values[AT['exact and year far']] = Number(close && apart !== undefined && apart > 1);
  values[AT['whole']] = Number(
    close && people.share === 1 && apart !== undefined && apart <= 1 && volume !== 'other' && first !== 'other',
  );
  return { values, title, people, says };
}

/** A first edition goes unsaid; any other does not. */
const oneEdition = (said: string | undefined): Says => (said === undefined || said === '1' ? undefined : 'other');

function sameIds(a: readonly string[], b: readonly string[]): Says {
  if (a.some((x) => b.includes(x))) return 'same';
  const kindOf = (x: string): string => x.slice(0, x.indexOf(':'));
  return a.some((x) => b.some((y) => kindOf(x) === kindOf(y))) ? 'other' : undefined;
}
