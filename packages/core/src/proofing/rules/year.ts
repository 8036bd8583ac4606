import { yearOf } from '../../source/index.ts';
import type { Rule } from '../rule.ts';

/** Movable type, and so anything with a volume or an ISBN, is not older (common knowledge: Gutenberg, about 1450). */
const FIRST_PRINT = 1450;
/** The first scholarly journals (common knowledge: 1665). */
const FIRST_JOURNAL = 1665;

/** Kinds nobody made before there was print. */
const PRINTED = new Set<string>(['article-journal', 'article-magazine', 'article-newspaper', 'book', 'chapter', 'paper-conference', 'report', 'thesis', 'webpage', 'post-weblog', 'dataset', 'software', 'patent', 'review', 'review-book', 'entry-encyclopedia', 'motion_picture', 'broadcast']); // prettier-ignore

export const year: Rule = {
  id: 'year',
  severity: 'wrong',
  title: 'Impossible year',
  why: 'A year that cannot be is a slip, and sorts the work to where nobody looks.',
  find({ record, thisYear }) {
    const y = yearOf(record.issued);
    if (y === undefined) return [];
    const found = (what: string, sure: number) => [{ field: 'issued', what, sure }];
    if (thisYear !== undefined && y > thisYear + 1) return found(`${y} is in the future`, 0.97);
    if (y > 2200) return found(`${y} is in the future`, 0.97);
    if (record.type === 'article-journal' && y < FIRST_JOURNAL) return found(`There were no journals in ${y}`, 0.95);
    if (y > 99 && y < 1000 && PRINTED.has(record.type)) return found(`${y} has three digits`, 0.9);
    if ((record.DOI ?? record.ISBN) !== undefined && y < FIRST_PRINT) return found(`Nothing was printed in ${y}`, 0.9);
    return [];
  },
};
