/** What a pair of records says for and against being one work, as numbers that are weighed, and as reasons in words. */
import { containers, type Says } from './containers.ts';
import { comparePeople, type PeopleEvidence } from './people.ts';
import type { Seen } from './seen.ts';
import { byLength, compareTitles, type Rarity, type TitleEvidence } from './titles.ts';

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

export interface Compared {
  values: Float64Array;
  title: TitleEvidence | undefined;
  people: PeopleEvidence;
  /** What is said of a field: the same, or another. */
  says: Map<string, 'same' | 'like' | 'other'>;
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

export function features(a: Seen, b: Seen, rarity: Rarity = byLength): Compared {
  const values = new Float64Array(FEATURES.length);
  const says = new Map<string, 'same' | 'like' | 'other'>();
  const set = (f: Feature, value: number | boolean): void => void (values[AT[f]] = Number(value));
  const tell = (field: string, s: Says): Says => {
    if (s) says.set(field, s);
    return s;
  };
  set('bias', 1);
  const title = compareTitles(a, b, rarity);
  if (title) {
    set('title least', title.least);
    set('title most', title.most);
    set('title exact', title.exact);
    set('title rare', title.least > 0.85 ? Math.min(1.5, title.bits / 15) : 0);
    set('title subset', title.subset);
    set('title other words', Math.min(1, title.other / 6));
    set('title short', title.bits < 6);
    set('numbers both', title.numbers === 2);
    set('numbers one', title.numbers === 1);
    set('notice', title.notice);
  } else set('title missing', true);

  const people = comparePeople(a.people, b.people);
  if (people.share === undefined) set('people missing', true);
  else {
    set('people same', people.share === 1 && (people.sameLength || a.others || b.others));
    set('people part', people.share);
    set('people none', people.share === 0);
    set('people first', people.firstSame);
  }
  set('people other given', people.otherGiven);

  const apart = a.year === undefined || b.year === undefined ? undefined : Math.abs(a.year - b.year);
  if (apart === undefined) set('year missing', true);
  else set(apart === 0 ? 'year same' : apart === 1 ? 'year one' : apart <= 3 ? 'year few' : 'year far', true);
  if (apart !== undefined) tell('issued', apart === 0 ? 'same' : apart === 1 ? 'like' : 'other');

  const container = tell('container-title', containers(a.container, b.container));
  set('container same', container === 'same');
  set('container like', container === 'like');
  set('container other', container === 'other' && forms(a, b) !== 'other');

  const pair = (field: string, name: 'volume' | 'issue' | 'first' | 'number' | 'edition', s: Says): Says => {
    set(`${name} same`, s === 'same');
    set(`${name} other`, s === 'other');
    return tell(field, s);
  };
  const volume = pair('volume', 'volume', told(a.volume, b.volume));
  pair('issue', 'issue', told(a.issue, b.issue));
  const first = pair('page', 'first', told(a.first, b.first));
  set('last same', first === 'same' && a.last !== undefined && a.last === b.last);
  set('place same', volume === 'same' && first === 'same');
  set('place other', volume === 'other' && first === 'other');
  pair('number', 'number', told(a.number, b.number));
  pair('edition', 'edition', a.edition !== b.edition && (a.edition === undefined || b.edition === undefined) ? oneEdition(a.edition ?? b.edition) : told(a.edition, b.edition)); // prettier-ignore

  const doi = tell('DOI', shared(a.dois, b.dois));
  set('doi same', doi === 'same');
  set('doi other', doi === 'other');
  // The ISBN of a book is that of all its chapters.
  const isbn = tell('ISBN', a.form === 'chapter' || b.form === 'chapter' || a.form === 'conference' || b.form === 'conference' ? undefined : shared(a.isbns, b.isbns)); // prettier-ignore
  set('isbn same', isbn === 'same');
  set('isbn other', isbn === 'other');
  const id = tell('PMID', sameIds(a.ids, b.ids));
  set('id same', id === 'same');
  set('id other', id === 'other');

  const publisher = tell('publisher', containers(a.publisher, b.publisher));
  set('publisher same', publisher === 'same' || publisher === 'like');
  set('publisher other', publisher === 'other');
  const form = forms(a, b);
  set('form same', form === 'same');
  set('form other', form === 'other');
  const day = tell('day', told(a.day, b.day));
  set('day same', day === 'same');
  set('day other', day === 'other');
  const court = tell('authority', containers(a.court, b.court));
  set('court same', court === 'same' || court === 'like');
  set('court other', court === 'other');
  const shelf = tell('archive_location', told(a.shelf, b.shelf));
  set('shelf same', shelf === 'same');
  set('shelf other', shelf === 'other');
  set('url same', tell('URL', told(a.url, b.url)) === 'same');

  const close = title !== undefined && (title.exact || title.least > 0.93);
  set('exact and people', close && people.share === 1);
  set('exact and year far', close && apart !== undefined && apart > 1);
  set(
    'whole',
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
