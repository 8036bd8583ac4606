/** Marks of a file where they stand in another of the same work. */
import { rectsOf, spanWithin, unpackWords } from '@pandecta/core/documents';
import { anchor, findQuote, isOnWords, likeness, quoteAt, type MarkPlace, type Shape } from '@pandecta/core/marks';

export interface StandingMark extends Omit<MarkPlace, 'file'> {
  shape: Shape;
}

export interface AnchoredPage {
  number: number;
  text: string;
  words: Uint8Array;
}

type Place = Pick<MarkPlace, 'page' | 'rects' | 'unplaced'> & Partial<Pick<MarkPlace, 'quote'>>;

/** A page is the same as another where so much of its words are: figures move with their page. */
const SAME_PAGE = 0.6;

export function anchored({
  marks,
  before,
  after,
}: {
  marks: StandingMark[];
  before: AnchoredPage[];
  after: AnchoredPage[];
}): Place[] {
  const old = new Map(before.map((p) => [p.number, p]));
  const now = new Map(after.map((p) => [p.number, p]));
  const words = new Map(after.map((p) => [p.number, unpackWords(p.words)]));
  const counterparts = new Map<number, number | undefined>();
  const counterpart = (page: number): number | undefined => {
    if (!counterparts.has(page)) counterparts.set(page, alike(old.get(page)?.text ?? '', page, after));
    return counterparts.get(page);
  };
  const lost = (page: number): Place => ({
    page: Math.max(1, Math.min(page, after.length)),
    rects: [],
    unplaced: true,
  });
  return marks.map((mark): Place => {
    if (!isOnWords(mark.shape)) {
      const page = counterpart(mark.page);
      return page && mark.rects.length ? { page, rects: mark.rects, unplaced: false } : lost(mark.page);
    }
    const was = old.get(mark.page);
    const span = was && (spanWithin(unpackWords(was.words), mark.rects) ?? findQuote(was.text, mark.quote));
    const at = anchor(after, mark.quote, mark.page, span?.start ?? 0);
    if (!at) return lost(mark.page);
    const quote = quoteAt(now.get(at.page)!.text, at.start, at.end);
    return { page: at.page, rects: rectsOf(words.get(at.page)!, at.start, at.end), quote, unplaced: false };
  });
}

/** The page that reads most like it, on its number before others; without words on either, the one of its number. */
function alike(text: string, page: number, after: AnchoredPage[]): number | undefined {
  const same = after.find((p) => p.number === page);
  if (!text.trim()) return same && !same.text.trim() ? page : undefined;
  let best: { page: number; share: number } | undefined;
  for (const p of [...(same ? [same] : []), ...after]) {
    const share = likeness(text, p.text);
    if (share >= SAME_PAGE && (!best || share > best.share)) best = { page: p.number, share };
  }
  return best?.page;
}
