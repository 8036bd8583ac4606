/** The numbers that stand in a document itself, read page after page: of its pages, and of its paragraphs. */
import type { Page } from '../documents/index.ts';
import { numberedParagraphs, paragraphCandidates, type NumberedParagraph } from './paragraphs.ts';
import { candidatesOf, printedRuns, type Candidate } from './printed.ts';
import type { NumberRun } from './runs.ts';

export interface NumbersInText {
  printed: NumberRun[];
  /** None where it does not count its paragraphs. */
  paragraphs: NumberedParagraph[];
}

/** Takes the pages of one document in their order. */
export class NumberReader {
  private readonly candidates: Candidate[][] = [];
  private readonly paragraphs: NumberedParagraph[] = [];

  take(page: Page): void {
    this.candidates[page.number - 1] = candidatesOf(page);
    this.paragraphs.push(...paragraphCandidates(page));
  }

  /** Of all the pages that were taken; those between that were not have no number. */
  read(): NumbersInText {
    return {
      printed: printedRuns(Array.from(this.candidates, (c) => c ?? [])),
      paragraphs: numberedParagraphs(this.paragraphs),
    };
  }
}
