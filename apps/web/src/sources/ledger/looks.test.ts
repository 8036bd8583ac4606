// @vitest-environment happy-dom
/** How the ledger looks: its columns, its ribbon of years, what is printed and kept of it. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { SourceRow } from '@pandecta/contract';
import { settled, withoutPage, type Answer } from '../../testing.ts';
import { useAsk } from '../ask.ts';
import { useNarrow } from '../narrow.ts';
import { cellText } from './cells.ts';
import { COLUMNS, movedColumn, useLook } from './columns.ts';
import LedgerHead from './LedgerHead.vue';
import { eachStretch, tableOfShown } from './whole.ts';
import YearRibbon from './YearRibbon.vue';

let page: Awaited<ReturnType<typeof withoutPage>>;
let answer: Answer = () => ({});
beforeEach(async () => {
  localStorage.clear();
  page = await withoutPage((asked) => answer(asked));
});
afterEach(() => {
  document.body.innerHTML = '';
  vi.unstubAllGlobals();
});

const shown = (): string[] => page.make(useLook).columns.map((c) => c.id);

test('a column moves by so many places, to the ends at most', () => {
  const all = ['author', 'year', 'tags'] as const;
  expect(movedColumn([...all], 'author', 1)).toEqual(['year', 'author', 'tags']);
  expect(movedColumn([...all], 'tags', -9)).toEqual(['tags', 'author', 'year']);
  expect(movedColumn([...all], 'year', 9)).toEqual(['author', 'tags', 'year']);
});

test('a collection looks as the workspace does until it gets a look of its own, which it can lose again', async () => {
  const [look, ask] = [page.make(useLook), page.make(useAsk)];
  look.move('year', -2);
  ask.setCollection('c1');
  await settled();
  expect([shown(), look.isOwn]).toEqual([['year', 'author', 'container', 'tags'], false]);
  look.resize('year', 90);
  look.toggle('tags');
  expect([shown(), look.columns[0]!.width, look.isOwn]).toEqual([['year', 'author', 'container'], 90, true]);
  ask.setCollection(undefined);
  await settled();
  expect([shown(), look.columns[0]!.width]).toEqual([['year', 'author', 'container', 'tags'], 52]);
  ask.setCollection('c1');
  await settled();
  look.forget();
  expect(shown()).toEqual(['year', 'author', 'container', 'tags']);
});

test('heads sort, move with Alt and an arrow, and grow at their edges with the arrows', async () => {
  const view = page.show(LedgerHead, { signOf: (key: string) => (key === 'year' ? '↓' : '') });
  const head = (name: string) => view.findAll('button').find((b) => b.text().startsWith(name))!;
  expect(head('Year').text()).toBe('Year ↓');
  await head('Author').trigger('click', { shiftKey: true });
  expect(view.emitted('sort')).toEqual([['author', true]]);
  await head('Author').trigger('keydown', { key: 'ArrowRight', altKey: true });
  expect([shown(), view.get('[aria-live]').text()]).toEqual([
    ['container', 'author', 'year', 'tags'],
    'Author is column 2 of 4',
  ]);
  await view.get('[aria-label="Width of Year"]').trigger('keydown', { key: 'ArrowRight' });
  expect(page.make(useLook).columns.find((c) => c.id === 'year')!.width).toBe(68);
});

test('the ribbon is walked with the keys: a stretch of years is narrowed to; Escape lets go of it and leaves what is asked', async () => {
  const years = [1974, 1975, 1990, 2003].map((year) => ({ year, count: 2 }));
  answer = ({ path }) => (path === '/narrow' ? { total: 8, facets: [], offered: [], years, undated: 3 } : {});
  const ask = page.make(useAsk);
  page.make(useNarrow);
  const view = page.show(YearRibbon);
  await settled();
  expect(view.text()).toContain('3 undated');
  const ribbon = view.get('[role=group]');
  const press = (key: string, shiftKey = false) => ribbon.trigger('keydown', { key, shiftKey });
  await press('Home');
  // Nothing is wide here: a bar is as long as bars get.
  expect(view.get('[aria-live]').text()).toBe('1900–1999: 6');
  await press('ArrowRight', true);
  await press('Enter');
  await settled();
  expect(ask.years).toEqual([1900, 2099]);
  await press('Escape');
  await settled();
  expect([ask.years, view.get('[aria-live]').text()]).toEqual([[1900, 2099], '']);
});

const row = (n: number, more: object = {}): SourceRow =>
  ({
    id: `s${n}`,
    record: { type: 'book', title: `Tide <i>${n}</i>`, publisher: 'Tern; Co' },
    tags: [{ name: 'used' }, { name: 'red, or so' }],
    labels: [],
    places: ['a', 'b'],
    reading: null,
    rating: 3,
    pages: 12,
    marks: 0,
    addedAt: '2026-03-14T10:00:00Z',
    ...more,
  }) as unknown as SourceRow;

test('the whole answer is fetched stretch by stretch, what moved meanwhile once, and stops when it is told to', async () => {
  const all = Array.from({ length: 450 }, (_, i) => row(i));
  // A line moved down while it was fetched: the second stretch begins with one that came before.
  answer = ({ query }) => {
    const from = Number(query.get('from'));
    return { total: all.length, rows: all.slice(Math.max(0, from - 1), from + 200) };
  };
  const stop = new AbortController();
  const ids: string[] = [];
  for await (const { rows, total } of eachStretch({ q: 'tide' }, stop.signal)) {
    ids.push(...rows.map((r) => r.id));
    expect(total).toBe(450);
  }
  expect([ids.length, new Set(ids).size]).toEqual([450, 450]);
  stop.abort();
  await expect(eachStretch({}, stop.signal).next()).rejects.toThrow();
});

test('a table to keep has the columns that are shown, with all that stands in them', async () => {
  const columns = COLUMNS.filter((c) => ['container', 'tags', 'places', 'rating', 'added'].includes(c.id));
  const text = await tableOfShown([row(1, { group: { name: 'Book' } })], columns, 'Kind', (id) => `Law › ${id}`);
  expect(text.split('\r\n').slice(0, 2)).toEqual([
    'Kind,Title,Published in,Tags,Rating,Places,Added',
    'Book,Tide 1,Tern; Co,"used; red, or so",3,Law › a; Law › b,14 Mar 2026',
  ]);
  expect(cellText(row(1), 'rating')).toBe('●●●');
});
