import { turned } from '../kit/words.ts';

/** What is selected of a list: some lines by their ids, or all that match its question but some. */
export type Selection = { all: false; ids: ReadonlySet<string> } | { all: true; except: ReadonlySet<string> };

export const NOTHING: Selection = { all: false, ids: new Set() };
export const EVERYTHING: Selection = { all: true, except: new Set() };

export const has = (selection: Selection, id: string): boolean =>
  selection.all ? !selection.except.has(id) : selection.ids.has(id);

/** How many of a list of so many lines. */
export const sizeOf = (selection: Selection, total: number): number =>
  selection.all ? Math.max(0, total - selection.except.size) : selection.ids.size;

/** One line more, or one less. */
export function toggled(selection: Selection, id: string): Selection {
  return selection.all
    ? { all: true, except: turned(selection.except, id) }
    : { all: false, ids: turned(selection.ids, id) };
}
