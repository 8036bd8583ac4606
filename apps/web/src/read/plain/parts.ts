/** The parts of a paragraph: those that are marked, and those between. */
import { findQuote, isOnWords } from '@pandecta/core/marks';
import type { Mark } from '@pandecta/contract';

export interface Part {
  text: string;
  /** Of its beginning in the paragraph. */
  at: number;
  /** The last made of the marks it is in. */
  mark?: Mark;
}

/** @param marks those of the page the paragraph is on; one whose words are not in it is in none of its parts */
export function partsOf(text: string, marks: readonly Mark[]): Part[] {
  const spans = marks.flatMap((mark) => {
    const at = isOnWords(mark.shape) ? findQuote(text, mark.quote) : undefined;
    return at ? [{ ...at, mark }] : [];
  });
  const edges = [...new Set([0, text.length, ...spans.flatMap((s) => [s.start, s.end])])].sort((a, b) => a - b);
  return edges.slice(0, -1).map((at, i) => {
    const mark = spans.findLast((s) => s.start <= at && s.end > at)?.mark;
    return { text: text.slice(at, edges[i + 1]), at, ...(mark && { mark }) };
  });
}
