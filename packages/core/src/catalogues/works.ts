/** The JSON of the open registry: works as CSL-JSON, with how many there are. */
import { readItem } from '../formats/csl-json.ts';
import type { Protocol } from './protocol.ts';
import { isObject } from '../source/index.ts';

export const works: Protocol = {
  name: 'Open registry (JSON)',
  accept: 'application/json',
  atOnce: 50,
  address(base, q, from, count) {
    const url = new URL(base);
    const set = (name: string, value: string | number | undefined): void =>
      void (value && url.searchParams.set(name, String(value)));
    if (q.identifier) set(q.identifier.kind, q.identifier.value);
    else set('query', q.words);
    set('author', q.author);
    set('title', q.title);
    set('volume', q.volume);
    set('page', q.page);
    set('from-year', q.yearFrom);
    set('until-year', q.yearTo);
    url.searchParams.set('offset', String(from));
    url.searchParams.set('rows', String(count));
    return url.href;
  },
  read(text) {
    const json: unknown = JSON.parse(text);
    if (!isObject(json) || !Array.isArray(json.items)) throw new Error('it holds no items');
    const entries = json.items.filter(isObject).map((item) => {
      const { link, ...rest } = item;
      const { record, subjects } = readItem(rest, { line: 0, column: 0 }, []);
      delete record['citation-key'];
      const pdf = (Array.isArray(link) ? link : [])
        .filter(isObject)
        .find((l) => l['content-type'] === 'application/pdf')?.URL;
      return { record, subjects, accession: String(item.id ?? ''), ...(typeof pdf === 'string' && { pdf }) };
    });
    return { total: Number(json.total ?? entries.length), entries };
  },
};
