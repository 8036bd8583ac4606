/** PubMed XML (the DTD of the National Library of Medicine) as records: articles, and books with their chapters. */
import { normalisePmcid } from '../../identifiers/index.ts';
import { Making, type Kind, type Name } from '../../source/index.ts';
import { wholePages } from '../medline/read.ts';
import type { Item, ReadSource } from '../message.ts';
import { eachEntry } from '../xml/each.ts';
import { childOf, childrenOf, markedText, textAt, type Element } from '../xml/tree.ts';

export const eachPubmed = (text: string): Iterable<Item> =>
  eachEntry(text, ['PubmedArticle', 'PubmedBookArticle'], (e) =>
    e.name === 'PubmedArticle' ? readArticle(e) : readBook(e),
  );

const KINDS: [RegExp, Kind][] = [
  [/^preprint/i, 'article'],
  [/^dataset/i, 'dataset'],
  [/newspaper article/i, 'article-newspaper'],
  [/dissertation/i, 'thesis'],
  [/technical report/i, 'report'],
];

function readArticle(e: Element): ReadSource {
  const citation = childOf(e, 'MedlineCitation');
  const article = childOf(citation, 'Article');
  const journal = childOf(article, 'Journal');
  const issue = childOf(journal, 'JournalIssue');
  const m = new Making();
  m.text('title', titleOf(childOf(article, 'ArticleTitle')));
  m.text('original-title', textAt(article, 'VernacularTitle')?.replace(/\.$/, ''));
  readLists(article, m);
  m.text('container-title', textAt(journal, 'Title'));
  m.text(
    'container-title-short',
    textAt(journal, 'ISOAbbreviation') ?? textAt(citation, 'MedlineJournalInfo', 'MedlineTA'),
  );
  m.issn(textAt(journal, 'ISSN'));
  m.text('volume', textAt(issue, 'Volume'));
  m.text('issue', textAt(issue, 'Issue'));
  m.date(dateOf(childOf(issue, 'PubDate')) ?? dateOf(childOf(article, 'ArticleDate')));
  readCommon(article, m);
  for (const id of childrenOf(article, 'ELocationID')) if (id.attributes.EIdType === 'doi') m.doi(id.text);
  readIdentifiers(childOf(childOf(e, 'PubmedData'), 'ArticleIdList'), m);
  m.text('PMID', textAt(citation, 'PMID'));
  for (const h of childOf(citation, 'MeshHeadingList')?.children ?? []) {
    const name = textAt(h, 'DescriptorName');
    const qualifiers = childrenOf(h, 'QualifierName').map((q) => q.text);
    m.about(qualifiers.length ? qualifiers.map((q) => `${name}/${q}`) : [name]);
  }
  for (const list of childrenOf(citation, 'KeywordList')) m.about(childrenOf(list, 'Keyword').map((k) => k.text));
  const types = childOf(article, 'PublicationTypeList')?.children.map((t) => t.text) ?? [];
  const kind = types.flatMap((t) => KINDS.find(([like]) => like.test(t))?.[1] ?? [])[0];
  return { record: m.as(kind ?? 'article-journal'), subjects: m.subjects, line: e.line };
}

function readBook(e: Element): ReadSource {
  const doc = childOf(e, 'BookDocument');
  const book = childOf(doc, 'Book');
  const m = new Making();
  const part = childOf(doc, 'ArticleTitle');
  const title = titleOf(childOf(book, 'BookTitle'));
  m.text('title', part ? titleOf(part) : title);
  if (part) m.text('container-title', title);
  readLists(doc, m);
  readLists(book, m);
  m.text('publisher', textAt(book, 'Publisher', 'PublisherName'));
  m.text('publisher-place', textAt(book, 'Publisher', 'PublisherLocation'));
  m.date(dateOf(childOf(book, 'PubDate')));
  m.text('edition', textAt(book, 'Edition'));
  m.text('volume', textAt(book, 'Volume'));
  m.text('collection-title', textAt(book, 'CollectionTitle'));
  m.isbn(textAt(book, 'Isbn'));
  readCommon(doc, m);
  readIdentifiers(childOf(doc, 'ArticleIdList'), m);
  m.text('PMID', textAt(doc, 'PMID'));
  for (const list of childrenOf(doc, 'KeywordList')) m.about(childrenOf(list, 'Keyword').map((k) => k.text));
  return { record: m.as(part ? 'chapter' : 'book'), subjects: m.subjects, line: e.line };
}

/** A full stop ends every title there; one in brackets is translated. */
const titleOf = (e: Element | undefined): string | undefined =>
  e &&
  markedText(e)
    .replace(/\.$/, '')
    .replace(/^\[(.*)\]$/, '$1');

function readCommon(e: Element | undefined, m: Making): void {
  const pages = childOf(e, 'Pagination');
  const medline = textAt(pages, 'MedlinePgn');
  m.text('page', medline && wholePages(medline));
  m.pages(textAt(pages, 'StartPage'), textAt(pages, 'EndPage'));
  m.text('language', textAt(e, 'Language'));
  const parts = childrenOf(childOf(e, 'Abstract'), 'AbstractText');
  m.text(
    'abstract',
    parts.map((p) => (p.attributes.Label ? `${p.attributes.Label}: ${markedText(p)}` : markedText(p))).join(' '),
  );
}

function readLists(e: Element | undefined, m: Making): void {
  for (const list of childrenOf(e, 'AuthorList')) {
    const role = list.attributes.Type === 'editors' ? 'editor' : 'author';
    m.names(role, childrenOf(list, 'Author').map(nameOf));
  }
}

function nameOf(a: Element): Name {
  const body = textAt(a, 'CollectiveName');
  if (body) return { literal: body };
  const family = textAt(a, 'LastName');
  const given = textAt(a, 'ForeName') ?? [...(textAt(a, 'Initials') ?? '')].map((i) => `${i}.`).join(' ');
  const suffix = textAt(a, 'Suffix');
  return { ...(family && { family }), ...(given && { given }), ...(suffix && { suffix }) };
}

/** Year, month by name or number, day; or a season or a span as it is printed, of which the year stands. */
function dateOf(e: Element | undefined): string | undefined {
  if (!e) return undefined;
  const year = textAt(e, 'Year') ?? /\b\d{4}\b/.exec(textAt(e, 'MedlineDate') ?? '')?.[0];
  if (!year) return undefined;
  const month = textAt(e, 'Month');
  const day = textAt(e, 'Day');
  if (month && /^\d+$/.test(month))
    return [year, month.padStart(2, '0'), day?.padStart(2, '0')].filter(Boolean).join('-');
  return [month && day, month ?? textAt(e, 'Season'), year].filter(Boolean).join(' ');
}

function readIdentifiers(list: Element | undefined, m: Making): void {
  for (const id of list?.children ?? []) {
    if (id.attributes.IdType === 'doi') m.doi(id.text);
    if (id.attributes.IdType === 'pmc') m.text('PMCID', normalisePmcid(id.text));
  }
}
