/** Which sources match: a tree of conditions over the columns and over sets found elsewhere. */
import { Bits } from './bits.ts';
import { NO_YEAR, PRESENCES, type Columns } from './columns.ts';

export type Condition =
  | { is: 'all' }
  | { is: 'none' }
  | { is: 'and' | 'or'; parts: Condition[] }
  | { is: 'not'; part: Condition }
  /** The sources of the i-th set given beside the tree: what a text index found. */
  | { is: 'set'; set: number }
  /** Sources that bear at least one of these facets. */
  | { is: 'facets'; ids: number[] }
  /** Both ends belong to the range; a source without a year is in none. */
  | { is: 'years'; from?: number; to?: number }
  /** Sources added or changed within this time, in milliseconds since 1970; its end is left out. */
  | { is: 'times'; of: 'added' | 'changed'; from?: number; before?: number };

/** The sources of a presence that satisfy the condition. */
export function matching(
  columns: Columns,
  presence: (typeof PRESENCES)[number],
  condition: Condition,
  sets: Bits[] = [],
): Bits {
  return evaluate(columns, condition, sets, columns.ofPresence(PRESENCES.indexOf(presence)));
}

/** The condition where its sets stand further on in a longer list, behind those of others. */
export function setsFrom(condition: Condition, from: number): Condition {
  switch (condition.is) {
    case 'and':
    case 'or':
      return { ...condition, parts: condition.parts.map((part) => setsFrom(part, from)) };
    case 'not':
      return { ...condition, part: setsFrom(condition.part, from) };
    case 'set':
      return { ...condition, set: condition.set + from };
    default:
      return condition;
  }
}

/** Those of `within` that satisfy the condition: what one part leaves is all the next one looks at. */
function evaluate(columns: Columns, condition: Condition, sets: Bits[], within: Bits): Bits {
  switch (condition.is) {
    case 'all':
      return within;
    case 'none':
      return Bits.none(within.size);
    case 'and':
      return [...condition.parts]
        .sort((a, b) => Number(b.is === 'set') - Number(a.is === 'set'))
        .reduce((left, part) => evaluate(columns, part, sets, left), within);
    case 'or':
      return condition.parts.reduce(
        (sum, part) => sum.or(evaluate(columns, part, sets, within)),
        Bits.none(within.size),
      );
    case 'not':
      return within.without(evaluate(columns, condition.part, sets, within));
    case 'set':
      return within.and(sets[condition.set]!);
    case 'facets':
      return within.filter(columns.bears(condition.ids));
    case 'years': {
      const { from = NO_YEAR + 1, to = Infinity } = condition;
      return within.filter((n) => columns.yearOf(n) >= from && columns.yearOf(n) <= to);
    }
    case 'times': {
      const { of, from = -Infinity, before = Infinity } = condition;
      return within.filter((n) => columns.timeOf(n, of) >= from && columns.timeOf(n, of) < before);
    }
  }
}
