/** OpenSearch 1.1: a description, and results as an Atom feed with Dublin Core and PRISM. */
import type { CatalogueName, Entry } from '@pandecta/demo/catalogues';
import { escapeXml } from '@pandecta/core/formats';
import { dateToEdtf, nameInverted } from '@pandecta/core/source';
import { parseCql } from './cql.ts';
import { everyEntry, search } from './shelf.ts';

const tag = (name: string, value: string | undefined): string =>
  value ? `<${name}>${escapeXml(value)}</${name}>` : '';

export const description = (title: string, base: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<OpenSearchDescription xmlns="http://a9.com/-/spec/opensearch/1.1/"><ShortName>${escapeXml(title)}</ShortName><Url type="application/atom+xml" template="${base}?q={searchTerms}&amp;start={startIndex?}&amp;count={count?}"/></OpenSearchDescription>`;

/** What came last, as a feed anyone may follow. */
export function newTitles(name: CatalogueName, title: string, days: number): string {
  const all = everyEntry(name).filter((e) => e.day <= days);
  const last = all.sort((a, b) => b.day - a.day || b.accession.localeCompare(a.accession)).slice(0, 15);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<feed ${NAMESPACES}><title>${escapeXml(title)}: new titles</title>${last.map(entry).join('')}</feed>`;
}

const NAMESPACES =
  'xmlns="http://www.w3.org/2005/Atom" xmlns:opensearch="http://a9.com/-/spec/opensearch/1.1/" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:prism="http://prismstandard.org/namespaces/basic/3.0/"';

export function answerFeed(name: CatalogueName, title: string, query: URLSearchParams, days: number): string {
  const words = query.get('q') ?? '';
  const found = words ? search(name, parseCql(words), days) : [];
  const start = Math.max(1, Number(query.get('start') ?? 1));
  const count = Math.min(100, Number(query.get('count') ?? 25));
  const entries = found
    .slice(start - 1, start - 1 + count)
    .map(entry)
    .join('');
  return `<?xml version="1.0" encoding="UTF-8"?>\n<feed ${NAMESPACES}><title>${escapeXml(title)}: ${escapeXml(words)}</title><opensearch:totalResults>${found.length}</opensearch:totalResults><opensearch:startIndex>${start}</opensearch:startIndex><opensearch:itemsPerPage>${count}</opensearch:itemsPerPage>${entries}</feed>`;
}

function entry({ record: r, subjects, accession }: Entry): string {
  const [from, to] = (r.page ?? '').split('-');
  return `<entry><id>urn:northmere:${accession}</id>${tag('title', r.title)}${(r.author ?? []).map((n) => tag('dc:creator', nameInverted(n))).join('')}${r.issued ? tag('prism:publicationDate', dateToEdtf(r.issued)) : ''}${tag('prism:publicationName', r['container-title'])}${tag('prism:volume', r.volume)}${tag('prism:number', r.issue)}${tag('prism:startingPage', from)}${tag('prism:endingPage', to)}${tag('prism:issn', r.ISSN)}${tag('prism:doi', r.DOI)}${tag('dc:publisher', r.type === 'legal_case' ? r.authority : r.publisher)}${tag('dc:type', r.type === 'legal_case' ? 'Legal case' : r.type === 'book' ? 'Book' : 'Article')}${subjects.map((s) => tag('dc:subject', s)).join('')}${tag('summary', r.abstract)}</entry>`;
}
