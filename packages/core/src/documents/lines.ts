/** The lines of a stored page, told from its text and the places of its words. */
import type { Rect } from '../marks/index.ts';
import { boundsOf, median, type PageWord } from './page.ts';

export interface PageText {
  text: string;
  words: PageWord[];
}

export interface TextLine {
  /** Offsets into the text of the page. */
  start: number;
  end: number;
  words: PageWord[];
  box: Rect;
  /** Height of the type, in points. */
  size: number;
  /** What parts it from the next: a line, a paragraph, or nothing where a word was broken by a hyphen. */
  then: string;
}

/** Where a line ends the text has a line break, or nothing where a hyphen was taken out. */
export function linesOf({ text, words }: PageText): TextLine[] {
  const lines: PageWord[][] = [];
  for (const word of words) {
    const last = lines.at(-1)?.at(-1);
    const between = last ? text.slice(last.end, word.start) : '\n';
    if (!last || between.includes('\n') || !between) lines.push([word]);
    else lines.at(-1)!.push(word);
  }
  return lines.map((of, i) => {
    const [start, end] = [of[0]!.start, of.at(-1)!.end];
    const next = lines[i + 1]?.[0];
    return {
      start,
      end,
      words: of,
      box: boundsOf(of),
      size: median(of.map((w) => w.box.y1 - w.box.y0)),
      then: next ? text.slice(end, next.start) : '',
    };
  });
}

/** A line as it stands on the page: with the hyphen where its last word was broken. */
export const lineText = (text: string, lines: readonly TextLine[], at: number): string => {
  const { start, end, then } = lines[at]!;
  return text.slice(start, end) + (at < lines.length - 1 && !then ? '-' : '');
};

/**
 * The page with corrected lines in it; `corrections` has their texts by the number of the line in `page`, from 0. Where a corrected
 * line has as many words as before, they keep their boxes; otherwise each gets a share of the line's width by its letters.
 */
export function correctedPage(page: PageText, corrections: ReadonlyMap<number, string>): PageText {
  if (!corrections.size) return page;
  const lines = linesOf(page);
  let text = '';
  const words: PageWord[] = [];
  lines.forEach((line, i) => {
    const correction = corrections.get(i);
    const written = (correction ?? lineText(page.text, lines, i)).trim().split(/\s+/).filter(Boolean);
    const boxes = written.length === line.words.length ? line.words.map((w) => w.box) : shared(line.box, written);
    written.forEach((word, k) => {
      if (k) text += ' ';
      words.push({ start: text.length, end: text.length + word.length, box: boxes[k]! });
      text += word;
    });
    const next = lines[i + 1];
    if (!next || !written.length) return;
    const first = corrections.get(i + 1)?.trim() ?? page.text.slice(next.start, next.end);
    // A word broken at the end of the line goes on in the next.
    if (/\p{L}[-\u00AD‐]$/u.test(text) && /^\p{Ll}/u.test(first)) {
      text = text.slice(0, -1);
      words.at(-1)!.end -= 1;
    } else text += line.then || '\n';
  });
  return { text, words };
}

/** Words beside each other in a box, each as wide as it is long, with a space between. */
function shared({ x0, x1, y0, y1 }: Rect, words: string[]): Rect[] {
  const letters = words.reduce((n, w) => n + w.length, 0) + Math.max(0, words.length - 1);
  const width = (x1 - x0) / Math.max(1, letters);
  let at = x0;
  return words.map((word) => {
    const box = { x0: at, y0, x1: at + word.length * width, y1 };
    at = box.x1 + width;
    return box;
  });
}
