/** The log of searches as a table: a row for each catalogue that was asked. */
import type { Search } from '@pandecta/contract';
import { save } from '../kit/save.ts';

export async function saveLog(searches: readonly Search[]): Promise<void> {
  const { tableOf } = await import('@pandecta/core/formats/table');
  const rows = searches.flatMap((s) =>
    s.asked.map((a) => ({
      at: s.at,
      by: s.by,
      search: s.words,
      why: s.why,
      catalogue: a.name,
      found: a.state === 'failed' ? '' : a.total,
      fetched: a.fetched,
      trouble: a.says ?? '',
      'works of the search': s.works,
      'new works': s.fresh,
      gathered: s.gathered,
      'taken in': s.taken,
    })),
  );
  save('searches.csv', tableOf(rows), 'text/csv');
}
