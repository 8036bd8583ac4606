/**
 * Citation keys: the short name by which a text cites a source, `[@okonjo2014]`. Made as family name and year of the
 * record, in lower-case ASCII; a letter is added where another source has that key already: okonjo2014, okonjo2014a,
 * okonjo2014b. Without a name it begins with the first telling word of the title.
 */
import { isFunctionWord, fold, stem } from '../words/index.ts';
import { isOthers, namesShort, withoutMarkup, yearOf, type SourceRecord } from '../source/index.ts';

/** In characters. */
export const LONGEST_CITATION_KEY = 100;

/**
 * Whether programs that read keys take it: no blanks and none of the characters that end a key in BibTeX (btparse) or
 * stand for something in LaTeX; what ends a key in Markdown (the citation syntax of pandoc's manual) is left out too.
 */
export const isCitationKey = (text: string): boolean =>
  text.length <= LONGEST_CITATION_KEY && /^[\p{L}\p{N}_][^\s,;@{}()[\]"#%~\\=]*$/u.test(text);

export const KEPT_CITATION_KEY = 'cite:';
/** How a key stands among the other keys a source is looked up by: letters of either case are the same. */
export const keptCitationKey = (key: string): string => KEPT_CITATION_KEY + key.toLowerCase();

const letters = (text: string): string =>
  fold(text)
    .replace(/[^a-z0-9]/g, '')
    .slice(0, 40);

/** The key a record would have if no other source had it. Lower-case letters and digits. */
export function makeCitationKey(record: SourceRecord): string {
  const people = (record.author ?? record.editor ?? record.director ?? record.translator)?.filter((n) => !isOthers(n));
  const name = letters(namesShort(people?.slice(0, 1)));
  const words = withoutMarkup(record.title ?? '').split(/[^\p{L}\p{N}]+/u);
  const telling = words.find((w) => letters(w).length > 2 && !isFunctionWord(stem(w))) ?? words.find((w) => letters(w));
  const year = yearOf(record.issued);
  return `${name || letters(telling ?? '') || record.type}${year === undefined ? '' : Math.abs(year)}`;
}

/** The key the record came with, where it can be kept, or else one made of it. */
export function wantedCitationKey(record: SourceRecord): string {
  const own = record['citation-key'];
  return own && isCitationKey(own) ? own : makeCitationKey(record);
}

/** The first free one of a key and the same with letters behind it: x, xa … xz, xaa … `isTaken` is asked in lower case. */
export function freeCitationKey(wanted: string, isTaken: (key: string) => boolean): string {
  for (let i = -1; ; i += 1) {
    const key = i < 0 ? wanted : `${wanted}${suffix(i)}`;
    if (!isTaken(key.toLowerCase())) return key;
  }
}

const suffix = (i: number): string =>
  (i >= 26 ? suffix(Math.floor(i / 26) - 1) : '') + String.fromCharCode(97 + (i % 26));
