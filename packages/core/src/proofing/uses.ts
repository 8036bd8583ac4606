/** Which variables a style prints for a kind of source: found by printing a source that has all of them. */
import type { Citer } from '../citing/index.ts';
import { DATE_VARIABLES, NAME_VARIABLES, TEXT_VARIABLES, type Kind, type SourceRecord } from '../source/index.ts';

/** Stands among the variables where the style sets titles in title case. */
export const TITLE_CASE = 'title case';

/** A word for each variable that stands in no style and in no other. */
const wordFor = (n: number): string =>
  `zq${String.fromCharCode(97 + Math.floor(n / 26))}${String.fromCharCode(97 + (n % 26))}x`;
/** What is told by its own signs, with a value that is told again. */
const NUMBERS = new Set(['volume', 'issue', 'page', 'page-first', 'edition', 'number', 'chapter-number', 'number-of-pages', 'number-of-volumes', 'collection-number']); // prettier-ignore
const DATES = DATE_VARIABLES.filter((v) => v !== 'submitted');

/** The value of each variable, and what shows that it was printed. */
function probe(kind: Kind, without: ReadonlySet<string>): { record: SourceRecord; marks: Map<string, RegExp> } {
  const record: Record<string, unknown> = { type: kind };
  const marks = new Map<string, RegExp>();
  let n = 0;
  for (const v of NAME_VARIABLES) {
    if (without.has(v)) continue;
    record[v] = [{ family: `Q${wordFor(n).slice(1)}`, given: 'Ada' }];
    marks.set(v, new RegExp(wordFor(n).slice(1), 'i'));
    n += 1;
  }
  for (const v of TEXT_VARIABLES) {
    if (without.has(v)) continue;
    if (NUMBERS.has(v)) {
      record[v] = v === 'edition' ? '73' : String(61_001 + n * 7);
      marks.set(v, new RegExp(String(record[v])));
    } else if (v === 'DOI') {
      record[v] = `10.5555/${wordFor(n)}`;
      marks.set(v, new RegExp(wordFor(n), 'i'));
    } else if (v === 'URL') {
      record[v] = `https://${wordFor(n)}.example/`;
      marks.set(v, new RegExp(wordFor(n), 'i'));
    } else {
      record[v] = `Q${wordFor(n).slice(1)}`;
      marks.set(v, new RegExp(wordFor(n).slice(1), 'i'));
    }
    n += 1;
  }
  for (const [i, v] of DATES.entries()) {
    if (without.has(v)) continue;
    record[v] = { 'date-parts': [[1601 + i * 13, 5, 9]] };
    marks.set(v, new RegExp(String(1601 + i * 13)));
  }
  return { record: record as unknown as SourceRecord, marks };
}

/** A style prints one thing where another is missing: what was printed is taken away, and what then stands there is looked at. */
const ROUNDS = 3;
/** What hides others where it stands: the short forms go first. */
const HIDES = ['title-short', 'container-title-short', 'citation-label', 'citation-number', 'year-suffix', 'locator'];

/** What sources usually have: rarer things would stand in their place, as a composer in that of an author. */
const USUAL = new Set<string>(['author', 'editor', 'title', 'container-title', 'collection-title', 'publisher', 'publisher-place', 'volume', 'issue', 'page', 'edition', 'issued', 'accessed', 'DOI', 'URL', 'ISBN', 'genre', 'authority', 'archive', 'archive_location', 'event-title']); // prettier-ignore
const ALL: readonly string[] = [...NAME_VARIABLES, ...TEXT_VARIABLES, ...DATES];

/** The variables a style prints for a kind, and `TITLE_CASE` where it sets titles so. */
export function usesOf(citer: Citer, kind: Kind): Set<string> {
  const used = new Set<string>();
  const rare = ALL.filter((v) => !USUAL.has(v));
  for (const first of [[...rare, ...HIDES], HIDES]) {
    const without = new Set<string>(first);
    for (let round = 0; round < ROUNDS; round += 1) {
      const { record, marks } = probe(kind, without);
      const source = { id: 'probe', record };
      const printed = (citer.bibliography([source]).entries[0]?.text ?? '') + citer.citation([source]);
      const found = [...marks].filter(([, mark]) => mark.test(printed)).map(([v]) => v);
      found.forEach((v) => used.add(v));
      // An address hides behind a DOI, an editor behind an author.
      const next = found.filter((v) => ['DOI', 'URL', 'author', 'page', 'issued'].includes(v));
      if (!next.length) break;
      next.forEach((v) => without.add(v));
    }
  }
  if (setsTitleCase(citer, kind)) used.add(TITLE_CASE);
  return used;
}

const probed = new WeakMap<Citer, Map<Kind, ReadonlySet<string>>>();

/** The same for records one after another: each kind is probed once, as long as the processor is kept. */
export function usesByKind(citer: Citer): (kind: Kind) => ReadonlySet<string> {
  const known = probed.get(citer) ?? new Map<Kind, ReadonlySet<string>>();
  probed.set(citer, known);
  return (kind) => {
    const uses = known.get(kind) ?? usesOf(citer, kind);
    known.set(kind, uses);
    return uses;
  };
}

/** Whether the style writes the words of titles great itself, whatever the record has. */
function setsTitleCase(citer: Citer, kind: Kind): boolean {
  const record: SourceRecord = { type: kind, title: 'zebra quartz under winter rivers', author: [{ family: 'Ada' }], issued: { 'date-parts': [[1999]] } }; // prettier-ignore
  const source = { id: 'case', record };
  return /Winter Rivers/.test((citer.bibliography([source]).entries[0]?.text ?? '') + citer.citation([source]));
}
