/** Bibliographic entries of TEI P5 (chapter 3.12, "Bibliographic Citations and References") as records. */
import { Making, OTHERS, parseName, type Kind, type Name, type NameVariable } from '../../source/index.ts';
import type { Item, ReadSource } from '../message.ts';
import { eachEntry } from '../xml/each.ts';
import { readRemainder } from '../xml/remainder.ts';
import { childOf, childrenOf, markedText, textAt, type Element } from '../xml/tree.ts';

export const eachTei = (text: string): Iterable<Item> => eachEntry(text, ['biblStruct', 'bibl'], readTei);

const KINDS: Record<string, Kind> = {
  journalArticle: 'article-journal',
  newspaperArticle: 'article-newspaper',
  bookSection: 'chapter',
  conferencePaper: 'paper-conference',
  book: 'book',
  thesis: 'thesis',
  report: 'report',
  webPage: 'webpage',
  letter: 'personal_communication',
  manuscript: 'manuscript',
  map: 'map',
  case: 'legal_case',
  statute: 'legislation',
};

/** An entry; of one that names no title, what it says. */
export function readTei(e: Element): ReadSource | string {
  const analytic = childOf(e, 'analytic');
  const monogr = childOf(e, 'monogr') ?? (e.name === 'bibl' ? e : undefined);
  const series = childOf(e, 'series');
  const m = new Making();
  const titles = [analytic, monogr, series].flatMap((part) => childrenOf(part, 'title'));
  const levelled = (level: string): string | undefined => {
    const parts = titles.filter((t) => t.attributes.level === level);
    const main = parts.find((t) => t.attributes.type !== 'sub' && t.attributes.type !== 'short');
    const sub = parts.find((t) => t.attributes.type === 'sub');
    return main && [main, sub].flatMap((t) => (t ? [markedText(t)] : [])).join(': ');
  };
  const [article, book, journal] = [levelled('a'), levelled('m'), levelled('j')];
  const unlevelled = titles.find((t) => !t.attributes.level);
  m.text('title', article ?? levelled('u') ?? (unlevelled && markedText(unlevelled)) ?? book ?? journal);
  m.text('title-short', titles.find((t) => t.attributes.type === 'short')?.text);
  if (article) m.text('container-title', journal ?? book);
  m.text('collection-title', levelled('s') ?? (journal && !article && book ? journal : undefined));
  for (const part of [analytic, monogr, series]) {
    for (const role of ['author', 'editor'] as const) {
      const names = childrenOf(part, role).map((p) => [roleOf(p, role, part === series), nameOf(p)] as const);
      for (const [as, name] of names) m.names(as, [name]);
    }
    for (const resp of childrenOf(part, 'respStmt')) {
      const as = /transl|übers|trad/i.test(textAt(resp, 'resp') ?? '') ? 'translator' : 'contributor';
      m.names(as, [...childrenOf(resp, 'persName'), ...childrenOf(resp, 'name')].map(nameOf));
    }
  }
  const imprint = childOf(monogr, 'imprint') ?? monogr;
  m.text('publisher', textAt(imprint, 'publisher'));
  m.text('publisher-place', textAt(imprint, 'pubPlace'));
  const date = childrenOf(imprint, 'date')[0] ?? childrenOf(e, 'date')[0];
  m.date(date && (date.attributes.when ?? spanOf(date) ?? date.text));
  m.text('edition', textAt(monogr, 'edition'));
  for (const part of [imprint, monogr, e])
    for (const scope of [...childrenOf(part, 'biblScope'), ...childrenOf(part, 'citedRange')]) readScope(scope, m);
  for (const scope of childrenOf(series, 'biblScope')) m.text('collection-number', scope.text);
  for (const part of [analytic, monogr, e])
    for (const id of childrenOf(part, 'idno')) {
      const type = (id.attributes.type ?? '').toLowerCase();
      if (type === 'doi') m.doi(id.text);
      else if (type === 'isbn') m.isbn(id.text);
      else if (type === 'issn') m.issn(id.text);
      else if (type === 'pmid') m.text('PMID', id.text);
      else if (type === 'url' || type === 'uri') m.text('URL', id.text);
      else m.doi(id.text);
    }
  const target = [e, monogr, analytic].flatMap((part) => [...childrenOf(part, 'ptr'), ...childrenOf(part, 'ref')])[0];
  m.text('URL', target?.attributes.target);
  m.text('language', childOf(monogr, 'textLang')?.attributes.mainLang ?? titles[0]?.attributes.lang);
  const notes = [...childrenOf(e, 'note'), ...(monogr === e ? [] : childrenOf(monogr, 'note'))];
  m.text('abstract', notes.find((n) => n.attributes.type === 'abstract')?.text);
  m.text(
    'note',
    notes
      .filter((n) => !n.attributes.type)
      .map((n) => n.text)
      .join('\n'),
  );
  m.about(notes.filter((n) => n.attributes.type === 'keyword').map((n) => n.text));
  const key = e.attributes.id;
  m.text('citation-key', key);
  if (!m.record.title && !childOf(e, 'note')) return `“${e.text.slice(0, 80)}” names no title`;
  const kind =
    KINDS[e.attributes.type ?? ''] ??
    (article ? (journal ? 'article-journal' : 'chapter') : book ? 'book' : 'document');
  return readRemainder(e, { record: m.as(kind), subjects: m.subjects, line: e.line });
}

function roleOf(p: Element, name: 'author' | 'editor', ofSeries: boolean): NameVariable {
  const said = p.attributes.role ?? '';
  if (/transl/i.test(said)) return 'translator';
  if (/recipient|addressee/i.test(said)) return 'recipient';
  return name === 'editor' && ofSeries ? 'collection-editor' : name;
}

function nameOf(p: Element): Name {
  if (/^et al/i.test(p.text)) return OTHERS;
  const body = childOf(p, 'orgName');
  if (body) return { literal: body.text };
  const at = childOf(p, 'persName') ?? (childOf(p, 'name') && !childOf(p, 'surname') ? childOf(p, 'name')! : p);
  const family = childrenOf(at, 'surname')
    .map((x) => x.text)
    .join(' ');
  if (!family) return at.text ? parseName(at.text) : {};
  const given = childrenOf(at, 'forename')
    .map((x) => x.text)
    .join(' ');
  const link = textAt(at, 'nameLink');
  const suffix = textAt(at, 'genName');
  return { family, ...(given && { given }), ...(link && { 'non-dropping-particle': link }), ...(suffix && { suffix }) };
}

const spanOf = (d: Element): string | undefined => {
  const from = d.attributes.from ?? d.attributes.notBefore;
  const to = d.attributes.to ?? d.attributes.notAfter;
  return from && to ? `${from}/${to}` : undefined;
};

function readScope(scope: Element, m: Making): void {
  const unit = scope.attributes.unit ?? scope.attributes.type ?? '';
  if (/^vol/.test(unit)) m.text('volume', scope.text);
  else if (/^(?:issue|iss|no)/.test(unit)) m.text('issue', scope.text);
  else if (/^pp?(?:$|ag)|^page/.test(unit)) {
    const { from, to } = scope.attributes;
    m.pages(from, to);
    m.text('page', scope.text.replace(/^pp?\.\s*/, '').replace(/\s*[-–]\s*/g, '-'));
  }
}
