import type { ReadingState } from '@pandecta/core/changes';
import { orNull, text, truth } from '../database/read.ts';
import { linePart } from '../searching/line.ts';
import { ownColumns } from './store.ts';

export const ownLine = linePart({
  columns: { reading: orNull(text<ReadingState>()), starred: truth },
  select: ({ workspace, viewer }) => ownColumns(workspace, viewer.userId),
  line: ({ reading, starred }) => ({ reading, starred }),
});
