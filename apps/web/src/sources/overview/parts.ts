/** The parts of an overview picture, and their labels. */
import type { Ask, OverviewReply, OverviewSide } from '@pandecta/contract';
import { join, printQuery } from '@pandecta/core/query';
import { formatNumber } from '@pandecta/core/wording';
import { facetParts } from '../ask.ts';
import { MANY_VALUED, wholeTree, type NameOf } from '../asking/whole.ts';

/** What a part holds: facets, and years, that are added to the question. */
export interface Part {
  key: string;
  title: string;
  count: number;
  says: string;
  facets: string[];
  years?: [number, number];
}

export interface Sides {
  rows: OverviewSide;
  columns: OverviewSide;
}

export const cellKey = (row: number, column: number): string => `${row} ${column}`;

/** How many sources bear both values. */
export const countOf = (reply: OverviewReply, row: number, column: number): number =>
  reply.cells.find((c) => c.row === row && c.column === column)?.count ?? 0;

/** The same for all pairs at once, for what looks at each of them. */
export function countsOf({ rows, columns, cells }: OverviewReply): number[][] {
  const counts = rows.map(() => columns.map(() => 0));
  for (const { row, column, count } of cells) counts[row]![column] = count;
  return counts;
}

const percent = (n: number, of: number): string => `${Math.round((100 * n) / Math.max(1, of))} %`;

/** How it compares with chance: what two values would share if they had nothing to do with each other. */
function againstChance(count: number, expected: number): string {
  const more = Math.round(count - expected);
  if (!more) return 'as many as chance would put there';
  return more > 0
    ? `${formatNumber(more)} more than chance would put there`
    : `${formatNumber(-more)} fewer than chance would put there`;
}

/** Two values together; of one with itself, that value alone. */
export function pairPart(reply: OverviewReply, row: number, column: number, sides: Sides): Part {
  const [r, c] = [reply.rows[row]!, reply.columns[column]!];
  const alone = sides.rows === sides.columns && r.key === c.key;
  const count = alone ? r.count : countOf(reply, row, column);
  const shares = `${percent(count, r.count)} of ${r.name}, ${percent(count, c.count)} of ${c.name}`;
  return {
    key: cellKey(row, column),
    title: alone ? r.name : `${r.name}, with ${c.name}`,
    count,
    says: alone
      ? `${percent(count, reply.total)} of what is asked`
      : `${shares}; ${againstChance(count, (r.count * c.count) / Math.max(1, reply.total))}`,
    facets: [...new Set([`${sides.rows}=${r.key}`, `${sides.columns}=${c.key}`])],
  };
}

/** A value by itself. */
export function valuePart(reply: OverviewReply, row: number, side: OverviewSide): Part {
  const { key, name, count } = reply.rows[row]!;
  return {
    key: String(row),
    title: name,
    count,
    says: `${percent(count, reply.total)} of what is asked`,
    facets: [`${side}=${key}`],
  };
}

/** A value within a stretch of years. */
export function yearPart(reply: OverviewReply, row: number, column: number, side: OverviewSide): Part {
  const [r, c] = [reply.rows[row]!, reply.columns[column]!];
  const from = Number(c.key);
  const next = reply.columns[1] ? Number(reply.columns[1].key) - Number(reply.columns[0]!.key) : 1;
  const count = countOf(reply, row, column);
  return {
    key: cellKey(row, column),
    title: `${r.name}, ${c.name}`,
    count,
    says: `${percent(count, c.count)} of ${c.name}, ${percent(count, r.count)} of ${r.name}`,
    facets: [`${side}=${r.key}`],
    years: [from, from + next - 1],
  };
}

const typeOf = (facet: string): string => facetParts(facet)[0];

/** The question, narrowed to a part. A value takes the place of others of which a source has one alone. */
export function narrowedTo(ask: Ask, { facets, years }: Part): Ask {
  const replaced = new Set(facets.map(typeOf).filter((t) => !MANY_VALUED.has(t)));
  const kept = (ask.include ?? []).filter((f) => !replaced.has(typeOf(f)) && !facets.includes(f));
  return { ...ask, include: [...kept, ...facets], ...(years && { yearFrom: years[0], yearTo: years[1] }) };
}

/** The words of the question, with a part left out. */
export function wordsWithout(ask: Ask, { facets, years }: Part, nameOf: NameOf): string {
  const only: Ask = { include: facets, ...(years && { yearFrom: years[0], yearTo: years[1] }) };
  const part = wholeTree(only, nameOf);
  return printQuery(
    join(
      'and',
      [wholeTree({ ...(ask.q && { q: ask.q }) }, nameOf), { is: 'not', part }].filter((n) => n.is !== 'all') as never,
    ),
  );
}
