import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { SourceRow } from '@pandecta/contract';
import { settled, withoutPage, type Answer, type Asked } from '../../testing.ts';
import { useAsk } from '../ask.ts';
import { useLedger } from './store.ts';
import { useLive } from '../../data/live.ts';

const id = (n: number): string => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const row = (n: number): SourceRow =>
  ({ id: id(n), record: { type: 'book', title: `Tide table ${n}` }, tags: [] }) as unknown as SourceRow;
/** A server of so many sources: stretches of them with their lines, or their ids alone. */
let library: number[];
const serve: Answer = ({ path, query, body }: Asked) => {
  const number = (name: string, or: number): number => Number(query.get(name) ?? or);
  const from = number('from', 0);
  const stretch = library.slice(from, from + number('count', 50));
  if (path === '/sources') {
    const at = library.findIndex((n) => id(n) === query.get('find'));
    return { rows: stretch.map(row), from, total: library.length, notes: [], ...(at >= 0 && { at }) };
  }
  if (path === '/ids') return { ids: stretch.map(id) };
  if (path === '/among') return { ids: (body as { ids: string[] }).ids.filter((i) => library.map(id).includes(i)) };
  throw new Error(`not asked for: ${path}`);
};
const shown = (): string[] => [...ledger.lines].sort(([a], [b]) => a - b).map(([, line]) => line.id);

let page: Awaited<ReturnType<typeof withoutPage>>;
let ledger: ReturnType<typeof useLedger>;
let ask: ReturnType<typeof useAsk>;
let answer: Answer;

beforeEach(async () => {
  library = Array.from({ length: 200 }, (_, i) => i + 1);
  answer = serve;
  page = await withoutPage((asked) => answer(asked));
  ask = page.make(useAsk);
  ledger = page.make(useLedger);
  ledger.begin();
  await settled();
  return () => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  };
});

const plain = { shiftKey: false, ctrlKey: false, metaKey: false };

describe('what an address names', () => {
  const at = (n: number): string => `/sources?at=${id(n)}`;

  test('is chosen at once, before any answer, though the same is asked as before', async () => {
    await page.router.push(at(7));
    await Promise.resolve();
    expect(ledger.single).toBe(id(7));
    await settled();
    expect([ledger.single, ledger.place]).toEqual([id(7), 6]);
    await page.router.push(at(120));
    await Promise.resolve();
    expect(ledger.single).toBe(id(120));
    await settled();
    expect([ledger.single, ledger.place]).toEqual([id(120), 119]);
  });

  test('stays chosen where the answer does not have it, and after news', async () => {
    await page.router.push(at(900));
    await settled();
    expect([ledger.single, ledger.isOutside]).toEqual([id(900), true]);
    page.make(useLive).tell({ kinds: { source: 'all' } });
    await settled();
    expect(ledger.single).toBe(id(900));
  });

  test('leaves the address when one goes on, without asking anew; the same link leads there again', async () => {
    await page.router.push(at(7));
    await settled();
    const asked = page.asked.length;
    await ledger.move(1);
    await settled();
    expect(page.router.currentRoute.value.fullPath).toBe('/sources');
    expect([ledger.single, page.asked.length]).toEqual([id(8), asked]);
    await page.router.push(at(7));
    await settled();
    expect(ledger.single).toBe(id(7));
  });
});

describe('the list', () => {
  test('knows how many match, and holds the lines of those that were looked at, each asked for once', async () => {
    expect([ledger.total, ledger.lines.size]).toEqual([200, 50]);
    await Promise.all([ledger.ensure(40, 180), ledger.ensure(100, 200)]);
    expect(ledger.lines.size).toBe(200);
    const asked = page.asked.filter((a) => a.path === '/sources').slice(1);
    const places = asked.flatMap(({ query }) =>
      Array.from({ length: Number(query.get('count')) }, (_, i) => Number(query.get('from')) + i),
    );
    expect([places.length, new Set(places).size]).toEqual([150, 150]);
    expect(ledger.lineAt(179)!.record.title).toBe('Tide table 180');
  });

  test('shows the answer to the last question, however late an earlier one comes', async () => {
    let late!: (value: unknown) => void;
    answer = (asked) =>
      asked.query.get('q') === 'gat'
        ? new Promise((resolve) => (late = resolve))
        : { rows: [row(7)], total: 1, notes: [] };
    ask.setText('gat');
    await settled();
    ask.setText('gate');
    await settled();
    late({ rows: [row(1), row(2)], total: 2, notes: [] });
    await settled();
    expect([ledger.total, shown()]).toEqual([1, [id(7)]]);
    expect(ledger.cursor).toBe(id(7));
  });

  test('is asked for again when words are told of that were not yet findable, and then no more', async () => {
    const asks = (): number => page.asked.filter((a) => a.path === '/sources').length;
    const tellOfWords = async (): Promise<void> => {
      page.make(useLive).tell({ kinds: { words: 'all' } });
      await settled();
    };
    answer = () => ({ rows: [], total: 0, notes: [], settling: true });
    ask.setText('gate');
    await settled();
    const before = asks();
    answer = () => ({ rows: [row(7)], total: 1, notes: [], settling: false });
    await tellOfWords();
    await vi.waitFor(() => expect(shown()).toEqual([id(7)]));
    expect(asks()).toBe(before + 1);
    await tellOfWords();
    expect(asks()).toBe(before + 1);
  });

  test('is asked for again when the words were told of before the answer that lacks them came', async () => {
    let late!: (value: unknown) => void;
    answer = () => new Promise((resolve) => (late = resolve));
    ask.setText('gate');
    await settled();
    page.make(useLive).tell({ kinds: { words: 'all' } });
    answer = () => ({ rows: [row(7)], total: 1, notes: [], settling: false });
    late({ rows: [], total: 0, notes: [], settling: true });
    await settled();
    expect(shown()).toEqual([id(7)]);
  });

  test('chooses its first line while one types, without the slip following each letter; a person’s choice it follows', async () => {
    ask.setText('gat');
    await settled();
    expect([ledger.cursor, ledger.follows]).toEqual([id(1), true]);
    await ledger.move(1);
    expect([ledger.cursor, ledger.follows]).toEqual([id(2), false]);
    ask.setText('gate ');
    await settled();
    expect(ledger.follows).toBe(false);
    ask.setText('gate k');
    await settled();
    await ledger.click(id(9), plain);
    expect([ledger.cursor, ledger.follows]).toEqual([id(9), false]);
  });

  test('says in the server’s words what went wrong, and keeps what it showed', async () => {
    answer = () =>
      Response.json({ code: 'too_slow', detail: 'This question takes too long to answer.' }, { status: 503 });
    await ledger.load(true);
    expect([ledger.state, ledger.error]).toEqual(['failed', 'This question takes too long to answer.']);
    expect(ledger.lines.size).toBe(50);
    answer = serve;
    await ledger.load(true);
    expect(ledger.state).toBe('ready');
  });
});

describe('choosing', () => {
  const chosen = (): unknown => ledger.chosen;

  test('a click chooses one, Ctrl adds to it, Shift takes a stretch, another click lets go', async () => {
    await ledger.click(id(3), plain);
    expect(chosen()).toEqual({ ids: [id(3)] });
    await ledger.click(id(5), { ...plain, ctrlKey: true });
    expect(chosen()).toEqual({ ids: [id(3), id(5)] });
    await ledger.click(id(8), { ...plain, shiftKey: true });
    expect(chosen()).toEqual({ ids: [5, 6, 7, 8].map(id) });
    await ledger.click(id(1), plain);
    expect([ledger.count, chosen()]).toEqual([0, { ids: [id(1)] }]);
  });

  test('arrows move, with Shift they select as one goes and take back as one returns', async () => {
    await ledger.click(id(3), plain);
    await ledger.move(1, true);
    await ledger.move(1, true);
    expect(chosen()).toEqual({ ids: [3, 4, 5].map(id) });
    await ledger.move(-1, true);
    expect(chosen()).toEqual({ ids: [3, 4].map(id) });
    await ledger.move(-1e9);
    expect(ledger.cursor).toBe(id(1));
    await ledger.move(-1);
    expect(ledger.cursor).toBe(id(1));
    await ledger.move(1e9);
    expect(ledger.cursor).toBe(id(200));
  });

  test('a stretch over lines that were never seen is selected whole', async () => {
    await ledger.click(id(10), plain);
    await ledger.move(1e9, true);
    expect(chosen()).toEqual({ ids: library.slice(9).map(id) });
    expect(ledger.lines.size).toBeLessThan(100);
  });

  test('all that match are the question itself, but those one takes away; others that come or go count at once', async () => {
    ask.setText('tide');
    await settled();
    ledger.selectAll();
    ledger.toggle(id(2));
    expect([ledger.count, ledger.isSelected(id(2)), ledger.isSelected(id(199))]).toEqual([199, false, true]);
    expect(chosen()).toEqual({ matching: { q: 'tide', typing: true }, except: [id(2)] });
    library = library.filter((n) => n <= 100);
    page.make(useLive).tell({ everything: true, kinds: {} });
    await vi.waitFor(() => expect(ledger.count).toBe(99));
    ledger.unselect();
    expect(chosen()).toEqual({ ids: [ledger.cursor] });
  });

  test('what leaves the list leaves the selection, and another question begins without one', async () => {
    await ledger.click(id(3), plain);
    await ledger.click(id(6), { ...plain, shiftKey: true });
    library = library.filter((n) => n % 2);
    page.make(useLive).tell({ everything: true, kinds: {} });
    await vi.waitFor(() => expect(chosen()).toEqual({ ids: [id(3), id(5)] }));
    ask.setText('gate');
    await settled();
    expect(ledger.count).toBe(0);
  });

  test('when the chosen one goes, the one that stood after it is chosen, far down the list too', async () => {
    await ledger.go(149);
    library = library.filter((n) => n !== 150);
    page.make(useLive).tell({ everything: true, kinds: {} });
    await vi.waitFor(() => expect(ledger.cursor).toBe(id(151)));
    expect(ledger.place).toBe(149);
  });
});

describe('the question', () => {
  const query = (): unknown => page.router.currentRoute.value.query;

  test('a facet is included, then excluded, then let go', async () => {
    ask.turn('tag=used');
    await settled();
    expect(query()).toEqual({ include: ['tag=used'] });
    ask.turn('tag=used');
    await settled();
    expect(query()).toEqual({ exclude: ['tag=used'] });
    ask.turn('tag=used');
    await settled();
    expect([query(), ask.isNarrowed]).toEqual([{}, false]);
  });

  test('a collection takes the place of the bin, and a click on it again shows all', async () => {
    ask.setScope('bin');
    await settled();
    ask.setCollection('c1');
    await settled();
    expect(query()).toEqual({ collection: 'c1' });
    ask.setCollection('c1');
    await settled();
    expect(query()).toEqual({});
  });

  test('it lives in the address: what is there is what is asked', async () => {
    await page.router.push('/sources?q=tidal+gate&include=kind%3Dbook&from=1870&to=x&sort=-year&scope=loose');
    await settled();
    expect(ask.params).toEqual({
      q: 'tidal gate',
      typing: true,
      include: ['kind=book'],
      exclude: [],
      collection: undefined,
      scope: 'loose',
      yearFrom: 1870,
      yearTo: undefined,
      sort: '-year',
    });
    expect([ask.ranked, ask.isNarrowed]).toEqual([true, true]);
    const { query: sent } = page.asked.findLast((a) => a.path === '/sources')!;
    expect([sent.get('q'), sent.getAll('include'), sent.get('yearFrom')]).toEqual([
      'tidal gate',
      ['kind=book'],
      '1870',
    ]);
    ask.clear();
    await settled();
    expect(query()).toEqual({ sort: '-year' });
  });

  test('the bin alone is no chip; what narrows it is', async () => {
    ask.setScope('bin');
    await settled();
    expect([ask.hasChips, ask.isNarrowed]).toEqual([false, true]);
    ask.setYears(1870, undefined);
    await settled();
    expect(ask.hasChips).toBe(true);
  });

  test('only words are ranked by; conditions alone are not', async () => {
    ask.setText('tag:used year:1872');
    await settled();
    expect(ask.ranked).toBe(false);
    ask.setText('tag:used gate');
    await settled();
    expect(ask.ranked).toBe(true);
  });
});
