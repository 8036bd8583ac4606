/** How the place of a mark or a hit is written: "p. 212", "para 33", "f. 12r". */
import { citedPage, type CitedPages } from './cited.ts';
import { paragraphAt } from './paragraphs.ts';

const PARAGRAPH = /^para (\d+)$/;
const FOLIO = /^\d+[rv]$/;

/** A place on a page as it is cited: of a judgment by its paragraph, else by its page. @param y in points from the top of the page */
export function citedPlace(cited: CitedPages, page: number, y: number | undefined): string {
  const paragraph = y === undefined ? undefined : paragraphAt(cited.paragraphs ?? [], page, y);
  return paragraph === undefined ? citedPage(cited, page) : `para ${paragraph}`;
}

/** With what is counted before it. @param cited of `citedPage` or `citedPlace` */
export const placeWritten = (cited: string): string =>
  PARAGRAPH.test(cited) ? cited : FOLIO.test(cited) ? `f. ${cited}` : `p. ${cited}`;

/** As a citation has it (CSL 1.0.2, locators); nothing of a page without a number. */
export function locatorOf(cited: string): { label?: 'paragraph' | 'folio'; locator?: string } {
  const paragraph = PARAGRAPH.exec(cited)?.[1];
  if (paragraph) return { label: 'paragraph', locator: paragraph };
  if (FOLIO.test(cited)) return { label: 'folio', locator: cited };
  return cited.startsWith('[') ? {} : { locator: cited };
}
