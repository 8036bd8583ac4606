/**
 * Titles: which of an entry's titles is that of the work, of the volume and of the whole it stands in, each with its
 * subtitle and addition. Source: BibLaTeX manual, 2.2.2 and 2.3.5; CSL 1.0.2, `volume-title`.
 */
import type { SourceRecord } from '../../source/index.ts';
import { latexToText, type Reading } from '../latex/index.ts';
import { isPart, type Fields } from './inherit.ts';
import { KIND_OF_ENTRY } from './tables.ts';

/** Fields read here and nowhere else. */
export const TITLE_FIELDS = new Set(
  ['', 'book', 'main', 'journal', 'issue'].flatMap((of) => [`${of}title`, `${of}subtitle`, `${of}titleaddon`]),
).add('journal');

/** Works that stand for themselves: what they name as their book is their own title (BibTeX's parents by crossref). */
const WHOLE = /^(?:mv)?(?:book|collection|proceedings|reference)$|^(?:manual|booklet|periodical)$/;

export function readTitles(
  record: SourceRecord,
  type: string,
  fields: Fields,
  reading: Reading,
  kept: Record<string, string>,
): void {
  const used = new Set<string>();
  const title = (of: string, name = `${of}title`): string | undefined => {
    const text = (field: string): string | undefined => {
      const found = fields.get(field);
      const words = found && latexToText(found.value, reading);
      if (words) used.add(field);
      return words;
    };
    const main = text(name);
    if (!main) return undefined;
    const sub = text(`${of}subtitle`);
    const addon = text(`${of}titleaddon`);
    const whole = sub ? joined(main, ':', sub) : main;
    return addon ? joined(whole, '.', addon) : whole;
  };
  const put = (variable: 'title' | 'container-title' | 'volume-title', value: string | undefined): void => {
    if (value) record[variable] = value;
  };
  const main = title('main');
  if (type === 'periodical' || KIND_OF_ENTRY[type] === 'article-journal') {
    const journal = title('journal', fields.has('journaltitle') ? 'journaltitle' : 'journal');
    if (type === 'periodical') {
      const own = title('');
      put('title', own ?? journal);
      if (own && journal && !sameTitle(own, journal)) ['journal', 'journaltitle'].forEach((f) => used.delete(f));
    } else {
      put('title', title(''));
      put('container-title', journal);
    }
    put('volume-title', title('issue'));
  } else if (isPart(type)) {
    const book = title('book');
    put('title', title(''));
    put('container-title', main ?? book);
    if (main && book && book !== main) put('volume-title', book);
  } else {
    const own = title('');
    const book = title('book');
    const alone = own ?? (WHOLE.test(type) ? book : undefined);
    put('title', main ?? alone);
    if (main && alone && alone !== main) put('volume-title', alone);
    const container = title('journal', fields.has('journaltitle') ? 'journaltitle' : 'journal');
    if (!WHOLE.test(type)) put('container-title', container ?? book);
    // A number of a journal may be a book as well.
    else if (container && !sameTitle(container, own ?? '')) put('container-title', container);
    if (WHOLE.test(type) && book && !sameTitle(book, own ?? book)) used.delete('booktitle');
    if (container && book && !WHOLE.test(type)) used.delete('booktitle');
  }
  for (const name of TITLE_FIELDS) if (!used.has(name) && fields.has(name)) kept[name] = fields.get(name)!.value;
}

const joined = (main: string, mark: string, more: string): string =>
  /[?!.]$/.test(main) ? `${main} ${more}` : `${main}${mark} ${more}`;

const sameTitle = (a: string, b: string): boolean => letters(a) === letters(b);
const letters = (t: string): string => t.toLowerCase().replace(/<[^>]+>|[^\p{L}\p{N}]+/gu, '');
