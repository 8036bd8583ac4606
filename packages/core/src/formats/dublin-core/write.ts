/** Records as Dublin Core in XML, in the form OAI-PMH 2.0 gives it (`oai_dc`), one after another. */
import { dateToEdtf, nameInverted, type Kind } from '../../source/index.ts';
import type { Entry, Writable } from '../message.ts';
import { withRemainder } from '../xml/remainder.ts';
import { escapeXml } from '../xml/tree.ts';
import { readDublinCore } from './read.ts';

const TYPE: Partial<Record<Kind, string>> = {
  'article-journal': 'Journal article',
  'article-newspaper': 'Newspaper article',
  'paper-conference': 'Conference paper',
  chapter: 'Book chapter',
  book: 'Book',
  thesis: 'Thesis',
  report: 'Report',
  article: 'Preprint',
  legal_case: 'Judgment',
  legislation: 'Legislation',
  webpage: 'Web page',
  dataset: 'Dataset',
  map: 'Map',
  manuscript: 'Manuscript',
  personal_communication: 'Letter',
  periodical: 'Periodical',
};
const NS = 'xmlns:oai_dc="http://www.openarchives.org/OAI/2.0/oai_dc/" xmlns:dc="http://purl.org/dc/elements/1.1/"';
const tag = (name: string, text: string | undefined): string =>
  text?.trim() ? `<dc:${name}>${escapeXml(text)}</dc:${name}>` : '';

export const dublinCoreOf = (source: Entry): string =>
  withRemainder(source, (rest) => standard(source, rest), 'dc', readDublinCore);

export function* eachDublinCoreEntry(sources: Writable): Generator<string, void> {
  yield '<?xml version="1.0" encoding="UTF-8"?>\n<records>\n';
  for (const s of sources) yield `${dublinCoreOf(s)}\n`;
  yield '</records>\n';
}

function standard({ record: r, subjects }: Entry, rest: string): string {
  const part = [r.volume && `Vol. ${r.volume}`, r.issue && `No. ${r.issue}`, r.page].filter(Boolean).join('; ');
  return (
    `<oai_dc:dc ${NS}>` +
    tag('title', r.title) +
    (r.author ?? []).map((n) => tag('creator', nameInverted(n))).join('') +
    (r.editor ?? []).map((n) => tag('contributor', nameInverted(n))).join('') +
    subjects.map((s) => tag('subject', s)).join('') +
    tag('description', r.abstract) +
    tag('publisher', r.publisher) +
    tag('date', r.issued && dateToEdtf(r.issued)) +
    tag('type', TYPE[r.type] ?? r.type) +
    tag('identifier', r.DOI && `https://doi.org/${r.DOI}`) +
    tag('identifier', r.ISBN && `urn:isbn:${r.ISBN}`) +
    tag('identifier', r.ISSN && `urn:issn:${r.ISSN}`) +
    tag('identifier', r.URL) +
    tag('source', r['container-title'] && [r['container-title'], part].filter(Boolean).join('; ')) +
    tag('language', r.language) +
    tag('rights', r.license) +
    rest +
    '</oai_dc:dc>'
  );
}
