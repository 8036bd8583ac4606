/** The order in which the blocks of a page are read: column after column between what goes over all of them. */
import type { TextLine } from './lines.ts';
import { median } from './page.ts';

type Block = TextLine[];

/** Where columns may part, as shares of the width of the text. */
const [FROM, TO] = [0.2, 0.8];
/** So few of the lines may cross a gutter (a title, a wide table), and so many must stand on each side of it. */
const [CROSSING, BESIDE] = [0.25, 0.15];
/** Fewer lines than this are in no columns: a title page, a short letter. */
const FEWEST_LINES = 12;
/** In points: letters may hang into a gutter by less. */
const HANG = 2;

/**
 * As it comes where the page has one column. A block in whose lines two columns were put together is taken apart.
 * @param blocks of a page, in any order
 */
export function inColumns(blocks: Block[]): Block[] {
  const gutters = guttersOf(blocks.flat());
  if (!gutters.length) return blocks;
  const pieces = blocks.flatMap((block) => onOneSide(block, gutters));
  const top = (b: Block): number => Math.min(...b.map((l) => l.box.y0));
  pieces.sort((a, b) => top(a) - top(b) || a[0]!.box.x0 - b[0]!.box.x0);
  const columns: Block[][] = Array.from({ length: gutters.length + 1 }, () => []);
  const out: Block[] = [];
  const flush = (): void => columns.forEach((column) => out.push(...column.splice(0)));
  for (const piece of pieces) {
    const at = columnOf(piece, gutters);
    if (at === undefined) {
      flush();
      out.push(piece);
    } else columns[at]!.push(piece);
  }
  flush();
  return out;
}

/** From the left; undefined of what goes over several. */
function columnOf(block: Block, gutters: number[]): number | undefined {
  const [x0, x1] = [Math.min(...block.map((l) => l.box.x0)), Math.max(...block.map((l) => l.box.x1))];
  if (gutters.some((g) => x0 < g - HANG && x1 > g + HANG)) return undefined;
  return gutters.filter((g) => g < (x0 + x1) / 2).length;
}

/** Lines of one block that stand in different columns, as blocks of their own. */
function onOneSide(block: Block, gutters: number[]): Block[] {
  if (columnOf(block, gutters) !== undefined) return [block];
  const sides = block.map((line) => columnOf([line], gutters));
  if (sides.filter((s) => s === undefined).length > block.length * 0.2) return [block];
  const out: Block[] = [];
  block.forEach((line, i) => {
    if (i && sides[i] === sides[i - 1]) out.at(-1)!.push(line);
    else out.push([line]);
  });
  return out;
}

/** Where the page's columns part, in points from the left. */
function guttersOf(lines: TextLine[]): number[] {
  if (lines.length < FEWEST_LINES) return [];
  const [left, right] = [Math.min(...lines.map((l) => l.box.x0)), Math.max(...lines.map((l) => l.box.x1))];
  const width = right - left;
  // A gutter lies between the end of a line and the beginning of one beside it.
  const bounds = (from: number, to: number): number | undefined => {
    const beginnings = lines.map((l) => l.box.x0).filter((x) => x > left + width * from && x < left + width * to + 20);
    let best: { x: number; crossing: number } | undefined;
    for (const x of new Set(beginnings.map((b) => Math.round(b) - HANG))) {
      if (x < left + width * from || x > left + width * to) continue;
      const crossing = lines.filter((l) => l.box.x0 < x - HANG && l.box.x1 > x + HANG).length;
      const before = lines.filter((l) => l.box.x1 <= x + HANG).length;
      const after = lines.length - crossing - before;
      const isGutter =
        crossing <= lines.length * CROSSING && before >= lines.length * BESIDE && after >= lines.length * BESIDE;
      if (isGutter && isBeside(lines, x) && (!best || crossing < best.crossing)) best = { x, crossing };
    }
    return best?.x;
  };
  const middle = bounds(0.4, 0.6);
  if (middle !== undefined) return [middle];
  const [first, second] = [bounds(FROM, 0.45), bounds(0.55, TO)];
  return first !== undefined && second !== undefined ? [first, second] : [];
}

/** Whether text stands on both sides at the same height: two columns, and neither an indented block nor a table of short cells. */
function isBeside(lines: TextLine[], x: number): boolean {
  const after = lines.filter((l) => l.box.x0 >= x - HANG);
  const before = lines.filter((l) => l.box.x1 <= x + HANG);
  const level = (a: TextLine, b: TextLine): boolean => a.box.y0 < b.box.y1 && b.box.y0 < a.box.y1;
  const beside = after.filter((a) => before.some((b) => level(a, b))).length;
  // Cells of a table are short; columns of text are wide.
  const wide = (of: TextLine[]): number => median(of.map((l) => l.box.x1 - l.box.x0));
  const size = median(lines.map((l) => l.size));
  return beside >= after.length * 0.4 && wide(after) > size * 8 && wide(before) > size * 8;
}
