/** The overview as a table: what goes together in the sources that match. */
import type { AskOverview, OverviewReply, OverviewSide, OverviewValue } from '@pandecta/contract';
import type { Side, SideValue } from '@pandecta/core/narrowing';
import { keptTypes } from './facets.ts';
import type { Question } from './match.ts';
import { asOne, namedFacets } from './named.ts';
import { ask, type Asking } from './store.ts';

const MOST = 40;
/** What the viewer may not see the name of. */
const UNSEEN = { key: '', name: '' };
/** Years stand in a line, of which more are seen at once. */
const MOST_YEARS = 120;

export async function overview(
  to: Asking,
  q: Question,
  { rows, columns, most = MOST }: AskOverview,
): Promise<OverviewReply> {
  const { userId } = q.scope;
  const sideOf = (side: OverviewSide): Side => {
    if (side === 'year') return { years: true, most: MOST_YEARS };
    return { facets: keptTypes(side, userId), most };
  };
  const { total, pairs } = await ask(to, q, { pairs: { rows: sideOf(rows), columns: sideOf(columns) } });
  const { cells, inAll, stretch } = pairs!;
  const ids = [...(rows === 'year' ? [] : pairs!.rows), ...(columns === 'year' ? [] : pairs!.columns)].map(
    (v) => v.value,
  );
  const named = await namedFacets(to.db, q.scope, ids);
  const valuesOf = (side: OverviewSide, values: SideValue[]): OverviewValue[] =>
    values.map(({ value, count }) => {
      if (side === 'year')
        return { key: String(value), name: stretch > 1 ? `${value}–${value + stretch - 1}` : String(value), count };
      const { key, name } = named.get(value) ?? UNSEEN;
      return { key, name, count };
    });
  const [down, across] = [seenOf(valuesOf(rows, pairs!.rows)), seenOf(valuesOf(columns, pairs!.columns))];
  const sums = new Map<string, OverviewReply['cells'][number]>();
  cells.forEach((count, at) => {
    const row = down.places[Math.floor(at / across.places.length)]!;
    const column = across.places[at % across.places.length]!;
    if (!count || row < 0 || column < 0) return;
    const cell = sums.get(`${row} ${column}`) ?? { row, column, count: 0 };
    cell.count += count;
    sums.set(`${row} ${column}`, cell);
  });
  return {
    total,
    rows: down.values,
    columns: across.values,
    cells: [...sums.values()],
    rowsInAll: inAll[0],
    columnsInAll: inAll[1],
  };
}

/** The values that may be seen, with the place each of those given has among them; -1 of one that may not. */
function seenOf(given: OverviewValue[]): { values: OverviewValue[]; places: number[] } {
  const seen = given.filter((v) => v.key !== UNSEEN.key);
  const { values, places } = asOne(seen);
  let at = 0;
  return { values, places: given.map((v) => (v.key === UNSEEN.key ? -1 : places[at++]!)) };
}
