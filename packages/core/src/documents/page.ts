/** The text of one page with the place of every word on it. */
import type { Rect } from '../marks/index.ts';

export interface PageWord {
  /** Offsets into the text of the page. */
  start: number;
  end: number;
  box: Rect;
}

export interface PageLine {
  text: string;
  /** The words of the line, with their places in the text of the page. */
  words: PageWord[];
  box: Rect;
  /** Height of the type, in points. */
  size: number;
}

export interface Page {
  /** From 1. */
  number: number;
  /** In points. */
  width: number;
  height: number;
  text: string;
  words: PageWord[];
  lines: PageLine[];
}

/** The upper of two in the middle; 0 of none. */
export function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}

/** The rectangle that holds all the words. */
export function boundsOf(words: PageWord[]): Rect {
  return {
    x0: Math.min(...words.map((w) => w.box.x0)),
    y0: Math.min(...words.map((w) => w.box.y0)),
    x1: Math.max(...words.map((w) => w.box.x1)),
    y1: Math.max(...words.map((w) => w.box.y1)),
  };
}

const STEP = 10;

/**
 * Words as 16-bit numbers, six each: gap from the end of the last word, length, and x0, y0, x1, y1 in tenths of a
 * point. Little-endian on every machine, so that what one server wrote another can read.
 */
export function packWords(words: PageWord[]): Uint8Array {
  const out = new DataView(new ArrayBuffer(words.length * 12));
  let last = 0;
  words.forEach((w, i) => {
    const at = i * 12;
    const values = [
      w.start - last,
      w.end - w.start,
      w.box.x0 * STEP,
      w.box.y0 * STEP,
      w.box.x1 * STEP,
      w.box.y1 * STEP,
    ];
    values.forEach((v, k) => out.setUint16(at + k * 2, Math.max(0, Math.min(65535, Math.round(v))), true));
    last = w.end;
  });
  return new Uint8Array(out.buffer);
}

export function unpackWords(bytes: Uint8Array): PageWord[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const words: PageWord[] = [];
  let last = 0;
  for (let at = 0; at + 12 <= bytes.byteLength; at += 12) {
    const n = (k: number): number => view.getUint16(at + k * 2, true);
    const start = last + n(0);
    last = start + n(1);
    words.push({ start, end: last, box: { x0: n(2) / STEP, y0: n(3) / STEP, x1: n(4) / STEP, y1: n(5) / STEP } });
  }
  return words;
}

/** The rectangles that cover a span of a page's text: one a line, words on one line joined. */
export function rectsOf(words: PageWord[], start: number, end: number): Rect[] {
  const out: Rect[] = [];
  for (const w of words) {
    if (w.end <= start || w.start >= end) continue;
    const last = out.at(-1);
    const sameLine = last && Math.abs(last.y0 - w.box.y0) < (w.box.y1 - w.box.y0) * 0.6 && w.box.x0 >= last.x0;
    if (sameLine) {
      last.x1 = Math.max(last.x1, w.box.x1);
      last.y0 = Math.min(last.y0, w.box.y0);
      last.y1 = Math.max(last.y1, w.box.y1);
    } else out.push({ ...w.box });
  }
  return out;
}

/** The span of a page's text that stands within rectangles: of the words whose middle is in one, from the first to the last. */
export function spanWithin(
  words: readonly PageWord[],
  rects: readonly Rect[],
): { start: number; end: number } | undefined {
  let span: { start: number; end: number } | undefined;
  for (const { start, end, box } of words) {
    const [x, y] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
    if (!rects.some((r) => r.x0 <= x && x <= r.x1 && r.y0 <= y && y <= r.y1)) continue;
    span = span ? { start: Math.min(span.start, start), end: Math.max(span.end, end) } : { start, end };
  }
  return span;
}
