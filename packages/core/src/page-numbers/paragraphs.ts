/** The numbered paragraphs of a judgment, by which it is cited instead of by pages. */
import type { Page } from '../documents/index.ts';

export interface NumberedParagraph {
  number: number;
  /** Where it begins: the page, counted from 1, and how far down, in points. */
  page: number;
  y: number;
}

/** "[33]", "33.", "33" at the beginning of a line, with words after it or by itself. */
const NUMBER = /^(?:\[(\d{1,4})\]|(\d{1,4})[.)]?)$/;

/** So many must follow each other for a document to be cited by them. */
const FEWEST = 5;
/** Of the numbers up to the last so many must be there. */
const SHARE = 0.8;

/** What may begin a paragraph, from the top of the page. */
export function paragraphCandidates(page: Page): NumberedParagraph[] {
  return page.lines.flatMap(({ words, box }) => {
    const [first] = words;
    const m = first && NUMBER.exec(page.text.slice(first.start, first.end));
    const number = Number(m?.[1] ?? m?.[2]);
    return number ? [{ number, page: page.number, y: Math.round(box.y0) }] : [];
  });
}

/**
 * The paragraphs among the candidates of a whole document: those that count from 1 on, each after the one before. Numbers of a
 * list within a paragraph begin at 1 again and are none of them. Nothing where too few are found to be sure.
 */
export function numberedParagraphs(candidates: readonly NumberedParagraph[]): NumberedParagraph[] {
  const out: NumberedParagraph[] = [];
  for (const c of candidates) {
    const next = (out.at(-1)?.number ?? 0) + 1;
    // One that was not recognised is passed over.
    if (c.number === next || (out.length >= FEWEST && c.number === next + 1)) out.push(c);
  }
  const last = out.at(-1);
  return last && out.length >= FEWEST && out.length >= SHARE * last.number ? out : [];
}

/** The paragraph a place stands in; undefined before the first. @param y in points from the top of the page */
export const paragraphAt = (paragraphs: readonly NumberedParagraph[], page: number, y: number): number | undefined =>
  // The top of a word is above or below that of the number by the height of a letter.
  paragraphs.findLast((p) => p.page < page || (p.page === page && p.y <= y + 4))?.number;
