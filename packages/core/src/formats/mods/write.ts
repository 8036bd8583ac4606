/** Records as a MODS 3.8 collection. */
import { dateToEdtf, type Kind, type Name } from '../../source/index.ts';
import type { Entry, Writable } from '../message.ts';
import { RELATORS } from '../relators.ts';
import { withRemainder } from '../xml/remainder.ts';
import { escapeXml } from '../xml/tree.ts';
import { readMods } from './read.ts';

const GENRE: Partial<Record<Kind, string>> = {
  'article-journal': 'journal article',
  'article-newspaper': 'newspaper article',
  'paper-conference': 'conference paper',
  chapter: 'book chapter',
  book: 'book',
  thesis: 'thesis',
  report: 'report',
  legal_case: 'legal case',
  legislation: 'legislation',
  webpage: 'web page',
  manuscript: 'manuscript',
  personal_communication: 'letter',
  map: 'map',
  dataset: 'dataset',
  patent: 'patent',
  periodical: 'periodical',
};
const SERIAL = new Set<Kind>(['article-journal', 'article-magazine', 'article-newspaper']);
const IN_HOST = new Set<Kind>([
  'article-journal',
  'article-magazine',
  'article-newspaper',
  'chapter',
  'paper-conference',
  'legal_case',
  'webpage',
  'post-weblog',
  'entry-encyclopedia',
  'entry-dictionary',
  'review',
  'review-book',
]);

const tag = (name: string, text: string | undefined, attributes = ''): string =>
  text ? `<${name}${attributes && ` ${attributes}`}>${escapeXml(text)}</${name}>` : '';
const within = (name: string, inner: string, attributes = ''): string =>
  inner ? `<${name}${attributes && ` ${attributes}`}>${inner}</${name}>` : '';

/** One record as an element `mods`, with all that is in it; @param id the number it is known by */
export const modsOf = (source: Entry, id?: string): string =>
  withRemainder(source, (rest) => standard(source, rest, id), 'mods', readMods);

function standard({ record: r, subjects }: Entry, rest: string, id?: string): string {
  const hosted = IN_HOST.has(r.type) && Boolean(r['container-title']);
  const editors = hosted ? r.editor : undefined;
  const names = RELATORS.flatMap(([v, code]) =>
    v === 'editor' && hosted ? [] : (r[v] ?? []).map((n) => nameElement(n, code)),
  ).join('');
  const origin =
    within('place', tag('placeTerm', r['publisher-place'], 'type="text"')) +
    tag('publisher', r.publisher) +
    (r.issued ? tag('dateIssued', dateToEdtf(r.issued), r.issued['date-parts'] ? 'encoding="edtf"' : '') : '') +
    tag('edition', r.edition);
  const [start, end] = (r.page ?? '').split('-');
  const part = within(
    'part',
    (['volume', 'issue'] as const).map((v) => within('detail', tag('number', r[v]), `type="${v}"`)).join('') +
      (r.page
        ? within('extent', start && end ? tag('start', start) + tag('end', end) : tag('list', r.page), 'unit="pages"')
        : ''),
  );
  const issn = tag('identifier', r.ISSN, 'type="issn"');
  const host = hosted
    ? within(
        'relatedItem',
        within('titleInfo', tag('title', r['container-title'])) +
          (r['container-title-short']
            ? within('titleInfo', tag('title', r['container-title-short']), 'type="abbreviated"')
            : '') +
          (editors ?? []).map((n) => nameElement(n, 'edt')).join('') +
          (SERIAL.has(r.type)
            ? '<originInfo><issuance>continuing</issuance></originInfo><genre authority="marcgt">periodical</genre>' +
              (r.type === 'article-journal' ? '<genre>academic journal</genre>' : '')
            : '') +
          part +
          issn,
        'type="host"',
      )
    : part + issn;
  const series = within(
    'relatedItem',
    within('titleInfo', tag('title', r['collection-title']) + tag('partNumber', r['collection-number'])),
    'type="series"',
  );
  return (
    '<mods>' +
    within('titleInfo', tag('title', r.title)) +
    names +
    tag('genre', GENRE[r.type] ?? r.type) +
    (r.genre ? tag('genre', r.genre) : '') +
    within('originInfo', origin) +
    within('language', tag('languageTerm', r.language)) +
    (r['number-of-pages'] ? within('physicalDescription', tag('extent', `${r['number-of-pages']} p.`)) : '') +
    tag('abstract', r.abstract) +
    tag('note', r.note) +
    subjects.map((s) => within('subject', tag('topic', s))).join('') +
    host +
    (r['collection-title'] ? series : '') +
    tag('identifier', r.DOI, 'type="doi"') +
    tag('identifier', r.ISBN, 'type="isbn"') +
    tag('identifier', r.PMID, 'type="pmid"') +
    within('location', tag('shelfLocator', r['call-number']) + tag('url', r.URL)) +
    (id ? within('recordInfo', tag('recordIdentifier', id)) : '') +
    within('extension', rest) +
    '</mods>'
  );
}

function nameElement(n: Name, code: string): string {
  const role = `<role><roleTerm type="code" authority="marcrelator">${code}</roleTerm></role>`;
  if (n.literal) return `<name type="corporate">${tag('namePart', n.literal)}${role}</name>`;
  const family = [n['non-dropping-particle'], n.family].filter(Boolean).join(' ');
  return `<name type="personal">${tag('namePart', family, 'type="family"')}${tag('namePart', n.given, 'type="given"')}${tag('namePart', n.suffix, 'type="termsOfAddress"')}${role}</name>`;
}

export function* eachModsEntry(sources: Writable): Generator<string, void> {
  yield '<?xml version="1.0" encoding="UTF-8"?>\n<modsCollection xmlns="http://www.loc.gov/mods/v3" version="3.8">\n';
  for (const s of sources) yield `${modsOf(s)}\n`;
  yield '</modsCollection>\n';
}
