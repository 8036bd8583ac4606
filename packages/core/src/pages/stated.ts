/**
 * What a page states of itself, by vocabulary, each as fields of a record: the citation tags scholarly pages carry (common
 * practice), Dublin Core (ISO 15836, in HTML after RFC 5013's predecessor RFC 2731), PRISM 3, schema.org in JSON-LD, OpenURL
 * in a span (ANSI/NISO Z39.88, "COinS"), Open Graph, and relations of links (RFC 8288, RFC 8574).
 */
import type { CheerioAPI } from 'cheerio';
import { Making, parseName, type Kind, type SourceRecord } from '../source/index.ts';

export interface Stated {
  record: Partial<SourceRecord>;
  subjects: string[];
  /** From 0 to 1. */
  sure: number;
}

/** What was made, where it is anything. */
export const stated = (m: Making, sure: number): Stated | undefined =>
  Object.keys(m.record).length ? { record: m.record, subjects: m.subjects, sure } : undefined;

type Tags = (name: string) => string[];

/** The contents of the page's meta elements by name, in the order they stand; case does not matter. */
export function tagsOf($: CheerioAPI): Tags {
  const tags = new Map<string, string[]>();
  $('meta').each((_, el) => {
    const name = ($(el).attr('name') ?? $(el).attr('property') ?? '').toLowerCase();
    const content = $(el).attr('content');
    if (name && content?.trim()) tags.set(name, [...(tags.get(name) ?? []), content]);
  });
  return (name) => tags.get(name.toLowerCase()) ?? [];
}

export function citationTags(tags: Tags): Stated | undefined {
  const m = new Making();
  const first = (name: string): string | undefined => tags(`citation_${name}`)[0];
  m.text('title', first('title'));
  m.people(
    'author',
    tags('citation_author').length ? tags('citation_author') : (first('authors') ?? '').split(/\s*;\s*/),
  );
  m.people('editor', tags('citation_editor'));
  m.date(first('publication_date') ?? first('date') ?? first('cover_date') ?? first('online_date') ?? first('year'));
  const container = first('journal_title') ?? first('conference_title') ?? first('inbook_title') ?? first('book_title');
  m.text('container-title', container);
  m.text('volume', first('volume'));
  m.text('issue', first('issue'));
  m.pages(first('firstpage'), first('lastpage'));
  m.doi(first('doi'));
  m.issn(first('issn'));
  m.isbn(first('isbn'));
  m.text('PMID', first('pmid'));
  m.text('publisher', first('publisher') ?? first('dissertation_institution') ?? first('technical_report_institution'));
  m.text('number', first('technical_report_number'));
  m.text('language', first('language'));
  m.text('abstract', first('abstract'));
  m.subjects.push(
    ...tags('citation_keywords')
      .flatMap((k) => k.split(/\s*[;,]\s*/))
      .filter(Boolean),
  );
  const kind: [string, Kind][] = [
    ['journal_title', 'article-journal'],
    ['conference_title', 'paper-conference'],
    ['inbook_title', 'chapter'],
    ['dissertation_institution', 'thesis'],
    ['technical_report_institution', 'report'],
    ['isbn', 'book'],
  ];
  if (m.record.title)
    m.record.type = kind.find(([tag]) => first(tag))?.[1] ?? (first('doi') ? 'article-journal' : 'webpage');
  return stated(m, 0.95);
}

export function dublinCore(tags: Tags): Stated | undefined {
  const m = new Making();
  const all = (name: string): string[] => [...tags(`dc.${name}`), ...tags(`dcterms.${name}`)];
  m.text('title', all('title')[0]);
  m.people('author', all('creator'));
  m.people('editor', all('contributor'));
  m.date(all('issued')[0] ?? all('date')[0] ?? all('date.issued')[0] ?? all('created')[0]);
  m.text('publisher', all('publisher')[0]);
  m.text('language', all('language')[0]);
  m.text('abstract', all('abstract')[0] ?? all('description')[0]);
  for (const id of all('identifier')) m.doi(id);
  m.text('container-title', all('source')[0] ?? tags('prism.publicationname')[0]);
  m.subjects.push(...all('subject').flatMap((s) => s.split(/\s*;\s*/)));
  return stated(m, 0.85);
}

export function prism(tags: Tags): Stated | undefined {
  const m = new Making();
  const first = (name: string): string | undefined => tags(`prism.${name}`)[0];
  m.text('container-title', first('publicationname'));
  m.text('volume', first('volume'));
  m.text('issue', first('number'));
  m.pages(first('startingpage'), first('endingpage'));
  m.date(first('publicationdate') ?? first('coverdate'));
  m.doi(first('doi'));
  m.issn(first('issn'));
  return stated(m, 0.9);
}

export function openGraph(tags: Tags): Stated | undefined {
  const m = new Making();
  m.text('title', tags('og:title')[0] ?? tags('twitter:title')[0]);
  m.text('container-title', tags('og:site_name')[0]);
  m.text('abstract', tags('og:description')[0]);
  m.date(tags('article:published_time')[0]);
  m.people(
    'author',
    tags('article:author').filter((a) => !/^https?:/.test(a)),
  );
  m.text('URL', tags('og:url')[0]);
  return stated(m, 0.7);
}

/** OpenURL context objects in spans: each is one item of the page. */
export function coins($: CheerioAPI): Stated[] {
  return $('span.Z3988')
    .toArray()
    .flatMap((el) => {
      const p = new URLSearchParams($(el).attr('title') ?? '');
      const first = (...names: string[]): string | undefined =>
        names.map((n) => p.get(`rft.${n}`)).find(Boolean) ?? undefined;
      const m = new Making();
      const isBook = /:book$/.test(p.get('rft_val_fmt') ?? '');
      const genre = first('genre');
      m.text('title', first('atitle') ?? (isBook ? first('btitle', 'title') : first('title')));
      if (first('atitle')) m.text('container-title', first('jtitle', 'btitle', 'title', 'stitle'));
      const led = [first('aulast'), first('aufirst', 'auinit')].filter(Boolean).join(', ');
      m.people('author', [led, ...p.getAll('rft.au').filter((n) => !led || parseName(n).family !== first('aulast'))]);
      m.date(first('date'));
      m.text('volume', first('volume'));
      m.text('issue', first('issue'));
      m.text('page', first('pages'));
      m.pages(first('spage'), first('epage'));
      m.text('publisher', first('pub'));
      m.text('publisher-place', first('place'));
      m.issn(first('issn'));
      m.isbn(first('isbn'));
      for (const id of p.getAll('rft_id')) m.doi(id.replace(/^info:doi\//, ''));
      if (!m.record.title) return [];
      m.record.type = isBook
        ? genre === 'bookitem'
          ? 'chapter'
          : 'book'
        : first('jtitle')
          ? 'article-journal'
          : 'document';
      return stated(m, 0.9) ?? [];
    });
}

/** What a reader sees: headline, by-line, date. */
export function seen($: CheerioAPI): Stated | undefined {
  const m = new Making();
  m.text('title', $('article h1, main h1, h1').first().text() || $('title').first().text());
  const by = $('[rel=author], [class*=byline], [class*=by-line], address').first().text();
  const names = by.trim().replace(/^(?:by|von|par|de|por)\s+/i, '');
  if (names && names.length < 120) m.people('author', names.split(/\s*(?:,| and | & | und | et )\s*/));
  m.date($('time[datetime]').first().attr('datetime') ?? $('time').first().text());
  return stated(m, 0.5);
}

export function linkRelations($: CheerioAPI): Stated | undefined {
  const m = new Making();
  const at = (rel: string): string | undefined => $(`link[rel~="${rel}"]`).first().attr('href');
  m.doi(at('cite-as'));
  m.text('URL', at('cite-as') && !m.record.DOI ? at('cite-as') : at('canonical'));
  m.text('license', at('license'));
  m.text('language', $('html').attr('lang'));
  return stated(m, 0.9);
}
