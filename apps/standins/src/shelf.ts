/** The entries of an invented catalogue that answer a question. */
import { entriesOf, type CatalogueName, type Entry } from '@pandecta/demo/catalogues';
import type { Cql } from './cql.ts';

const fold = (text: string): string =>
  text
    .replace(/&amp;/g, '&')
    .replace(/&#8217;/g, '’')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase();
const wordsOf = (text: string): string[] => fold(text).match(/[\p{L}\p{N}]+/gu) ?? [];

interface Shelved {
  entry: Entry;
  title: string[];
  author: string[];
  all: string[];
}
const shelves = new Map<CatalogueName, Shelved[]>();

function shelfOf(name: CatalogueName): Shelved[] {
  const known = shelves.get(name);
  if (known) return known;
  const made = entriesOf(name).map((entry): Shelved => {
    const { record, subjects } = entry;
    const title = wordsOf(record.title ?? '');
    const author = wordsOf(
      (record.author ?? []).map((n) => `${n.given ?? ''} ${n.family ?? n.literal ?? ''}`).join(' '),
    );
    const { volume, issue, page, issued } = record;
    const where = [record['container-title'], volume, issue, page, issued?.['date-parts']?.[0]?.[0]];
    const more = wordsOf([record.abstract, ...where, ...subjects].join(' '));
    return { entry, title, author, all: [...title, ...author, ...more] };
  });
  shelves.set(name, made);
  return made;
}

/** @param days how many of the simulated days have passed: what came later is not there yet */
export function search(name: CatalogueName, query: Cql, days: number): Entry[] {
  return shelfOf(name)
    .filter((s) => s.entry.day <= days && answers(s, query))
    .map((s) => s.entry);
}

export const everyEntry = (name: CatalogueName): Entry[] => shelfOf(name).map((s) => s.entry);

export const entry = (name: CatalogueName, accession: string): Entry | undefined =>
  shelfOf(name).find((s) => s.entry.accession === accession)?.entry;

function answers(s: Shelved, q: Cql): boolean {
  if (q.is !== 'term') {
    const left = answers(s, q.left);
    if (q.is === 'or') return left || answers(s, q.right);
    return left && answers(s, q.right) === (q.is === 'and');
  }
  const { record } = s.entry;
  switch (q.index) {
    case 'title':
      return holds(s.title, q);
    case 'author':
    case 'creator':
    case 'name':
      return holds(s.author, q);
    case 'isbn':
      return record.ISBN === q.words.replace(/[\s-]/g, '');
    case 'issn':
      return record.ISSN === q.words;
    case 'volume':
      return record.volume === q.words;
    case 'page':
      return record.page?.split('-')[0] === q.words;
    case 'doi':
    case 'identifier':
      return record.DOI?.toLowerCase() === q.words.toLowerCase();
    case 'type':
    case 'genre':
      return record.type === q.words;
    case 'date':
    case 'year': {
      const year = record.issued?.['date-parts']?.[0]?.[0] ?? 0;
      const asked = Number(q.words.slice(0, 4));
      return (
        { '<': year < asked, '<=': year <= asked, '>': year > asked, '>=': year >= asked }[q.relation] ?? year === asked
      );
    }
    default:
      return holds(s.all, q);
  }
}

function holds(words: string[], { words: asked, exact, relation }: Extract<Cql, { is: 'term' }>): boolean {
  const wanted = wordsOf(asked.replace(/\*/g, ''));
  if (!wanted.length) return true;
  const has = (w: string): boolean => words.some((x) => x === w || (asked.includes('*') && x.startsWith(w)));
  if (exact && wanted.length > 1) return words.some((_, i) => wanted.every((w, k) => words[i + k] === w));
  return relation === 'any' ? wanted.some(has) : wanted.every(has);
}
