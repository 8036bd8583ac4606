import type { LabelOnSource } from '@pandecta/contract';
import { json, number, orNull, text } from '../database/read.ts';
import { linePart } from '../searching/line.ts';
import { stateColumns } from './store.ts';

export const stateLine = linePart({
  columns: { rating: orNull(number), recheck: orNull(text()), labels: json<LabelOnSource[] | null>() },
  select: ({ workspace }) => stateColumns(workspace),
  line: ({ rating, recheck, labels }) => ({ rating, recheck, labels: labels ?? [] }),
});
