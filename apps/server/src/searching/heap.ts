/** The heap as a table: what goes together in the sources that match. */
import type { AskHeap, HeapReply, HeapSide, HeapValue } from '@pandecta/contract';
import type { Side, SideValue } from '@pandecta/core/narrowing';
import { keptAs } from '../indexing/facet.ts';
import { facetKind } from '../indexing/facets.ts';
import type { Question } from './match.ts';
import { namedFacets } from './named.ts';
import { ask, type Asking } from './store.ts';

const MOST = 40;
/** Years stand in a line, of which more are seen at once. */
const MOST_YEARS = 120;

export async function heap(to: Asking, q: Question, { rows, columns, most = MOST }: AskHeap): Promise<HeapReply> {
  const { workspaceId, member } = q.scope;
  const sideOf = (side: HeapSide): Side => {
    if (side === 'year') return { years: true, most: MOST_YEARS };
    const kind = facetKind(side);
    return { facets: kind ? keptAs(kind, member) : side, most };
  };
  const { total, pairs } = await ask(to, q, { pairs: { rows: sideOf(rows), columns: sideOf(columns) } });
  const { cells, inAll, stretch } = pairs!;
  const ids = [...(rows === 'year' ? [] : pairs!.rows), ...(columns === 'year' ? [] : pairs!.columns)].map(
    (v) => v.value,
  );
  const named = await namedFacets(to.db, workspaceId, ids);
  const valuesOf = (side: HeapSide, values: SideValue[]): HeapValue[] =>
    values.map(({ value, count }) => {
      if (side === 'year')
        return { key: String(value), name: stretch > 1 ? `${value}–${value + stretch - 1}` : String(value), count };
      const { key = String(value), name = key } = named.get(value) ?? {};
      return { key, name, count };
    });
  const across = pairs!.columns.length;
  const borne = [...cells.entries()].filter(([, count]) => count > 0);
  return {
    total,
    rows: valuesOf(rows, pairs!.rows),
    columns: valuesOf(columns, pairs!.columns),
    cells: borne.map(([at, count]) => ({ row: Math.floor(at / across), column: at % across, count })),
    rowsInAll: inAll[0],
    columnsInAll: inAll[1],
  };
}
