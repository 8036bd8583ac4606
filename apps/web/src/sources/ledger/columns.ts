/** How the ledger looks: what its lines show, how wide and how close; kept for each scope. And how it is sorted. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { SORTS, type SortKey } from '@pandecta/contract';
import { useAsk } from '../ask.ts';

export interface Column {
  id: 'author' | 'container' | 'year' | 'kind' | 'tags' | 'added' | 'pages' | 'places' | 'marks' | 'reading' | 'labels' | 'rating' | 'missing'; // prettier-ignore
  name: string;
  sort?: SortKey;
  /** In pixels, as long as nothing else was chosen. */
  width: number;
}

export const COLUMNS: Column[] = [
  { id: 'author', name: 'Author', sort: 'author', width: 120 },
  { id: 'container', name: 'Published in', sort: 'container', width: 120 },
  { id: 'year', name: 'Year', sort: 'year', width: 52 },
  { id: 'kind', name: 'Kind', sort: 'kind', width: 128 },
  { id: 'tags', name: 'Tags', width: 130 },
  { id: 'reading', name: 'Reading', width: 72 },
  { id: 'labels', name: 'Labels', width: 80 },
  { id: 'rating', name: 'Rating', width: 68 },
  { id: 'pages', name: 'Pages', width: 54 },
  { id: 'marks', name: 'Marks', width: 54 },
  { id: 'places', name: 'Places', width: 54 },
  { id: 'missing', name: 'Missing', width: 130 },
  { id: 'added', name: 'Added', sort: 'added', width: 96 },
];
type ColumnId = Column['id'];

export const NARROWEST = 36;
export const WIDEST = 480;

/** How close the lines stand: with the beginnings of abstracts, on two lines, on one. */
export const DENSITIES = { full: 'With abstract', two: 'Two lines', one: 'One line' } as const;
export type Density = keyof typeof DENSITIES;

interface Look {
  columns: ColumnId[];
  widths: Partial<Record<ColumnId, number>>;
  density: Density;
}
const USUAL: Look = { columns: ['author', 'container', 'year', 'tags'], widths: {}, density: 'two' };

/** Columns with one moved by so many places to the right. */
export function movedColumn(columns: ColumnId[], id: ColumnId, by: number): ColumnId[] {
  const rest = columns.filter((c) => c !== id);
  rest.splice(Math.max(0, columns.indexOf(id) + by), 0, id);
  return rest;
}

/** A look for each scope: the workspace, a collection, the bin. One that has none of its own looks as the workspace does. */
export const useLook = defineStore('look', () => {
  const ask = useAsk();
  const kept = useLocalStorage<Record<string, Look>>('ledger', {});
  const scope = computed(() => ask.collection ?? ask.scope);
  const look = computed<Look>(() => ({ ...USUAL, ...(kept.value[scope.value] ?? kept.value.live) }));
  const isOwn = computed(() => scope.value !== 'live' && scope.value in kept.value);
  const columns = computed(() =>
    look.value.columns.flatMap((id) => {
      const column = COLUMNS.find((c) => c.id === id);
      return column ? [{ ...column, width: look.value.widths[id] ?? column.width }] : [];
    }),
  );
  const density = computed(() => look.value.density);
  /** The columns of a line as a grid has them; the title takes what is left. */
  const grid = computed(
    () => `16px 26px minmax(12rem, 1fr) ${columns.value.map((c) => `minmax(2rem, ${c.width}px)`).join(' ')}`,
  );

  const set = (part: Partial<Look>): void =>
    void (kept.value = { ...kept.value, [scope.value]: { ...look.value, ...part } });
  const setDensity = (to: Density): void => set({ density: to });
  const resize = (id: ColumnId, width: number): void => set({ widths: { ...look.value.widths, [id]: width } });
  const move = (id: ColumnId, by: number): void => set({ columns: movedColumn(look.value.columns, id, by) });
  const toggle = (id: ColumnId): void => {
    const { columns: shown } = look.value;
    set({ columns: shown.includes(id) ? shown.filter((c) => c !== id) : [...shown, id] });
  };
  /** Back to how the workspace looks; there, back to how it was at first. */
  function forget(): void {
    const { [scope.value]: _own, ...rest } = kept.value;
    kept.value = rest;
  }

  return { columns, density, grid, isOwn, setDensity, resize, move, toggle, forget };
});

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
