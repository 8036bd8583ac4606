/** The whole of an answer as the ledger shows it, to be printed or kept: fetched stretch by stretch. */
import { routes, type Ask, type SourceRow } from '@pandecta/contract';
import { withoutMarkup } from '@pandecta/core/source';
import { ask } from '../../api/client.ts';
import { cellText, titleOf } from './cells.ts';
import type { Column } from './columns.ts';

/** Lines a request: as many as the server gives. */
const AT_ONCE = 200;

/** The lines one stretch after another, and how many there are in all. A source that moves meanwhile comes once. */
export async function* eachStretch(
  asked: Ask,
  signal: AbortSignal,
): AsyncGenerator<{ rows: SourceRow[]; total: number }> {
  const met = new Set<string>();
  for (let from = 0, total = 1; from < total; from += AT_ONCE) {
    const stretch = await ask(routes.search.page, { query: { ...asked, from, count: AT_ONCE }, signal });
    total = stretch.total;
    const rows = stretch.rows.filter((r) => !met.has(r.id));
    for (const { id } of rows) met.add(id);
    yield { rows, total };
  }
}

/** The lines as a table (CSV after RFC 4180) of the columns shown, with the group first where there are groups. */
export async function tableOfShown(
  rows: SourceRow[],
  columns: Column[],
  group: string,
  placeOf: (id: string) => string,
): Promise<string> {
  const { tableOf } = await import('@pandecta/core/formats/table');
  return tableOf(
    rows.map((row) =>
      Object.fromEntries([
        ...(group ? [[group, row.group?.name ?? '']] : []),
        ['Title', withoutMarkup(titleOf(row))],
        ...columns.map((c) => [c.name, cellText(row, c.id, { placeOf })]),
      ]),
    ),
  );
}
