/**
 * What pages state in the vocabulary of schema.org, whichever way it is written into them: JSON-LD 1.1, microdata (WHATWG HTML,
 * section 5) or RDFa Lite 1.1. All three become the same things: objects with `@type` and properties.
 */
import type { CheerioAPI } from 'cheerio';
import type { AnyNode } from 'domhandler';
import { Making, type Kind } from '../source/index.ts';
import { stated, type Stated } from './stated.ts';

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

/** Deeper than this nothing is said of a work. */
const DEEPEST = 12;

const kindOf = (t: Json): Kind | undefined =>
  listOf(t['@type'])
    .map((x) => SCHEMA_KINDS[String(x).replace(/^.*[/:#]/, '')])
    .find(Boolean);

/** The things of a page, those of its lists after it, each with its kind. */
function thingsOf($: CheerioAPI): { thing: Json; kind: Kind }[] {
  const all = [...ofJsonLd($), ...ofMicrodata($), ...ofRdfa($)];
  return all.flatMap((thing) => {
    const listed = listOf(thing.itemListElement).flatMap((e) => (isJson(e) ? (isJson(e.item) ? [e.item] : [e]) : []));
    return [thing, ...listed].flatMap((t) => {
      const kind = kindOf(t);
      return kind ? [{ thing: t, kind }] : [];
    });
  });
}

function ofJsonLd($: CheerioAPI): Json[] {
  return $('script[type="application/ld+json"]')
    .toArray()
    .flatMap((el) => {
      try {
        const json: unknown = JSON.parse($(el).text());
        return listOf(json).flatMap((j) => (isJson(j) ? [j, ...listOf(j['@graph']).filter(isJson)] : []));
      } catch {
        // A broken block is passed over.
        return [];
      }
    });
}

/** How one of the two ways of writing things into elements names their parts. */
interface Way {
  scope: string;
  type: string;
  property: string;
}
const MICRODATA: Way = { scope: 'itemscope', type: 'itemtype', property: 'itemprop' };
const RDFA: Way = { scope: 'typeof', type: 'typeof', property: 'property' };

const ofMicrodata = ($: CheerioAPI): Json[] => ofElements($, '[itemscope]:not([itemprop])', MICRODATA);
const ofRdfa = ($: CheerioAPI): Json[] => ofElements($, '[typeof]:not([property])', RDFA);

const ofElements = ($: CheerioAPI, roots: string, way: Way): Json[] =>
  $(roots)
    .toArray()
    .map((el) => thingOf($, el, way, 0));

function thingOf($: CheerioAPI, root: AnyNode, way: Way, depth: number): Json {
  const out: Json = { '@type': ($(root).attr(way.type) ?? '').split(/\s+/) };
  const about = $(root).attr('itemid') ?? $(root).attr('resource');
  if (about) out['@id'] = about;
  const walk = (parent: AnyNode): void => {
    for (const el of $(parent).children().toArray()) {
      const names = ($(el).attr(way.property) ?? '').split(/\s+/).filter(Boolean);
      const isThing = $(el).attr(way.scope) !== undefined;
      if (names.length) {
        const value = isThing && depth < DEEPEST ? thingOf($, el, way, depth + 1) : valueOf($, el);
        for (const name of names) {
          const key = name.replace(/^.*[/:#]/, '');
          out[key] = key in out ? [...listOf(out[key]), value] : value;
        }
      }
      // What is within a thing is said of that one.
      if (!isThing) walk(el);
    }
  };
  walk(root);
  return out;
}

/** The value of an element: what it says for machines goes before what is read. */
function valueOf($: CheerioAPI, el: AnyNode): string {
  const e = $(el);
  return (
    e.attr('content') ?? e.attr('datetime') ?? e.attr('href') ?? e.attr('src') ?? e.text().replace(/\s+/g, ' ').trim()
  );
}

/** The first thing of a known kind, a work before a page. */
export function aboutPage($: CheerioAPI): Stated | undefined {
  const all = thingsOf($);
  const found = all.find((t) => t.kind !== 'webpage') ?? all[0];
  return found && schemaThing(found.thing, found.kind);
}

/** The works a page states, where there are several. */
export function worksOf($: CheerioAPI): Stated[] {
  const works = thingsOf($).filter((t) => t.kind !== 'webpage');
  return works.length > 1 ? works.flatMap((t) => schemaThing(t.thing, t.kind) ?? []) : [];
}

/** A thing of schema.org as fields: a journal article is part of an issue, which is part of a volume, of a periodical. */
function schemaThing(thing: Json, kind: Kind): Stated | undefined {
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
