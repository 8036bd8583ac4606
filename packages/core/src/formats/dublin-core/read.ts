/** Dublin Core in XML (ISO 15836; OAI-PMH's `oai_dc`, qualified terms, RDF descriptions) as records. */
import { findDois } from '../../identifiers/index.ts';
import { Making, type Kind } from '../../source/index.ts';
import type { Item, ReadSource } from '../message.ts';
import { eachEntry } from '../xml/each.ts';
import { readRemainder } from '../xml/remainder.ts';
import { childOf, childrenOf, type Element } from '../xml/tree.ts';

/** What records are wrapped in, by several profiles. */
export const DC_ELEMENTS = ['dc', 'qualifieddc', 'Description', 'metadata'] as const;

export const eachDublinCore = (text: string): Iterable<Item> =>
  eachEntry(text, DC_ELEMENTS, (e) => {
    const inner = DC_ELEMENTS.flatMap((name) => childOf(e, name) ?? [])[0] ?? e;
    return inner.children.length ? readDublinCore(inner) : undefined;
  });

/** Types, of the DCMI vocabulary and of what repositories write. */
const KINDS: [RegExp, Kind][] = [
  [/book ?(?:part|chapter|section)|chapter/i, 'chapter'],
  [/conference (?:paper|object|item)/i, 'paper-conference'],
  [/preprint/i, 'article'],
  [/book review/i, 'review-book'],
  [/newspaper/i, 'article-newspaper'],
  [/article/i, 'article-journal'],
  [/thes[ie]s|dissertation/i, 'thesis'],
  [/report|working ?paper/i, 'report'],
  [/dataset/i, 'dataset'],
  [/software/i, 'software'],
  [/patent/i, 'patent'],
  [/moving ?image|film/i, 'motion_picture'],
  [/sound/i, 'song'],
  [/\bmap\b|cartographic/i, 'map'],
  [/image/i, 'graphic'],
  [/judg?ment|legal case/i, 'legal_case'],
  [/legislation|statute/i, 'legislation'],
  [/manuscript/i, 'manuscript'],
  [/letter|correspondence/i, 'personal_communication'],
  [/web ?(?:page|site)/i, 'webpage'],
  [/periodical|journal/i, 'periodical'],
  [/book|monograph/i, 'book'],
  [/event/i, 'event'],
  [/collection/i, 'collection'],
];

export function readDublinCore(dc: Element): ReadSource {
  const all = (...names: string[]): string[] =>
    names.flatMap((n) =>
      childrenOf(dc, n)
        .map((c) => c.text)
        .filter(Boolean),
    );
  const m = new Making();
  m.text('title', all('title')[0]);
  m.text('title-short', all('alternative')[0]);
  m.people('author', all('creator'));
  m.people('editor', all('contributor'));
  m.date(all('issued')[0] ?? all('date')[0] ?? all('created')[0]);
  m.text('publisher', all('publisher')[0]);
  m.text('language', all('language')[0]);
  m.text('abstract', all('abstract')[0] ?? all('description')[0]);
  m.text('license', all('license')[0] ?? all('rights')[0]);
  const citation = all('bibliographicCitation', 'source', 'isPartOf');
  for (const text of citation) readSource(text, m);
  for (const id of all('identifier')) {
    m.doi(id);
    if (/isbn/i.test(id) || /^97[89]/.test(id)) m.isbn(id.replace(/^(?:urn:)?isbn:?\s*/i, ''));
    if (/issn/i.test(id)) m.issn(id.replace(/^(?:urn:)?issn:?\s*/i, ''));
    if (/^https?:/i.test(id) && !findDois(id).length) m.text('URL', id);
  }
  for (const r of all('relation')) {
    m.doi(findDois(r)[0]);
    if (/^https?:/i.test(r)) m.text('URL', r);
  }
  m.about(all('subject').flatMap((s) => (/;/.test(s) ? s.split(/\s*;\s*/) : [s])));
  const types = all('type');
  const told = types.flatMap((t) => KINDS.find(([like]) => like.test(t))?.[1] ?? [])[0];
  const kind = told ?? (m.record.volume || m.record.ISSN ? 'article-journal' : m.record.ISBN ? 'book' : 'document');
  return readRemainder(dc, { record: m.as(kind), subjects: m.subjects, line: dc.line });
}

/** "Coastal Processes; Vol. 55 No. 1 (2024): Edges; 12-29", as journals write where an article stands (common practice). */
function readSource(text: string, m: Making): void {
  if (/^(?:https?:|urn:|10\.)/i.test(text)) return;
  const issn = /^(?:issn:?\s*)?(\d{4}-\d{3}[\dX])$/i.exec(text)?.[1];
  if (issn) {
    m.issn(issn);
    return;
  }
  const [container, ...rest] = text.split(/\s*[;,]\s*(?=(?:vol|no|bd|pp?\b|\d))/i);
  m.text('container-title', container);
  const part = rest.join('; ');
  m.text('volume', /\b(?:vol(?:ume)?|bd)\.?\s*([\w-]+)/i.exec(part)?.[1]);
  m.text('issue', /\b(?:no|issue|nr)\.?\s*([\w/-]+)/i.exec(part)?.[1]);
  m.text('page', /(?:^|;\s*|\bpp?\.?\s*)(\d+\s*[-–]\s*\d+)\s*\.?$/.exec(part)?.[1]?.replace(/\s*[-–]\s*/, '-'));
}
