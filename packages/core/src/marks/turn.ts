/** Places on a page that is shown turned. */
import type { Rect } from './quote.ts';

/** Clockwise, in degrees. */
export const TURNS = [0, 90, 180, 270] as const;
export type Turn = (typeof TURNS)[number];

/** The turn one quarter further, clockwise; or back. */
export const turned = (turn: Turn, by: 90 | -90): Turn => TURNS[(TURNS.indexOf(turn) + (by > 0 ? 1 : 3)) % 4]!;

/** A rectangle of an upright page where it stands on the turned one. @param page the size of the upright page */
export function turnRect({ x0, y0, x1, y1 }: Rect, page: { width: number; height: number }, turn: Turn): Rect {
  const { width: w, height: h } = page;
  switch (turn) {
    case 0:
      return { x0, y0, x1, y1 };
    case 90:
      return { x0: h - y1, y0: x0, x1: h - y0, y1: x1 };
    case 180:
      return { x0: w - x1, y0: h - y1, x1: w - x0, y1: h - y0 };
    case 270:
      return { x0: y0, y0: w - x1, x1: y1, y1: w - x0 };
  }
}

/** A rectangle of the turned page where it stands on the upright one. @param page the size of the upright page */
export function turnBack(rect: Rect, page: { width: number; height: number }, turn: Turn): Rect {
  const shown = turn % 180 ? { width: page.height, height: page.width } : page;
  return turnRect(rect, shown, ((360 - turn) % 360) as Turn);
}
