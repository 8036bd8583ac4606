/** What the lines of the ledger show beside the title, and how they are sorted. */
import { useLocalStorage } from '@vueuse/core';
import { SORTS, type SortKey } from '@pandecta/contract';

export interface Column {
  id:
    'author' | 'container' | 'year' | 'kind' | 'tags' | 'added' | 'pages' | 'places' | 'reading' | 'labels' | 'rating';
  name: string;
  sort?: SortKey;
  width: string;
}

export const COLUMNS: Column[] = [
  { id: 'author', name: 'Author', sort: 'author', width: 'minmax(5rem, 0.9fr)' },
  { id: 'container', name: 'Published in', sort: 'container', width: 'minmax(5rem, 0.9fr)' },
  { id: 'year', name: 'Year', sort: 'year', width: '3.2rem' },
  { id: 'kind', name: 'Kind', sort: 'kind', width: '8rem' },
  { id: 'tags', name: 'Tags', width: 'minmax(5rem, 0.9fr)' },
  { id: 'reading', name: 'Reading', width: '4.5rem' },
  { id: 'labels', name: 'Labels', width: '5rem' },
  { id: 'rating', name: 'Rating', width: '4.2rem' },
  { id: 'pages', name: 'Pages', width: '3.4rem' },
  { id: 'places', name: 'Places', width: '3.4rem' },
  { id: 'added', name: 'Added', sort: 'added', width: '6rem' },
];

export const useShownColumns = () =>
  useLocalStorage<Column['id'][]>('columns', ['author', 'container', 'year', 'tags']);
export const useDensity = () => useLocalStorage<'two' | 'one'>('density', 'two');

/** The sort after a click on a key: alone it replaces, with Shift it is added after the others; again it turns round. */
export function nextSort(sort: string, key: SortKey, add: boolean): string {
  const parts = sort.split(',').filter(Boolean);
  const at = parts.findIndex((p) => p.replace(/^-/, '') === key);
  const first = SORTS[key].by === 'number' ? `-${key}` : key;
  const turned = at < 0 ? first : parts[at]!.startsWith('-') ? key : `-${key}`;
  if (!add) return turned;
  return at < 0 ? [...parts, turned].join(',') : parts.map((p, i) => (i === at ? turned : p)).join(',');
}

/** "Year ↓, then title" */
export function sortInWords(sort: string, ranked: boolean): string {
  const parts = (sort || (ranked ? 'relevance' : '-added')).split(',');
  const words = parts.map((p) => {
    const key = p.replace(/^-/, '');
    const name = SORTS[key as SortKey]?.name.toLowerCase() ?? key;
    return key === 'relevance' ? name : `${name} ${p.startsWith('-') ? '↓' : '↑'}`;
  });
  return words.join(', then ');
}
