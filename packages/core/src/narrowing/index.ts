/** Narrowing: sources as columns of numbers, sets of them, conditions, counts and orders. */
export { Bits } from './bits.ts';
export { Columns, NO_YEAR, PRESENCES, type ColumnRows } from './columns.ts';
export { setsFrom, matching, type Condition } from './condition.ts';
export { groupsOf, type GroupBy, type Groups } from './groups.ts';
export { mostAlike, type Shared } from './likeness.ts';
export { orderOf, type Order, type SortBy } from './order.ts';
export { overlapsOf } from './overlaps.ts';
export { countPairs, type Pairs, type Side, type SideValue } from './pairs.ts';
export { Ranking, UNRANKED, type Placing } from './ranking.ts';
