import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { SourceRow } from '@pandecta/contract';
import { settled, withoutPage, type Answer, type Asked } from '../testing.ts';
import { useAsk } from './ask.ts';
import { useLedger } from './ledger.ts';
import { useLive } from '../data/live.ts';

const id = (n: number): string => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const row = (n: number): SourceRow =>
  ({ id: id(n), record: { type: 'book', title: `Tide table ${n}` }, tags: [] }) as unknown as SourceRow;
const bytes = (ids: string[]): Uint8Array =>
  Uint8Array.from(ids.join('').replaceAll('-', '').match(/../g) ?? [], (h) => parseInt(h, 16));

/** A server of so many sources, the first fifty with the answer, the others on demand. */
let library: number[];
const serve: Answer = ({ path, body }: Asked) => {
  if (path === '/sources') return { rows: library.slice(0, 50).map(row), total: library.length, notes: [] };
  if (path === '/order') return new Response(bytes(library.map(id)) as BodyInit);
  if (path === '/rows') return { rows: (body as { ids: string[] }).ids.map((i) => row(Number(i.slice(-12)))) };
  throw new Error(`not asked for: ${path}`);
};

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

describe('the list', () => {
  test('holds the order of all that match, and the lines of those that were looked at, each asked for once', async () => {
    expect([ledger.total, ledger.ids.length, ledger.rows.size]).toEqual([200, 200, 50]);
    await Promise.all([ledger.ensure(40, 180), ledger.ensure(100, 200)]);
    expect(ledger.rows.size).toBe(200);
    const lines = page.asked.filter((a) => a.path === '/rows').flatMap((a) => (a.body as { ids: string[] }).ids);
    expect([lines.length, new Set(lines).size]).toEqual([150, 150]);
    expect(ledger.rows.get(id(180))!.record.title).toBe('Tide table 180');
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
    expect([ledger.total, ledger.ids]).toEqual([1, [id(7)]]);
    expect(ledger.cursor).toBe(id(7));
  });

  test('is asked for again, less and less often, while words just written are not yet findable', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const asks = (): number => page.asked.filter((a) => a.path === '/sources').length;
    const turns = async (): Promise<void> => {
      for (let i = 0; i < 60; i += 1) await Promise.resolve();
    };
    const before = asks();
    answer = () => ({ rows: [], total: 0, notes: [], settling: true });
    ask.setText('gate');
    await turns();
    expect(asks()).toBe(before + 1);
    for (const pause of [300, 600, 1200]) {
      vi.advanceTimersByTime(pause - 1);
      await turns();
      const waited = asks();
      vi.advanceTimersByTime(1);
      await turns();
      expect(asks()).toBe(waited + 1);
    }
    answer = () => ({ rows: [row(7)], total: 1, notes: [], settling: false });
    vi.advanceTimersByTime(2400);
    await turns();
    expect(ledger.ids).toEqual([id(7)]);
    const settledAt = asks();
    vi.advanceTimersByTime(60_000);
    await turns();
    expect(asks()).toBe(settledAt);
  });

  test('chooses its first line while one types, without the slip following each letter; a person’s choice it follows', async () => {
    ask.setText('gat');
    await settled();
    expect([ledger.cursor, ledger.follows]).toEqual([id(1), true]);
    ledger.move(1);
    expect([ledger.cursor, ledger.follows]).toEqual([id(2), false]);
    ask.setText('gate ');
    await settled();
    expect(ledger.follows).toBe(false);
    ask.setText('gate k');
    await settled();
    ledger.click(id(9), plain);
    expect([ledger.cursor, ledger.follows]).toEqual([id(9), false]);
  });

  test('says in the server’s words what went wrong, and keeps what it showed', async () => {
    answer = () =>
      Response.json({ code: 'too_slow', detail: 'This question takes too long to answer.' }, { status: 503 });
    await ledger.load(true);
    expect([ledger.state, ledger.error]).toEqual(['failed', 'This question takes too long to answer.']);
    expect(ledger.ids).toHaveLength(200);
    answer = serve;
    await ledger.load(true);
    expect(ledger.state).toBe('ready');
  });
});

describe('choosing', () => {
  test('a click chooses one, Ctrl adds to it, Shift takes a stretch, another click lets go', () => {
    ledger.click(id(3), plain);
    expect(ledger.chosen).toEqual([id(3)]);
    ledger.click(id(5), { ...plain, ctrlKey: true });
    expect(ledger.chosen).toEqual([id(3), id(5)]);
    ledger.click(id(8), { ...plain, shiftKey: true });
    expect(ledger.chosen).toEqual([5, 6, 7, 8].map(id));
    ledger.click(id(1), plain);
    expect([ledger.selected.size, ledger.chosen]).toEqual([0, [id(1)]]);
  });

  test('arrows move, with Shift they select as one goes and take back as one returns', () => {
    ledger.click(id(3), plain);
    ledger.move(1, true);
    ledger.move(1, true);
    expect(ledger.chosen).toEqual([3, 4, 5].map(id));
    ledger.move(-1, true);
    expect(ledger.chosen).toEqual([3, 4].map(id));
    ledger.move(-1e9);
    expect(ledger.cursor).toBe(id(1));
    ledger.move(-1);
    expect(ledger.cursor).toBe(id(1));
    ledger.move(1e9);
    expect(ledger.cursor).toBe(id(200));
  });

  test('all that match are selected, also those whose lines were never seen; what leaves the list leaves the selection', async () => {
    ledger.selectAll();
    expect(ledger.chosen).toHaveLength(200);
    library = library.filter((n) => n % 2);
    page.make(useLive).tell({ everything: true, kinds: {} });
    await vi.waitFor(() => expect(ledger.ids).toHaveLength(100));
    expect(ledger.chosen).toHaveLength(100);
    ledger.unselect();
    expect(ledger.chosen).toEqual([ledger.cursor]);
  });

  test('when the chosen one goes, the one that stood after it is chosen', async () => {
    ledger.click(id(4), plain);
    library = library.filter((n) => n !== 4);
    page.make(useLive).tell({ everything: true, kinds: {} });
    await vi.waitFor(() => expect(ledger.ids).not.toContain(id(4)));
    await settled();
    expect(ledger.cursor).toBe(id(5));
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
