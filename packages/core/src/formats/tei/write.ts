/** Records as a list of `biblStruct` in a TEI P5 document. */
import { dateToEdtf, type Kind, type Name } from '../../source/index.ts';
import type { Entry, Writable } from '../message.ts';
import { withRemainder } from '../xml/remainder.ts';
import { escapeXml } from '../xml/tree.ts';
import { readTei } from './read.ts';

const TYPE: Partial<Record<Kind, string>> = {
  'article-journal': 'journalArticle',
  'article-newspaper': 'newspaperArticle',
  chapter: 'bookSection',
  'paper-conference': 'conferencePaper',
  book: 'book',
  thesis: 'thesis',
  report: 'report',
  webpage: 'webPage',
  personal_communication: 'letter',
  manuscript: 'manuscript',
  map: 'map',
  legal_case: 'case',
  legislation: 'statute',
};
const SERIAL = new Set<Kind>(['article-journal', 'article-magazine', 'article-newspaper']);

const tag = (name: string, text: string | undefined, attributes = ''): string =>
  text?.trim() ? `<${name}${attributes && ` ${attributes}`}>${escapeXml(text)}</${name}>` : '';
const within = (name: string, inner: string): string => (inner ? `<${name}>${inner}</${name}>` : '');

export const teiOf = (source: Entry): string =>
  withRemainder(
    source,
    (rest) => standard(source, rest),
    'biblStruct',
    (e) => {
      const read = readTei(e);
      return typeof read === 'string' ? undefined : read;
    },
  );

export function* eachTeiEntry(sources: Writable): Generator<string, void> {
  yield '<?xml version="1.0" encoding="UTF-8"?>\n<TEI xmlns="http://www.tei-c.org/ns/1.0"><teiHeader><fileDesc><titleStmt><title>Sources</title></titleStmt><publicationStmt><p>Exported from Pandecta</p></publicationStmt><sourceDesc><p>Records of a workspace</p></sourceDesc></fileDesc></teiHeader><text><body><listBibl>\n';
  for (const s of sources) yield `${teiOf(s)}\n`;
  yield '</listBibl></body></text></TEI>\n';
}

function standard({ record: r, subjects }: Entry, rest: string): string {
  const part = Boolean(r['container-title']);
  const people = (names: Name[] | undefined, as: 'author' | 'editor', role = ''): string =>
    (names ?? []).map((n) => `<${as}${role && ` role="${role}"`}>${nameOf(n)}</${as}>`).join('');
  const [from, to] = (r.page ?? '').split('-');
  const pages =
    from && to && r.page === `${from}-${to}`
      ? `<biblScope unit="page" from="${escapeXml(from)}" to="${escapeXml(to)}">${escapeXml(r.page)}</biblScope>`
      : tag('biblScope', r.page, 'unit="page"');
  const imprint =
    tag('pubPlace', r['publisher-place']) +
    tag('publisher', r.publisher) +
    (r.issued ? `<date when="${escapeXml(dateToEdtf(r.issued))}"/>` : '') +
    tag('biblScope', r.volume, 'unit="volume"') +
    tag('biblScope', r.issue, 'unit="issue"') +
    pages;
  const id = (type: string, text: string | undefined): string => tag('idno', text, `type="${type}"`);
  const own = people(r.author, 'author') + people(r.translator, 'editor', 'translator') + id('DOI', r.DOI);
  const title = tag('title', r.title, `level="${part ? 'a' : 'm'}"`);
  const monogr =
    (part ? tag('title', r['container-title'], `level="${SERIAL.has(r.type) ? 'j' : 'm'}"`) : title + own) +
    people(r.editor, 'editor') +
    id('ISBN', r.ISBN) +
    id('ISSN', r.ISSN) +
    tag('edition', r.edition) +
    within('imprint', imprint);
  const type = TYPE[r.type];
  return (
    `<biblStruct${type ? ` type="${type}"` : ''}>` +
    (part ? within('analytic', title + own) : '') +
    within('monogr', monogr) +
    within('series', tag('title', r['collection-title'], 'level="s"') + tag('biblScope', r['collection-number'])) +
    id('PMID', r.PMID) +
    (r.URL ? `<ptr target="${escapeXml(r.URL)}"/>` : '') +
    tag('note', r.abstract, 'type="abstract"') +
    subjects.map((s) => tag('note', s, 'type="keyword"')).join('') +
    tag('note', r.note) +
    (rest && `<note type="remainder">${rest}</note>`) +
    '</biblStruct>'
  );
}

function nameOf(n: Name): string {
  if (n.literal) return tag('orgName', n.literal);
  return `<persName>${tag('forename', n.given)}${tag('nameLink', n['non-dropping-particle'])}${tag('surname', n.family)}${tag('genName', n.suffix)}</persName>`;
}
