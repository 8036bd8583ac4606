/** MODS 3 (Metadata Object Description Schema, Library of Congress) as records. */
import { plainDoi, normaliseIsbn, normaliseIssn } from '../../identifiers/index.ts';
import {
  parseDate,
  parseName,
  type Kind,
  type Name,
  type SourceRecord,
  type TextVariable,
} from '../../source/index.ts';
import type { Item, ReadSource } from '../message.ts';
import { eachEntry } from '../xml/each.ts';
import { readRemainder } from '../xml/remainder.ts';
import { childOf, childrenOf, textAt, type Element } from '../xml/tree.ts';

export const eachMods = (text: string): Iterable<Item> => eachEntry(text, ['mods'], readMods);

/** MARC relator codes and terms (id.loc.gov/vocabulary/relators) for the roles a record has. */
const ROLES: Record<
  string,
  'author' | 'editor' | 'translator' | 'illustrator' | 'compiler' | 'recipient' | 'interviewer'
> = {
  aut: 'author',
  author: 'author',
  cre: 'author',
  creator: 'author',
  dis: 'author',
  edt: 'editor',
  editor: 'editor',
  trl: 'translator',
  translator: 'translator',
  ill: 'illustrator',
  com: 'compiler',
  rcp: 'recipient',
  ivr: 'interviewer',
};

/** Genres, after the MARC genre terms and what catalogues write. */
const GENRES: [RegExp, Kind][] = [
  [/journal article|^article$|academic journal/i, 'article-journal'],
  [/newspaper article/i, 'article-newspaper'],
  [/conference (?:paper|publication)/i, 'paper-conference'],
  [/book chapter|chapter/i, 'chapter'],
  [/thesis|dissertation/i, 'thesis'],
  [/technical report|report/i, 'report'],
  [/legal case|law report|judgment/i, 'legal_case'],
  [/legislation|statute/i, 'legislation'],
  [/web ?site|web page/i, 'webpage'],
  [/manuscript/i, 'manuscript'],
  [/letter/i, 'personal_communication'],
  [/map/i, 'map'],
  [/dataset/i, 'dataset'],
  [/patent/i, 'patent'],
  [/book|monograph/i, 'book'],
  [/periodical|journal|newspaper/i, 'periodical'],
];

export function readMods(mods: Element): ReadSource {
  const host = childrenOf(mods, 'relatedItem').find((r) => r.attributes.type === 'host');
  const series = childrenOf(mods, 'relatedItem').find((r) => r.attributes.type === 'series');
  const record: SourceRecord = { type: kindOf(mods, host) };
  const put = (field: TextVariable, value: string | undefined): void => {
    if (value && !record[field]) record[field] = value;
  };
  put('title', titleOf(mods));
  put('title-short', childrenOf(mods, 'titleInfo').find((t) => t.attributes.type === 'abbreviated')?.children[0]?.text);
  readNames(mods, record);
  readOrigin(childOf(mods, 'originInfo'), record, put);
  if (host) {
    put('container-title', titleOf(host));
    put(
      'container-title-short',
      childrenOf(host, 'titleInfo').find((t) => t.attributes.type === 'abbreviated')?.children[0]?.text,
    );
    for (const n of childrenOf(host, 'name')) if (roleOf(n) === 'editor') (record.editor ??= []).push(nameOf(n));
    readPart(childOf(host, 'part'), record, put);
    readOrigin(childOf(host, 'originInfo'), record, put);
    for (const id of childrenOf(host, 'identifier')) putIdentifier(id, put, true);
  }
  readPart(childOf(mods, 'part'), record, put);
  put('collection-title', series && titleOf(series));
  put('collection-number', textAt(series, 'part', 'detail', 'number') ?? textAt(series, 'titleInfo', 'partNumber'));
  for (const id of childrenOf(mods, 'identifier')) putIdentifier(id, put, false);
  put('abstract', textAt(mods, 'abstract'));
  put('language', textAt(mods, 'language', 'languageTerm'));
  put('URL', textAt(mods, 'location', 'url'));
  put('call-number', textAt(mods, 'location', 'shelfLocator') ?? textAt(mods, 'classification'));
  put(
    'note',
    childrenOf(mods, 'note')
      .map((n) => n.text)
      .join('\n') || undefined,
  );
  if (record.type === 'book' || record.type === 'thesis') {
    const pages = /(\d+)\s*p/.exec(textAt(mods, 'physicalDescription', 'extent') ?? '')?.[1];
    put('number-of-pages', pages);
  }
  if (record.type === 'thesis' || record.type === 'report')
    put('genre', childrenOf(mods, 'genre').find((g) => !/^(?:thesis|report)$/i.test(g.text))?.text);
  const subjects = childrenOf(mods, 'subject').flatMap((s) =>
    s.children.filter((c) => ['topic', 'geographic', 'temporal'].includes(c.name) && c.text).map((c) => c.text),
  );
  return readRemainder(mods, { record, subjects: [...new Set(subjects)], line: mods.line });
}

/** The number the catalogue knows the record by. */
export const modsIdentifier = (mods: Element): string | undefined => textAt(mods, 'recordInfo', 'recordIdentifier');

function kindOf(mods: Element, host: Element | undefined): Kind {
  const genres = [...childrenOf(mods, 'genre'), ...(host ? childrenOf(host, 'genre') : [])].map((g) => g.text);
  for (const g of genres.slice(0, childrenOf(mods, 'genre').length)) {
    const found = GENRES.find(([pattern]) => pattern.test(g))?.[1];
    if (found) return host && found === 'book' ? 'chapter' : found;
  }
  const resource = textAt(mods, 'typeOfResource') ?? '';
  if (host) {
    const serial =
      /continuing|serial/i.test(textAt(host, 'originInfo', 'issuance') ?? '') ||
      genres.some((g) => /periodical|journal/i.test(g));
    return serial ||
      childrenOf(host, 'identifier').some((i) => i.attributes.type === 'issn') ||
      textAt(host, 'part', 'detail', 'number')
      ? 'article-journal'
      : 'chapter';
  }
  if (/cartographic/.test(resource)) return 'map';
  if (/sound recording/.test(resource)) return 'song';
  if (/moving image/.test(resource)) return 'motion_picture';
  if (/still image/.test(resource)) return 'graphic';
  if (childOf(mods, 'typeOfResource')?.attributes.manuscript === 'yes') return 'manuscript';
  return childOf(mods, 'originInfo') || /text/.test(resource) ? 'book' : 'document';
}

function titleOf(e: Element): string | undefined {
  const info = childrenOf(e, 'titleInfo').find((t) => !t.attributes.type) ?? childOf(e, 'titleInfo');
  const title = textAt(info, 'title');
  if (!title) return undefined;
  const lead = textAt(info, 'nonSort');
  const sub = textAt(info, 'subTitle');
  const part = [textAt(info, 'partNumber'), textAt(info, 'partName')].filter(Boolean).join(', ');
  const whole = `${lead ? `${lead}${/['’]$/.test(lead) ? '' : ' '}` : ''}${title}${sub ? `: ${sub}` : ''}`;
  return part ? `${whole}, ${part}` : whole;
}

const roleOf = (n: Element): (typeof ROLES)[string] | undefined => {
  const terms = childrenOf(n, 'role').flatMap((r) =>
    childrenOf(r, 'roleTerm').map((t) => t.text.toLowerCase().replace(/\.$/, '')),
  );
  return terms.length ? terms.map((t) => ROLES[t]).find(Boolean) : 'author';
};

function readNames(mods: Element, record: SourceRecord): void {
  for (const n of childrenOf(mods, 'name')) {
    const role = roleOf(n);
    const name = nameOf(n);
    if (role && Object.keys(name).length) (record[role] ??= []).push(name);
  }
}

function nameOf(n: Element): Name {
  const parts = childrenOf(n, 'namePart');
  const of = (type: string): string =>
    parts
      .filter((p) => p.attributes.type === type)
      .map((p) => p.text)
      .join(' ');
  const family = of('family');
  const plain = parts.filter((p) => !p.attributes.type).map((p) => p.text);
  if (family) {
    const suffix = of('termsOfAddress');
    const { 'non-dropping-particle': particle, family: rest } = parseName(`${family}, x`);
    return {
      ...(particle && { 'non-dropping-particle': particle }),
      family: rest ?? family,
      ...(of('given') && { given: of('given') }),
      ...(/^(?:jr|sr|[ivx]+)\.?$/i.test(suffix) && { suffix }),
    };
  }
  if (n.attributes.type === 'corporate' || n.attributes.type === 'conference') return { literal: plain.join(', ') };
  return plain[0] ? parseName(plain[0].replace(/,\s*$/, '')) : {};
}

function readOrigin(
  origin: Element | undefined,
  record: SourceRecord,
  put: (f: TextVariable, v: string | undefined) => void,
): void {
  if (!origin) return;
  put('publisher', textAt(origin, 'publisher'));
  const place = childrenOf(origin, 'place').flatMap((p) =>
    childrenOf(p, 'placeTerm').filter((t) => t.attributes.type !== 'code'),
  );
  put('publisher-place', place[0]?.text);
  put('edition', textAt(origin, 'edition'));
  const dates = ['dateIssued', 'copyrightDate', 'dateCreated'].flatMap((name) => childrenOf(origin, name));
  // One in a standard form goes before one as it is printed.
  const date = dates.find((d) => d.attributes.encoding) ?? dates[0];
  if (date && !record.issued) record.issued = parseDate(date.text)!;
  if (!record.issued) delete record.issued;
}

function readPart(
  part: Element | undefined,
  record: SourceRecord,
  put: (f: TextVariable, v: string | undefined) => void,
): void {
  if (!part) return;
  for (const d of childrenOf(part, 'detail')) {
    const field = ({ volume: 'volume', issue: 'issue', number: 'issue' } as const)[d.attributes.type ?? ''];
    if (field) put(field, textAt(d, 'number') ?? textAt(d, 'caption'));
  }
  const extent = childrenOf(part, 'extent').find((e) => /page/.test(e.attributes.unit ?? 'pages'));
  const [start, end] = [textAt(extent, 'start'), textAt(extent, 'end')];
  put('page', start && end && start !== end ? `${start}-${end}` : (start ?? textAt(extent, 'list')));
  const date = textAt(part, 'date');
  if (date && !record.issued) record.issued = parseDate(date)!;
}

function putIdentifier(id: Element, put: (f: TextVariable, v: string | undefined) => void, ofHost: boolean): void {
  const text = id.text;
  switch (id.attributes.type) {
    case 'doi':
      if (!ofHost) put('DOI', plainDoi(text) ?? text);
      break;
    case 'isbn':
      put('ISBN', normaliseIsbn(text.replace(/\s*\(.*$/, '')) ?? text);
      break;
    case 'issn':
      put('ISSN', normaliseIssn(text) ?? text);
      break;
    case 'pmid':
    case 'pubmed':
    case 'medline':
      put('PMID', text);
      break;
    case 'uri':
      if (!ofHost) put('URL', text);
      break;
    default:
      // Of any other kind there is no field.
      break;
  }
}
