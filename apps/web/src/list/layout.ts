/**
 * Where the lines of a list are, by arithmetic: all lines are of one height, and those that begin a group have a heading
 * above them. However many there are, nothing is done for each of them.
 */

export interface Layout {
  count: number;
  /** In pixels. */
  lineHeight: number;
  headHeight: number;
  /** The places of the lines that begin a group, as far as they are known, in rising order. */
  heads: readonly number[];
}

export interface Item {
  index: number;
  /** Where it is drawn, in pixels from the top of what is scrolled. */
  start: number;
  size: number;
}

/** Browsers draw nothing beyond some 33 million pixels; a longer list is scrolled in larger steps. */
const TALLEST = 30_000_000;
/** Lines drawn above and below what is seen. */
const BEYOND = 12;

/** How many heads stand before a place (binary search). */
function headsBefore(heads: readonly number[], index: number): number {
  let [low, high] = [0, heads.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (heads[middle]! < index) low = middle + 1;
    else high = middle;
  }
  return low;
}

const startOf = ({ lineHeight, headHeight, heads }: Layout, index: number): number =>
  index * lineHeight + headsBefore(heads, index) * headHeight;

const sizeOf = ({ lineHeight, headHeight, heads }: Layout, index: number): number =>
  lineHeight + (heads[headsBefore(heads, index)] === index ? headHeight : 0);

/** The line at a distance from the top of all lines. */
function lineAt(layout: Layout, at: number): number {
  let [low, high] = [0, Math.max(0, layout.count - 1)];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (startOf(layout, middle) <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** How far all lines are scrolled when what holds them is; and the other way round. */
function scales(layout: Layout, seen: number): { height: number; whole: number; ratio: number } {
  const whole = startOf(layout, layout.count);
  const height = Math.min(whole, TALLEST);
  return { height, whole, ratio: height > seen ? (whole - seen) / (height - seen) : 1 };
}

/**
 * What is drawn.
 * @param scrolled how far it is scrolled, in pixels
 * @param seen the height of what is seen of it, in pixels
 */
export function viewOf(layout: Layout, scrolled: number, seen: number): { height: number; items: Item[] } {
  const { height, ratio } = scales(layout, seen);
  const top = scrolled * ratio;
  if (!layout.count) return { height, items: [] };
  const first = Math.max(0, lineAt(layout, top) - BEYOND);
  const last = Math.min(layout.count - 1, lineAt(layout, top + seen) + BEYOND);
  const items = Array.from({ length: last - first + 1 }, (_, i): Item => ({
    index: first + i,
    start: startOf(layout, first + i) - top + scrolled,
    size: sizeOf(layout, first + i),
  }));
  return { height, items };
}

/** How far to scroll, as little as is needed, for a line to be seen whole. */
export function scrollTo(layout: Layout, index: number, scrolled: number, seen: number): number {
  const { ratio } = scales(layout, seen);
  const top = scrolled * ratio;
  const start = startOf(layout, index);
  const end = start + sizeOf(layout, index);
  if (start < top) return start / ratio;
  if (end > top + seen) return (end - seen) / ratio;
  return scrolled;
}
