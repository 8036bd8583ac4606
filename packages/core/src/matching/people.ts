/** Names as matching sees them: in whatever order, with initials, particles and accents or without. */
import type { Name } from '../source/index.ts';
import { plainText } from '../repair/index.ts';
import { fold } from '../words/index.ts';
import { nearly } from './near.ts';

export interface Person {
  /** Words of the family name, particles left out, joined: "vanderberg" is "berg" too. */
  family: string;
  /** Words of the given names; one letter where it is an initial. */
  given: string[];
  /** A body, or a name that was not taken apart. */
  whole?: string[];
}

const PARTICLES = new Set(['van', 'von', 'der', 'den', 'de', 'di', 'da', 'del', 'della', 'du', 'la', 'le', 'dos', 'das', 'ter', 'ten', 'zu', 'af', 'el', 'al', 'bin', 'ibn', 'mac', 'mc', 'st', 'jr', 'sr', 'ii', 'iii', 'iv']); // prettier-ignore

const PLAIN = /^[\x00-\x7f]*$/;
function parts(text: string): string[] {
  const folded = fold(plainText(text));
  return folded.match(PLAIN.test(folded) ? /[a-z0-9]+/g : /[\p{L}\p{N}]+/gu) ?? [];
}

export function seePeople(names: readonly Name[]): Person[] {
  return names.slice(0, 60).map(seePerson);
}

function seePerson(name: Name): Person {
  if (name.literal !== undefined && !name.family) {
    const words = parts(name.literal);
    // Two or three words may be a person nobody took apart: the last is the family name, unless a comma says otherwise.
    if (words.length <= 3 && words.length > 0) {
      const inverted = /^([^,]+),\s*(.+)$/.exec(name.literal);
      if (inverted) return { family: parts(inverted[1]!).join(''), given: parts(inverted[2]!), whole: words };
      return { family: words.at(-1)!, given: words.slice(0, -1), whole: words };
    }
    return { family: words.join(''), given: [], whole: words };
  }
  const family = parts(name.family ?? '').filter((w, _, all) => all.length === 1 || !PARTICLES.has(w));
  return {
    family: family.join(''),
    given: initialsApart(parts(name.given ?? '')),
    ...(!name.given && { whole: family }),
  };
}

/** "JR" as it is printed without stops is two initials; "Jo" is a name. */
const initialsApart = (given: string[]): string[] =>
  given.length === 1 && given[0]!.length <= 3 && !/[aeiouy]/.test(given[0]!) ? [...given[0]!] : given;

export type Likeness = 'same' | 'other given' | 'other';

/** Whether two names may be one person's. */
export function alike(a: Person, b: Person): Likeness {
  if (a.whole && b.whole && (a.whole.length > 3 || b.whole.length > 3)) {
    const shared = a.whole.filter((w) => b.whole!.includes(w)).length;
    return shared >= Math.min(a.whole.length, b.whole.length) * 0.7 ? 'same' : 'other';
  }
  if (sameFamily(a.family, b.family)) return givenAgree(a.given, b.given) ? 'same' : 'other given';
  // Family and given name the wrong way round.
  const swapped = (x: Person, y: Person): boolean =>
    x.given.length > 0 && x.given.join('').length > 2 && nearly(x.given.join(''), y.family) && (y.given.length === 0 || nearly(x.family, y.given.join(''))); // prettier-ignore
  return swapped(a, b) || swapped(b, a) ? 'same' : 'other';
}

function sameFamily(a: string, b: string): boolean {
  if (!a || !b) return false;
  if (nearly(a, b)) return true;
  // A double name of which one half is given, or a particle written on to it.
  const [short, long] = a.length < b.length ? [a, b] : [b, a];
  return short.length >= 4 && (long.endsWith(short) || long.startsWith(short));
}

/** Nothing said agrees with anything; an initial with any name that begins so. */
function givenAgree(a: string[], b: string[]): boolean {
  if (!a.length || !b.length) return true;
  const [x, y] = [a[0]!, b[0]!];
  const begins = (s: string, t: string): boolean => t.startsWith(s) || (s.length > 1 && t.length > 1 && nearly(s, t));
  if (begins(x, y) || begins(y, x)) return true;
  // A middle name one goes by.
  return a.some((s) => b.some((t) => s.length > 1 && t.length > 1 && nearly(s, t)));
}

export interface PeopleEvidence {
  /** Of the shorter list, the share that is in the other; undefined where either names nobody. */
  share: number | undefined;
  firstSame: boolean;
  /** A family name that is in both with given names that cannot be one person's. */
  otherGiven: boolean;
  sameLength: boolean;
}

export function comparePeople(a: readonly Person[], b: readonly Person[]): PeopleEvidence {
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  if (!short.length) return { share: undefined, firstSame: false, otherGiven: false, sameLength: false };
  const used = new Set<number>();
  let matched = 0;
  let otherGiven = false;
  for (const [i, p] of short.entries()) {
    // Where it stands first, then anywhere.
    const order = [i, ...long.keys()];
    let clash = false;
    const at = order.find((k) => {
      if (k >= long.length || used.has(k)) return false;
      const likeness = alike(p, long[k]!);
      if (likeness === 'other given') clash = true;
      return likeness === 'same';
    });
    if (at === undefined) {
      if (clash) otherGiven = true;
    } else {
      used.add(at);
      matched += 1;
    }
  }
  return {
    share: matched / short.length,
    firstSame: alike(a[0]!, b[0]!) === 'same',
    otherGiven,
    sameLength: a.length === b.length,
  };
}
