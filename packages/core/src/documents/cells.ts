/**
 * The front of a document as a reader sees it: pieces of text that stand together, in rows from the top. What is
 * raised or lowered beside a word (marks of footnotes and of affiliations) is taken off; words far apart on one line
 * are pieces of their own, as in a grid of names.
 */
import type { Rect } from '../marks/index.ts';
import { boundsOf, median, type Page, type PageWord } from './page.ts';

export interface Cell {
  text: string;
  /** What was taken off beside its words: "1", "∗", "a". */
  marks: string[];
  /** Height of the type, in points. */
  size: number;
  box: Rect;
  /** Counted from 0 at the top: cells that stand beside each other share one. */
  row: number;
}

/** The pieces of a page, from the top, those of one row from the left. */
export function cellsOf(page: Page): Cell[] {
  const cells = page.lines.flatMap((line) => piecesOf(page, line.words));
  cells.sort((a, b) => middle(a.box) - middle(b.box));
  let row = -1;
  let last: Cell | undefined;
  for (const cell of cells) {
    const beside = last && middle(cell.box) - middle(last.box) < Math.min(last.size, cell.size) * 0.5;
    if (!beside) row += 1;
    cell.row = row;
    last = cell;
  }
  return cells.sort((a, b) => a.row - b.row || a.box.x0 - b.box.x0);
}

const middle = (b: Rect): number => (b.y0 + b.y1) / 2;
const height = (w: PageWord): number => w.box.y1 - w.box.y0;

/** Words nearer than this many heights are parts of one, as the letters of a logo. */
const TOUCHING = 0.08;

const between = (a: PageWord | undefined, b: PageWord, size: number): string =>
  !a || b.box.x0 - a.box.x1 < size * TOUCHING ? '' : ' ';

/** What marks a footnote or an affiliation: a letter, a number, a sign, or several with commas. */
const MARK = /^(?:[\p{L}\d](?:,[\p{L}\d])*,?|[\d\p{No},]{1,5}|[^\p{L}\p{N}]{1,3})$/u;

/** Words further apart than this many heights of the type do not belong together. */
const APART = 1.4;

function piecesOf(page: Page, words: PageWord[]): Cell[] {
  // A word cut at a line's end is joined in the text of the page: here it has its hyphen still.
  const textOf = (w: PageWord): string =>
    page.text.slice(w.start, w.end) + (/\p{Ll}/u.test(page.text[w.end] ?? '') ? '-' : '');
  const letters = words.filter((w) => /\p{L}{2}/u.test(textOf(w)));
  const size = typeSize((letters.length ? letters : words).map(height));
  const pieces: { words: PageWord[]; marks: string[] }[] = [];
  let piece: (typeof pieces)[number] | undefined;
  const foot = median((letters.length ? letters : words).map((w) => w.box.y1));
  for (const [i, w] of words.entries()) {
    const last = piece?.words.at(-1);
    const gap = last ? w.box.x0 - last.box.x1 : 0;
    const text = textOf(w);
    // Smaller, and off the middle of the line: a mark, not a word.
    const off = Math.abs(foot - w.box.y1) > size * 0.12;
    const small = height(w) < size * 0.82 && off && MARK.test(text);
    const next = words[i + 1];
    const within =
      next && next.box.x0 - w.box.x1 < size * TOUCHING && height(next) > size * 0.82 && /^\p{L}/u.test(textOf(next));
    if (small && piece && gap < size && !(within && gap < size * TOUCHING)) {
      piece.marks.push(text);
      continue;
    }
    if (!piece || gap > size * APART || gap < -size * 3) pieces.push((piece = { words: [], marks: [] }));
    piece.words.push(w);
  }
  return pieces
    .filter((p) => p.words.length)
    .map((p) => {
      const own = p.words.filter((w) => /\p{L}/u.test(textOf(w)));
      return {
        text: closed(p.words.map((w, i) => between(p.words[i - 1], w, size) + textOf(w)).join('')),
        marks: p.marks,
        size: typeSize((own.length ? own : p.words).map(height)),
        box: boundsOf(p.words),
        row: 0,
      };
    });
}

/** Without the space that a mark taken off has left before a comma, and without signs of footnotes that stand in line. */
function closed(text: string): string {
  return text
    .replace(/\s*[∗*†‡§¶‖♯⋆✉❸❹➀-➓]+(?=\s|,|;|$)/gu, '')
    .replace(/\s+([,;:.])/g, '$1')
    .trim();
}

/** The lower of two in the middle: letters of a logo stand out, a line does not for it. */
const typeSize = (heights: number[]): number => [...heights].sort((a, b) => a - b)[(heights.length - 1) >> 1] ?? 0;

/** Letters and digits of a text alone, without case and accents: what two ways of printing it share. */
export const lettersOf = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '');

/** A line of running text: the front is over. */
export const isProse = (c: Cell): boolean => {
  const words = c.text.split(' ');
  return words.length > 11 && words.filter((w) => /^\p{Ll}{2}/u.test(w)).length > words.length * 0.6;
};
