/** Places of a PDF's own coordinates on the page as it is shown, and back (ISO 32000-1, 7.7.3.3 and 14.11.2). */
import type { Rect, Turn } from '../marks/index.ts';

/** What of a page is shown. */
export interface PageFrame {
  /** The crop box in user space: y grows upwards. */
  box: Rect;
  /** The page's own `Rotate`, clockwise. */
  rotate: Turn;
}

/** The size of the page as it is shown, in points. */
export function shownSize({ box, rotate }: PageFrame): { width: number; height: number } {
  const [across, up] = [box.x1 - box.x0, box.y1 - box.y0];
  return rotate % 180 ? { width: up, height: across } : { width: across, height: up };
}

interface Point {
  x: number;
  y: number;
}

function shown({ x, y }: Point, { box, rotate }: PageFrame): Point {
  switch (rotate) {
    case 0:
      return { x: x - box.x0, y: box.y1 - y };
    case 90:
      return { x: y - box.y0, y: x - box.x0 };
    case 180:
      return { x: box.x1 - x, y: y - box.y0 };
    case 270:
      return { x: box.y1 - y, y: box.x1 - x };
  }
}

function stored({ x, y }: Point, { box, rotate }: PageFrame): Point {
  switch (rotate) {
    case 0:
      return { x: x + box.x0, y: box.y1 - y };
    case 90:
      return { x: y + box.x0, y: x + box.y0 };
    case 180:
      return { x: box.x1 - x, y: y + box.y0 };
    case 270:
      return { x: box.x1 - y, y: box.y1 - x };
  }
}

const between = (a: Point, b: Point): Rect => ({
  x0: Math.min(a.x, b.x),
  y0: Math.min(a.y, b.y),
  x1: Math.max(a.x, b.x),
  y1: Math.max(a.y, b.y),
});

/** A rectangle of user space where it stands on the page as it is shown, from its upper left corner. */
export const toShown = ({ x0, y0, x1, y1 }: Rect, frame: PageFrame): Rect =>
  between(shown({ x: x0, y: y0 }, frame), shown({ x: x1, y: y1 }, frame));

/** A rectangle of the page as it is shown in user space. */
export const toStored = ({ x0, y0, x1, y1 }: Rect, frame: PageFrame): Rect =>
  between(stored({ x: x0, y: y0 }, frame), stored({ x: x1, y: y1 }, frame));

/** Reading order of the corners of a quadrilateral of `QuadPoints`: upper left, upper right, lower left, lower right, as all known readers have it (the standard says counter-clockwise; common practice). */
export function quadOf(rect: Rect, frame: PageFrame): number[] {
  const corners: [number, number][] = [
    [rect.x0, rect.y0],
    [rect.x1, rect.y0],
    [rect.x0, rect.y1],
    [rect.x1, rect.y1],
  ];
  return corners.flatMap(([x, y]) => {
    const at = stored({ x, y }, frame);
    return [at.x, at.y];
  });
}

/** The rectangles of `QuadPoints`, eight numbers each, in user space; what is no whole quadrilateral is left out. */
export function rectsOfQuads(numbers: readonly number[]): Rect[] {
  const out: Rect[] = [];
  for (let i = 0; i + 8 <= numbers.length; i += 8) {
    const of = numbers.slice(i, i + 8);
    const [xs, ys] = [of.filter((_, k) => k % 2 === 0), of.filter((_, k) => k % 2 === 1)];
    if (!of.every(Number.isFinite)) continue;
    out.push({ x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) });
  }
  return out;
}
