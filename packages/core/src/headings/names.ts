/** Whether two names may be of one person: full and with initials, in either order. */
import { parseName, type Name } from '../source/names.ts';
import { fold } from '../words/index.ts';

export type Alike = 'same' | 'perhaps' | 'different';

const folded = (text = ''): string =>
  fold(text.normalize('NFKD'))
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
const familyOf = ({ literal, family, 'non-dropping-particle': particle }: Name): string =>
  folded(literal ?? [particle, family].filter(Boolean).join(' '));
const givenOf = ({ given, 'dropping-particle': particle }: Name): string[] =>
  folded([given?.replace(/(\p{Lu})\.(?=\p{Lu})/gu, '$1. '), particle].filter(Boolean).join(' '))
    .split(' ')
    .filter(Boolean);

/**
 * Two names as they are written, “Okonjo, Elias” or “Elias Okonjo”: `same` where all of both agree and a given name is written
 * out in both; `perhaps` where one has initials or leaves names out; `different` where any part contradicts.
 */
export function namesAlike(a: string, b: string): Alike {
  const [one, other] = [parseName(a), parseName(b)];
  if (folded(a) === folded(b)) return 'same';
  if (familyOf(one) !== familyOf(other)) return 'different';
  if (folded(one.suffix) !== folded(other.suffix)) return one.suffix && other.suffix ? 'different' : 'perhaps';
  const [x, y] = [givenOf(one), givenOf(other)];
  if (!x.length || !y.length) return 'perhaps';
  let written = false;
  for (let i = 0; i < Math.min(x.length, y.length); i += 1) {
    const [p, q] = [x[i]!, y[i]!];
    if (p === q) written ||= p.length > 1;
    else if (p.length > 1 && q.length > 1) return 'different';
    else if (p[0] !== q[0]) return 'different';
  }
  const allWritten = x.length === y.length && x.every((p, i) => p === y[i]);
  return allWritten && written ? 'same' : 'perhaps';
}

/** The name folded, for looking up: case, accents and punctuation do not matter. */
export const nameKey = folded;
