/** Tagged MEDLINE ("MEDLINE/PubMed Data Element Descriptions", National Library of Medicine) as records. */
import { normalisePmcid } from '../../identifiers/index.ts';
import { Making, parseName, type Kind, type Name } from '../../source/index.ts';
import { EMPTY, itemOf, type Item, type ReadSource } from '../message.ts';
import { applyRemainder } from '../remainder.ts';

/** A tag of two to four signs, a hyphen in the fifth column, a blank. */
const TAG = /^([A-Z]{2,4}) {0,2}- ?(.*)$/;
/** The tag of our own in which what MEDLINE has no place for stands; the list of elements has none of this name. */
export const REMAINDER_TAG = 'XRMD';

type Lines = [tag: string, value: string][];

export function* eachMedline(text: string): Generator<Item, void> {
  let lines: Lines = [];
  let began = 1;
  let some = false;
  let number = 0;
  const give = (): Item => {
    some = true;
    const item = itemOf(began, () => readEntry(lines, began));
    lines = [];
    return item;
  };
  for (const raw of text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/)) {
    number += 1;
    const m = TAG.exec(raw);
    if (m) {
      if (m[1] === 'PMID' && lines.length) yield give();
      if (!lines.length) began = number;
      lines.push([m[1]!, m[2]!.trim()]);
    } else if (/^ {2,}\S/.test(raw) && lines.length) {
      lines.at(-1)![1] += ` ${raw.trim()}`;
    } else if (!raw.trim()) {
      if (lines.length) yield give();
    } else {
      yield {
        message: {
          severity: 'warning',
          rule: 'stray-line',
          line: number,
          column: 1,
          what: `A line belongs to no field: “${raw.slice(0, 60)}”`,
          done: 'left out',
        },
      };
    }
  }
  if (lines.length) yield give();
  if (!some) yield { message: EMPTY };
}

/** Publication types that tell the kind. */
const KINDS: [RegExp, Kind][] = [
  [/^book chapter|book section/i, 'chapter'],
  [/^books?\b|monograph/i, 'book'],
  [/dissertation|thesis/i, 'thesis'],
  [/technical report/i, 'report'],
  [/^preprint/i, 'article'],
  [/^dataset/i, 'dataset'],
  [/newspaper article/i, 'article-newspaper'],
  [/legal case/i, 'legal_case'],
];

function readEntry(lines: Lines, line: number): ReadSource {
  const all = (tag: string): string[] => lines.filter(([t]) => t === tag).map(([, v]) => v);
  const first = (...tags: string[]): string | undefined => tags.flatMap(all).find(Boolean);
  const m = new Making();
  const types = all('PT');
  const isBook = Boolean(first('BTI'));
  // A full stop ends every title there; one in brackets is translated.
  const title = first('TI', 'BTI')?.replace(/\.$/, '');
  m.text('title', title?.replace(/^\[(.*)\]$/, '$1'));
  m.text('original-title', first('TT')?.replace(/\.$/, ''));
  m.names('author', namesOf(all('FAU'), all('AU')));
  m.names(
    'author',
    all('CN').map((literal) => ({ literal })),
  );
  m.names('editor', namesOf(all('FED'), all('ED')));
  m.date(first('DP') && dateOf(first('DP')!));
  m.text('container-title', first('JT', 'TA'));
  if (first('JT')) m.text('container-title-short', first('TA'));
  if (isBook && first('TI') !== undefined) m.text('container-title', first('BTI'));
  m.text('volume', first('VI'));
  m.text('issue', first('IP'));
  m.text('page', first('PG') && wholePages(first('PG')!));
  for (const id of [...all('LID'), ...all('AID'), ...all('DOI')])
    if (/\[doi\]$/i.test(id) || !/\[/.test(id)) m.doi(id.replace(/\s*\[doi\]$/i, ''));
  m.text('PMID', first('PMID'));
  m.text('PMCID', normalisePmcid(first('PMC') ?? ''));
  // The number of the printed journal, where several are given.
  const issns = all('IS');
  m.issn((issns.find((i) => /print/i.test(i)) ?? issns[0])?.replace(/\s*\(.*$/, ''));
  m.isbn(first('ISBN'));
  m.text('publisher', first('PB'));
  m.text('publisher-place', isBook ? first('PL') : undefined);
  m.text('edition', first('EN'));
  m.text('collection-title', first('CTI'));
  m.text('language', first('LA'));
  m.text('abstract', first('AB'));
  m.text('note', all('GN').join('\n') || undefined);
  m.about([...all('MH').map((h) => h.replaceAll('*', '')), ...all('OT').map((h) => h.replace(/^\*/, ''))]);
  const told = types.flatMap((t) => KINDS.find(([like]) => like.test(t))?.[1] ?? [])[0];
  const kind = told ?? (isBook ? (first('TI') ? 'chapter' : 'book') : 'article-journal');
  const source: ReadSource = { record: m.as(kind), subjects: m.subjects, line };
  for (const rest of all(REMAINDER_TAG)) applyRemainder(source, rest);
  return source;
}

/** Full names where there are any; else "Halvard RM" with its initials. */
function namesOf(full: string[], short: string[]): Name[] {
  if (full.length) return full.map((n) => (/,/.test(n) ? parseName(n) : { literal: n }));
  return short.map((n) => {
    const m = /^(.+?)\s+(\p{Lu}{1,4})(?:\s+(Jr|Sr|\d?(?:nd|rd|th)))?$/u.exec(n);
    return m ? { ...parseName(`${m[1]}, ${[...m[2]!].join('. ')}.`), ...(m[3] && { suffix: m[3] }) } : { literal: n };
  });
}

/** "2014 Mar 3", "2014 Mar-Apr", "2014 Spring" in the order people write. */
function dateOf(text: string): string {
  const m = /^(\d{4})\s+([A-Z][a-z]+)(?:-[A-Z][a-z]+)?(?:\s+(\d{1,2})(?:-\d{1,2})?)?$/.exec(text);
  if (!m) return /^\d{4}/.exec(text)?.[0] && /^\d{4}\b/.test(text) ? text.replace(/^(\d{4})\s+\S.*$/, '$1') : text;
  return [m[3], m[2], m[1]].filter(Boolean).join(' ');
}

/** "201-9" in full: "201-209". */
export function wholePages(text: string): string {
  return text.replace(/^(\d+)-(\d+)$/, (whole, from: string, to: string) =>
    to.length < from.length ? `${from}-${from.slice(0, from.length - to.length)}${to}` : whole,
  );
}
