/** Records as tagged MEDLINE: what it has no element for goes, as JSON, into one of our own. */
import { dateToEdtf, nameInverted, type Kind, type Name } from '../../source/index.ts';
import { firstOf } from '../../text/index.ts';
import type { Entry, Writable } from '../message.ts';
import { plainJson, remainderOf } from '../remainder.ts';
import { eachMedline, REMAINDER_TAG } from './read.ts';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const TYPE: Partial<Record<Kind, string>> = {
  'article-journal': 'Journal Article',
  book: 'Book',
  chapter: 'Book Chapter',
  thesis: 'Dissertation',
  report: 'Technical Report',
  article: 'Preprint',
  dataset: 'Dataset',
  'article-newspaper': 'Newspaper Article',
  legal_case: 'Legal Case',
};
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

export function* eachMedlineEntry(sources: Writable): Generator<string, void> {
  let before = '';
  for (const source of sources) {
    yield before + writeEntry(source);
    before = '\n';
  }
}

function writeEntry(source: Entry): string {
  const lines = standard(source);
  const [back] = eachMedline(lines);
  const remainder = remainderOf(source, back?.source);
  return remainder ? `${lines}${line(REMAINDER_TAG, plainJson(remainder))}` : lines;
}

const line = (tag: string, value: string | undefined): string => {
  const flat = value && oneLine(value);
  return flat ? `${tag.padEnd(4)}- ${flat}\n` : '';
};

function standard({ record: r, subjects }: Entry): string {
  const inBook = r.type === 'chapter' || r.type === 'paper-conference';
  const whole = r.type === 'book';
  const people = (list: Name[] | undefined, full: string, short: string): string =>
    (list ?? [])
      .map((n) => (n.literal ? line('CN', n.literal) : line(full, nameInverted(n)) + line(short, shortName(n))))
      .join('');
  const [y, month, day] = r.issued?.['date-parts']?.[0] ?? [];
  const date = y ? [y, month && MONTHS[month - 1], day].filter(Boolean).join(' ') : r.issued && dateToEdtf(r.issued);
  return (
    line('PMID', r.PMID ?? '-') +
    line('IS', r.ISSN) +
    line('ISBN', r.ISBN) +
    line('VI', r.volume) +
    line('IP', r.issue) +
    line('DP', date) +
    line('TI', whole ? undefined : r.title) +
    line('BTI', whole ? r.title : inBook ? r['container-title'] : undefined) +
    line('TT', r['original-title']) +
    line('PG', r.page) +
    line('LID', r.DOI && `${r.DOI} [doi]`) +
    line('AB', r.abstract) +
    people(r.author, 'FAU', 'AU') +
    people(r.editor, 'FED', 'ED') +
    line('LA', r.language) +
    line('PT', TYPE[r.type] ?? 'Journal Article') +
    line('PB', r.publisher) +
    line('PL', r['publisher-place']) +
    line('EN', r.edition) +
    line('CTI', r['collection-title']) +
    line('TA', inBook || whole ? undefined : (r['container-title-short'] ?? undefined)) +
    line('JT', inBook || whole ? undefined : r['container-title']) +
    subjects.map((s) => line('OT', s)).join('') +
    line('PMC', r.PMCID)
  );
}

const shortName = (n: Name): string =>
  [
    [n['non-dropping-particle'], n.family].filter(Boolean).join(' '),
    (n.given ?? '')
      .match(/\p{L}+/gu)
      ?.map((w) => firstOf(w).toUpperCase())
      .join(''),
    n.suffix,
  ]
    .filter(Boolean)
    .join(' ');
