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
const stated = (m: Making, sure: number): Stated | undefined =>
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

const SCHEMA_KINDS: Record<string, Kind> = {
  ScholarlyArticle: 'article-journal',
  MedicalScholarlyArticle: 'article-journal',
  NewsArticle: 'article-newspaper',
  ReportageNewsArticle: 'article-newspaper',
  OpinionNewsArticle: 'article-newspaper',
  BlogPosting: 'post-weblog',
  Article: 'webpage',
  WebPage: 'webpage',
  Book: 'book',
  Chapter: 'chapter',
  Report: 'report',
  Thesis: 'thesis',
  Dataset: 'dataset',
  SoftwareSourceCode: 'software',
  VideoObject: 'motion_picture',
  Legislation: 'legislation',
};

type Json = Record<string, unknown>;
const isJson = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v);
const listOf = (v: unknown): unknown[] => (Array.isArray(v) ? v : v === undefined || v === null ? [] : [v]);
const textOf = (v: unknown): string | undefined => {
  const [x] = listOf(v);
  if (typeof x === 'string' || typeof x === 'number') return String(x);
  return isJson(x) ? textOf(x.name ?? x['@value'] ?? x.value) : undefined;
};

/** The first thing of a known kind in the page's blocks of JSON-LD, also within a graph. A broken block is passed over. */
export function jsonLd(blocks: string[]): Stated | undefined {
  const things = blocks.flatMap((block) => {
    try {
      const json: unknown = JSON.parse(block);
      return listOf(json).flatMap((j) => (isJson(j) ? [j, ...listOf(j['@graph']).filter(isJson)] : []));
    } catch {
      return [];
    }
  });
  const kindOf = (t: Json): Kind | undefined =>
    listOf(t['@type'])
      .map((x) => SCHEMA_KINDS[String(x).replace(/^.*[/:]/, '')])
      .find(Boolean);
  const thing = things.find((t) => kindOf(t) && kindOf(t) !== 'webpage') ?? things.find(kindOf);
  return thing && schemaThing(thing, kindOf(thing)!);
}

/** A thing of schema.org as fields: a journal article is part of an issue, which is part of a volume, of a periodical. */
export function schemaThing(thing: Json, kind: Kind): Stated | undefined {
  const m = new Making();
  m.record.type = kind;
  m.text('title', textOf(thing.headline) ?? textOf(thing.name));
  m.people(
    'author',
    listOf(thing.author ?? thing.creator).map((a) => textOf(a)),
  );
  m.people(
    'editor',
    listOf(thing.editor).map((a) => textOf(a)),
  );
  m.date(textOf(thing.datePublished) ?? textOf(thing.dateCreated));
  for (let part = listOf(thing.isPartOf)[0], i = 0; isJson(part) && i < 5; part = listOf(part.isPartOf)[0], i += 1) {
    const type = String(listOf(part['@type'])[0] ?? '');
    m.text('volume', textOf(part.volumeNumber));
    m.text('issue', textOf(part.issueNumber));
    if (/Periodical|Book|WebSite|Newspaper/.test(type) || part.issn || (part.name && !/Volume|Issue/.test(type)))
      m.text('container-title', textOf(part.name));
    m.text('ISSN', textOf(part.issn));
  }
  m.text('page', textOf(thing.pagination));
  m.pages(textOf(thing.pageStart), textOf(thing.pageEnd));
  for (const id of [...listOf(thing.identifier), ...listOf(thing.sameAs), thing['@id']]) m.doi(textOf(id));
  m.isbn(textOf(thing.isbn));
  const site = textOf(thing.publisher);
  m.text(
    kind === 'article-newspaper' || kind === 'webpage' || kind === 'post-weblog' ? 'container-title' : 'publisher',
    site,
  );
  m.text('abstract', textOf(thing.abstract) ?? textOf(thing.description));
  m.text('language', textOf(thing.inLanguage));
  m.subjects.push(
    ...listOf(thing.keywords)
      .flatMap((k) => (textOf(k) ?? '').split(/\s*,\s*/))
      .filter(Boolean),
  );
  return m.record.title ? stated(m, 0.9) : undefined;
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
