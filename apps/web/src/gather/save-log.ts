/** The log of searches as a table: a row for each catalogue that was asked, and for each question to the sources here. */
import type { AskedHere, Search } from '@pandecta/contract';
import { save } from '../kit/save.ts';

export async function saveLog(searches: readonly Search[], asked: readonly AskedHere[]): Promise<void> {
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
  const here = asked.map(({ at, by, words, found }) => ({
    at,
    by,
    search: words,
    why: '',
    catalogue: 'the sources here',
    found,
    fetched: found,
    trouble: '',
    'works of the search': found,
    'new works': 0,
    gathered: 0,
    'taken in': 0,
  }));
  save('searches.csv', tableOf([...rows, ...here]), 'text/csv');
}
