/** The authors as the first page names them: under the title, in lines, grids or columns, or where a label says so. */
import type { Name } from '../source/index.ts';
import { isProse, type Cell } from './cells.ts';
import { EXAMINATION, isHeading, NOT_A_NAME, PLACE_OF_WORK } from './front-words.ts';
import { peopleOf, personOf } from './people.ts';
import type { FoundTitle } from './title.ts';

const LABELLED =
  /^(?:authors?|autor(?:in|en|es)?|auteurs?|autori?|verfasser(?:in)?|by|par|von|por|作者)\s*[:：]?\s*$/iu;
const SAID =
  /^.{0,12}(?:written by|présentée? par|presented by|vorgelegt von|author\s*:|verfasser(?:in)?\s*:|auteur\s*:|autor(?:a|in)?\s*:)\s*(.+)$/iu;
/** Bodies that sign their works. */
const BODY =
  /(?:team|group|project|consortium|collaboration|network|committee|commission|society|association|foundation|用户组|学会|委员会)$/iu;

/** Those named after it are no authors. */
const HELPERS = /^(?:with (?:contributions|help|assistance)|contributors?|maintain(?:er|ed)|translat(?:or|ed))\b/i;

/** The rows under the title in which names are looked for. */
const MOST_ROWS = 30;

/** @param height of the page, in points */
export function readAuthors(cells: Cell[], title: FoundTitle, height: number): Name[] {
  const last = title.cells.at(-1)!;
  const said = labelled(cells);
  if (said.length) return said;
  const below = front(cells, last, height);
  const out: { name: Name; cell: Cell }[] = [];
  for (const cell of below) {
    if (EXAMINATION.test(cell.text) || HELPERS.test(cell.text)) {
      if (out.length) break;
      continue;
    }
    if (underLabel(cell, cells)) continue;
    const names = peopleOf(cell.text);
    if (!names.length || !goesOn(cell, out, names.length)) continue;
    out.push(...names.map((name) => ({ name, cell })));
  }
  if (out.length) return unique(out.map((o) => o.name));
  const alone = /^(?:by|par|von|por|di)\s+(\p{Lu}[\p{L}\p{M}’'-]+)$/iu.exec(below[0]?.text ?? '');
  if (alone) return [{ literal: alone[1]! }];
  const body = below.slice(0, 8).find((c) => BODY.test(c.text) && c.text.split(' ').length <= 6 && !/@/.test(c.text));
  if (body) return [{ literal: body.text }];
  return above(cells, title.cells[0]!);
}

/** What stands under the title, to where the text begins. */
function front(cells: Cell[], last: Cell, height: number): Cell[] {
  const out: Cell[] = [];
  for (const cell of cells) {
    if (cell.row <= last.row) continue;
    if (isHeading(cell.text) || isProse(cell)) break;
    if (/^\d+(?:\.\d+)*\.?\s+\p{Lu}/u.test(cell.text) && !/,/.test(cell.text)) break;
    if (cell.row > last.row + MOST_ROWS || cell.box.y0 > height * 0.95) break;
    out.push(cell);
  }
  return out;
}

/**
 * Whether names that come after others are authors too: beside them in the row, set alike, and not what a person's
 * line is followed by, such as the place where they work.
 */
function goesOn(cell: Cell, before: { cell: Cell }[], names: number): boolean {
  const lead = before[0]?.cell;
  if (!lead || before.at(-1)!.cell === cell) return true;
  if (before.some((b) => b.cell.row === cell.row)) return true;
  // A heading of four ideographs looks like a name.
  if (/^\p{Script=Han}/u.test(cell.text)) return false;
  const alike = Math.abs(cell.size - lead.size) < lead.size * 0.07;
  const marked = lead.marks.length === 0 || cell.marks.length > 0 || names > 1;
  return alike && marked;
}

/** The people a label names: "Author: Marit Okonjo", or the one who stands under "Author:". */
function labelled(cells: Cell[]): Name[] {
  for (const cell of cells) {
    const said = SAID.exec(cell.text);
    const names = said ? peopleOf(said[1]!) : [];
    if (names.length) return names;
    if (!LABELLED.test(cell.text)) continue;
    const under = cells.find((c) => c.row > cell.row && c.row <= cell.row + 3 && overlaps(c, cell));
    const beside = cells.find((c) => c.row === cell.row && c.box.x0 > cell.box.x1);
    for (const near of [beside, under]) {
      const found = near ? peopleOf(near.text) : [];
      if (found.length) return found;
    }
  }
  return [];
}

/** Under "Supervisor:" stands another person. */
function underLabel(cell: Cell, cells: Cell[]): boolean {
  const over = cells.filter((c) => c.row < cell.row && c.row >= cell.row - 2 && overlaps(c, cell)).at(-1);
  return Boolean(over && EXAMINATION.test(over.text));
}

const overlaps = (a: Cell, b: Cell): boolean => a.box.x0 < b.box.x1 + a.size * 2 && b.box.x0 < a.box.x1 + a.size * 2;

/** A line of names and nothing else over the title, as on the covers of books. */
function above(cells: Cell[], title: Cell): Name[] {
  const over = cells.filter((c) => c.row < title.row && c.row >= title.row - 4);
  for (const cell of over.reverse()) {
    const names = peopleOf(cell.text);
    const plain = !PLACE_OF_WORK.test(cell.text) && !cell.text.split(/\s+/).some((w) => NOT_A_NAME.test(w));
    if (names.length && plain && personOf(cell.text.split(/,| and /)[0]!)) return names;
  }
  return [];
}

function unique(names: Name[]): Name[] {
  const seen = new Set<string>();
  return names.filter((n) => {
    const key = JSON.stringify(n).toLowerCase();
    return !seen.has(key) && seen.add(key);
  });
}
