/**
 * The open registry's works, as JSON: `GET /works?query=…&author=…&title=…&from-year=…&until-year=…&offset=0&rows=20`, or by
 * `isbn=…`, or `issn=…&volume=…&page=…` (the first page), gives `{ "total": n, "items": [CSL-JSON] }`, each item with its `id`.
 */
import { toCslItem } from '@pandecta/core/formats';
import { parseCql, type Cql } from './cql.ts';
import { search } from './shelf.ts';

export function answerWorks(query: URLSearchParams, days: number, base: string): string {
  const parts: Cql[] = [];
  const words = query.get('query');
  if (words) parts.push(parseCql(words));
  const add = (index: string, relation: string, name: string): void => {
    const value = query.get(name);
    if (value) parts.push({ is: 'term', index, words: value, exact: false, relation });
  };
  add('author', 'all', 'author');
  add('title', 'all', 'title');
  add('date', '>=', 'from-year');
  add('date', '<=', 'until-year');
  for (const name of ['isbn', 'issn', 'volume', 'page']) add(name, '=', name);
  const [first, ...more] = parts;
  const found = first
    ? search(
        'registry',
        more.reduce((left, right): Cql => ({ is: 'and', left, right }), first),
        days,
      )
    : [];
  const offset = Math.max(0, Number(query.get('offset') ?? 0));
  const rows = Math.min(100, Number(query.get('rows') ?? 20));
  const items = found.slice(offset, offset + rows).map((e) => ({
    ...toCslItem({ record: e.record, subjects: e.subjects }, e.accession),
    ...(e.hasPdf && { link: [{ URL: `${base}/pdf/${e.accession}.pdf`, 'content-type': 'application/pdf' }] }),
  }));
  return JSON.stringify({ total: found.length, items });
}
