/** JATS (ANSI/NISO Z39.96) as records: an article, and on request the works of its reference list. */
import { normalisePmcid } from '../../identifiers/index.ts';
import { Making, parseName, type Kind, type Name } from '../../source/index.ts';
import { EMPTY, type Item, type ReadSource } from '../message.ts';
import { eachEntry } from '../xml/each.ts';
import { childOf, childrenOf, markedText, textAt, type Element } from '../xml/tree.ts';

export const eachJats = (text: string): Iterable<Item> =>
  eachEntry(text, ['article'], (e) => ((childOf(e, 'front') ?? childOf(e, 'front-stub')) ? readArticle(e) : undefined));

/** The works the articles of a file refer to, in the order of their lists. */
export function* eachJatsReference(text: string): Generator<Item, void> {
  let some = false;
  for (const item of eachEntry(text, ['ref'], readReference)) {
    some = true;
    yield item;
  }
  if (!some) yield { message: { ...EMPTY, what: 'The article has no list of references' } };
}

function readArticle(article: Element): ReadSource {
  const front = childOf(article, 'front');
  const journal = childOf(front, 'journal-meta');
  const meta = childOf(front, 'article-meta') ?? childOf(article, 'front-stub');
  const m = new Making();
  const group = childOf(meta, 'title-group');
  const title = childOf(group, 'article-title');
  const sub = childOf(group, 'subtitle');
  m.text('title', [title, sub].flatMap((t) => (t ? [markedText(t, ['xref', 'fn'])] : [])).join(': '));
  m.text('original-title', textAt(group, 'trans-title-group', 'trans-title'));
  for (const list of childrenOf(meta, 'contrib-group'))
    for (const c of childrenOf(list, 'contrib')) {
      const role = c.attributes['contrib-type'] ?? list.attributes['content-type'] ?? 'author';
      m.names(/edit/.test(role) ? 'editor' : /transl/.test(role) ? 'translator' : 'author', [nameOf(c)]);
    }
  m.text(
    'container-title',
    textAt(journal, 'journal-title-group', 'journal-title') ?? textAt(journal, 'journal-title'),
  );
  m.text('container-title-short', textAt(journal, 'journal-title-group', 'abbrev-journal-title'));
  const issns = childrenOf(journal, 'issn');
  m.issn(
    (
      issns.find((i) => /ppub|print/.test(i.attributes['pub-type'] ?? i.attributes['publication-format'] ?? '')) ??
      issns[0]
    )?.text,
  );
  m.text('publisher', textAt(journal, 'publisher', 'publisher-name'));
  m.text('publisher-place', textAt(journal, 'publisher', 'publisher-loc'));
  m.text('volume', textAt(meta, 'volume'));
  m.text('issue', textAt(meta, 'issue'));
  m.pages(textAt(meta, 'fpage'), textAt(meta, 'lpage'));
  m.text('page', textAt(meta, 'page-range') ?? textAt(meta, 'elocation-id'));
  const dates = childrenOf(meta, 'pub-date');
  // The date goes before the one of the web, and both before the date of the collection.
  const date =
    dates.find((d) => /ppub|^print$/.test(`${d.attributes['pub-type'] ?? d.attributes['publication-format'] ?? ''}`)) ??
    dates.find((d) => /epub|^pub$/.test(`${d.attributes['pub-type'] ?? d.attributes['date-type'] ?? ''}`)) ??
    dates[0];
  m.date(dateOf(date));
  for (const id of childrenOf(meta, 'article-id')) readIdentifier(id, 'pub-id-type', m);
  m.text(
    'abstract',
    markedAbstract(
      childrenOf(meta, 'abstract').find((a) => !a.attributes['abstract-type']) ?? childOf(meta, 'abstract'),
    ),
  );
  m.text('language', article.attributes.lang);
  m.text('license', childOf(childOf(meta, 'permissions'), 'license')?.attributes.href);
  for (const g of childrenOf(meta, 'kwd-group')) m.about(childrenOf(g, 'kwd').map((k) => k.text));
  const type = article.attributes['article-type'] ?? '';
  const kind: Kind = /book-review/.test(type) ? 'review-book' : /preprint/.test(type) ? 'article' : 'article-journal';
  return { record: m.as(kind), subjects: m.subjects, line: article.line };
}

const markedAbstract = (e: Element | undefined): string | undefined => e && markedText(e, ['title', 'object-id']);

function nameOf(c: Element): Name {
  const name = childOf(c, 'name') ?? childOf(childOf(c, 'name-alternatives'), 'name') ?? (childOf(c, 'surname') && c);
  if (name) {
    const family = textAt(name, 'surname');
    const given = textAt(name, 'given-names');
    const suffix = textAt(name, 'suffix');
    return { ...(family && { family }), ...(given && { given }), ...(suffix && { suffix }) };
  }
  const body = textAt(c, 'collab') ?? textAt(c, 'institution');
  if (body) return { literal: body };
  const whole = textAt(c, 'string-name');
  return whole ? parseName(whole) : {};
}

function dateOf(d: Element | undefined): string | undefined {
  const year = textAt(d, 'year');
  if (!d || !year) return d?.attributes['iso-8601-date'];
  const month = textAt(d, 'month');
  const season = textAt(d, 'season');
  if (!month) return season ? `${season} ${year}` : year;
  if (!/^\d+$/.test(month)) return [textAt(d, 'day'), month, year].filter(Boolean).join(' ');
  return [year, month.padStart(2, '0'), textAt(d, 'day')?.padStart(2, '0')].filter(Boolean).join('-');
}

function readIdentifier(id: Element, attribute: string, m: Making): void {
  const type = id.attributes[attribute];
  if (type === 'doi') m.doi(id.text);
  if (type === 'pmid') m.text('PMID', id.text);
  if (type === 'pmc' || type === 'pmcid')
    m.text('PMCID', normalisePmcid(/^PMC/i.test(id.text) ? id.text : `PMC${id.text}`));
}

const KINDS: Record<string, Kind> = {
  journal: 'article-journal',
  book: 'book',
  confproc: 'paper-conference',
  'conf-proc': 'paper-conference',
  thesis: 'thesis',
  report: 'report',
  data: 'dataset',
  software: 'software',
  patent: 'patent',
  preprint: 'article',
  web: 'webpage',
  webpage: 'webpage',
  newspaper: 'article-newspaper',
  legal: 'legal_case',
};

function readReference(ref: Element): ReadSource | string {
  const c =
    childOf(ref, 'element-citation') ??
    childOf(ref, 'mixed-citation') ??
    childOf(ref, 'citation') ??
    childOf(childOf(ref, 'citation-alternatives'), 'element-citation') ??
    childOf(childOf(ref, 'citation-alternatives'), 'mixed-citation');
  if (!c) return 'A reference without a citation';
  const m = new Making();
  const article =
    childOf(c, 'article-title') ?? childOf(c, 'chapter-title') ?? childOf(c, 'data-title') ?? childOf(c, 'part-title');
  const source = childOf(c, 'source');
  const title = article ?? source;
  m.text('title', title && markedText(title));
  if (article) m.text('container-title', source?.text);
  for (const g of [c, ...childrenOf(c, 'person-group')]) {
    const role = g.attributes['person-group-type'] ?? 'author';
    const people = g.children.filter((x) => ['name', 'string-name', 'collab'].includes(x.name));
    const names = people.map((x) =>
      x.name === 'collab'
        ? { literal: x.text }
        : x.name === 'string-name' && !childOf(x, 'surname')
          ? parseName(x.text)
          : nameOf({ ...x, children: [{ ...x, name: 'name' }] }),
    );
    m.names(/edit/.test(role) ? 'editor' : /transl/.test(role) ? 'translator' : 'author', names);
    if (childOf(g, 'etal')) m.names('author', [{ literal: 'et al.' }]);
  }
  m.date(dateOf(childOf(c, 'year') && c));
  m.text('volume', textAt(c, 'volume'));
  m.text('issue', textAt(c, 'issue'));
  m.pages(textAt(c, 'fpage'), textAt(c, 'lpage'));
  m.text('page', textAt(c, 'page-range') ?? textAt(c, 'elocation-id'));
  m.text('publisher', textAt(c, 'publisher-name'));
  m.text('publisher-place', textAt(c, 'publisher-loc'));
  m.text('edition', textAt(c, 'edition'));
  m.isbn(textAt(c, 'isbn'));
  for (const id of childrenOf(c, 'pub-id')) readIdentifier(id, 'pub-id-type', m);
  m.text('URL', childOf(c, 'ext-link')?.attributes.href ?? textAt(c, 'uri'));
  if (!m.record.title) return `“${c.text.slice(0, 80)}” names no title`;
  const told = c.attributes['publication-type'] ?? c.attributes['citation-type'] ?? '';
  const kind = KINDS[told] ?? (m.record.volume ? 'article-journal' : 'document');
  return { record: m.as(kind === 'book' && article ? 'chapter' : kind), subjects: [], line: ref.line };
}
