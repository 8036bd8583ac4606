/** What stands in the cells of the ledger, as text: on the screen, on paper, in a table to keep. */
import type { SourceRow } from '@pandecta/contract';
import { lacksInWords, lacksOf } from '@pandecta/core/intake';
import { KINDS, whoOf, withoutMarkup, yearShort } from '@pandecta/core/source';
import { dots } from '../assessments/ratings.ts';
import { dayInWords } from '../values.ts';
import type { Column } from './columns.ts';

export const titleOf = ({ record }: SourceRow): string => record.title ?? record['title-short'] ?? 'Untitled';

/** What a citation of it would miss: "volume and pages missing". */
export const missingIn = ({ record }: SourceRow): string => lacksInWords(lacksOf(record));

/** As it is shown; `whole` where there is room for all of it. */
export function cellText(row: SourceRow, id: Column['id'], whole?: { placeOf(id: string): string }): string {
  const { record } = row;
  switch (id) {
    case 'author':
      return whoOf(record);
    case 'container':
      return withoutMarkup(record['container-title'] ?? record.publisher ?? record.archive ?? '');
    case 'year':
      return yearShort(record.issued);
    case 'kind':
      return KINDS[record.type].name;
    case 'added':
      return dayInWords(row.addedAt);
    case 'pages':
      return row.pages ? String(row.pages) : '';
    case 'marks':
      return row.marks ? String(row.marks) : '';
    case 'places':
      if (whole) return row.places.map(whole.placeOf).join('; ');
      return row.places.length ? String(row.places.length) : '';
    case 'reading':
      return row.reading ?? '';
    case 'rating':
      return whole ? String(row.rating ?? '') : dots(row.rating);
    case 'missing':
      return missingIn(row).replace(/ missing$/, '');
    case 'tags':
      return row.tags.map((t) => t.name).join('; ');
    case 'labels':
      return row.labels.map((l) => l.name).join('; ');
  }
}
