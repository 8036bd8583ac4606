/** The parts of a paragraph: those that are marked, the word that is spoken, and those between. */
import { findQuote, isOnWords } from '@pandecta/core/marks';
import type { Mark } from '@pandecta/contract';

interface Span {
  start: number;
  end: number;
}

export interface Part {
  text: string;
  /** Of its beginning in the paragraph. */
  at: number;
  /** The last made of the marks it is in. */
  mark?: Mark;
  isSpoken: boolean;
}

/**
 * @param marks those of the page the paragraph is on; one whose words are not in it is in none of its parts
 * @param spoken where the word is that is read aloud
 */
export function partsOf(text: string, marks: readonly Mark[], spoken?: Span): Part[] {
  const spans = marks.flatMap((mark) => {
    const at = isOnWords(mark.shape) ? findQuote(text, mark.quote) : undefined;
    return at ? [{ ...at, mark }] : [];
  });
  const ends = [...spans, ...(spoken ? [spoken] : [])].flatMap((s) => [s.start, Math.min(s.end, text.length)]);
  const edges = [...new Set([0, text.length, ...ends])].sort((a, b) => a - b);
  return edges.slice(0, -1).map((at, i) => {
    const isIn = (s: Span): boolean => s.start <= at && s.end > at;
    const mark = spans.findLast(isIn)?.mark;
    return { text: text.slice(at, edges[i + 1]), at, isSpoken: Boolean(spoken && isIn(spoken)), ...(mark && { mark }) };
  });
}
