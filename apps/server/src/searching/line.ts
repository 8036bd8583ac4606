/** The parts of a line of the ledger, each told by the capability it belongs to. */
import type { Actor } from '../access/principal.ts';
import type { SQL } from 'drizzle-orm';
import type { SourceRow } from '@pandecta/contract';
import type { Presence } from '@pandecta/core/changes';
import type { Columns, RowOf } from '../database/read.ts';
import { Registry } from '../registry.ts';

/** For whom lines are, and of which sources. */
export interface LineAsked {
  workspace: SQL;
  viewer: Actor;
  presence: Presence;
}

/** The fields of a line that searching fills in itself. */
type Own = 'id' | 'record' | 'addedAt' | 'hits' | 'moreHits' | 'titleLit' | 'abstract' | 'group';
/** The fields that capabilities fill in. */
export type PartField = Exclude<keyof SourceRow, Own>;

/** @typeParam F the fields of a line it gives */
export interface LinePart<F extends PartField = PartField> {
  columns: Columns;
  /** Selects them of the source `s`. */
  select(asked: LineAsked): SQL;
  /** What else is selected from. */
  join?(workspace: SQL): SQL;
  line(row: RowOf<Columns>): Pick<SourceRow, F>;
}

/** Typed by its columns and by what `line` gives. */
export const linePart = <C extends Columns, L extends Partial<Pick<SourceRow, PartField>>>(
  part: Omit<LinePart, 'columns' | 'line'> & {
    columns: C;
    line(row: RowOf<C>): L;
  },
): LinePart<keyof L & PartField> => part as never;

export const LINE_PARTS = new Registry<LinePart[]>('parts of a line');
