import { isBody, isOthers, parseName, OTHERS, type Name } from '../../source/index.ts';
import type { Rule } from '../rule.ts';
import { inNames } from '../names.ts';

/** Between people: "and", "&", a semicolon; not the "and" of a body or a firm. */
const BETWEEN = /\s*;\s*|\s+(?:and|&|und|et)\s+/;

const SUSPECT = /;|\s(?:and|&|und|et)\s/;

export const severalInOneName: Rule = {
  id: 'several-in-one-name',
  severity: 'wrong',
  title: 'Several people in one name',
  why: 'They would be printed and sorted as one person.',
  find: ({ record }) =>
    inNames(
      record,
      (name): Name[] | undefined => {
        if (!SUSPECT.test(name.literal ?? `${name.family ?? ''} ${name.given ?? ''}`)) return undefined;
        const whole = name.literal ?? [name.family, name.given].filter(Boolean).join(', ');
        if (isOthers(name) || isBody(whole)) return undefined;
        const list = whole.replace(/,?\s+et al\.?$/, '; et al.');
        const parts = list
          .split(BETWEEN)
          .map((p) => p.trim().replace(/,$/, ''))
          .filter(Boolean);
        if (parts.length < 2 || !parts.every((p) => p === 'et al.' || /^(?:\p{Ll}+ )*\p{Lu}[\p{L}'’.-]*(?:,? (?:\p{Ll}+ )*\p{Lu}[\p{L}'’.-]*){0,4}$/u.test(p))) return undefined; // prettier-ignore
        if (!parts.every((p) => p === 'et al.' || /[ ,]/.test(p))) return undefined;
        return parts.map((p) => (p === 'et al.' ? OTHERS : parseName(p)));
      },
      (name) => `“${name.literal ?? [name.family, name.given].filter(Boolean).join(', ')}” holds several people`,
      0.92,
    ),
};
