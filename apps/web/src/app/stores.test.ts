/** What was done and what runs, collections, and open documents: the stores every view shares. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { JobInfo, PlacesReply } from '@pandecta/contract';
import { droppedFiles } from '../gather/upload.ts';
import { useLive } from '../data/live.ts';
import { useJobs } from '../gather/jobs.ts';
import { hasWords } from '../kit/words.ts';
import { usePlaces } from '../places/store.ts';
import { useTabs } from '../read/tabs.ts';
import { useBatch } from '../sources/batch.ts';
import { settled, withoutPage, type Answer } from '../testing.ts';
import { useChanges } from '../act/changes.ts';

let answer: Answer;
let page: Awaited<ReturnType<typeof withoutPage>>;
beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  page = await withoutPage((asked) => answer(asked));
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const turn = async (): Promise<void> => {
  vi.useRealTimers();
  await settled();
};

describe('what a person did', () => {
  test('is told in the server’s sentence, with its undo, and every view learns that data changed', async () => {
    const changes = page.make(useChanges);
    const heard = vi.fn();
    page.make(useLive).listen(heard);
    answer = () => ({ says: 'Tagged 2 sources “used”', changeId: 'c1' });
    await page.make(useBatch).tag({ ids: ['a', 'b'] }, 'used');
    expect(page.asked[0]).toMatchObject({
      method: 'POST',
      path: '/tagging',
      body: { ids: ['a', 'b'], name: 'used', present: true, subject: false },
    });
    expect(changes.notice).toEqual({ text: 'Tagged 2 sources “used”', changeIds: ['c1'], bad: false });
    expect(heard).toHaveBeenCalledTimes(1);
    // The stream tells of the same change: it is news no more.
    page.make(useLive).tell({ kinds: { source: ['a'] }, changeId: 'c1' });
    expect(heard).toHaveBeenCalledTimes(1);
    vi.advanceTimersByTime(8000);
    expect(changes.notice).toBeNull();
  });

  test('and what was wrong, when nothing was done', async () => {
    const changes = page.make(useChanges);
    answer = () => Response.json({ code: 'busy', detail: 'Someone else is writing.' }, { status: 503 });
    expect(await changes.undo()).toBeUndefined();
    expect(changes.notice).toEqual({ text: 'Someone else is writing.', changeIds: [], bad: true });
    answer = () => {
      throw new TypeError('no network');
    };
    await changes.redo();
    expect(changes.notice!.text).toContain('The server does not answer. Nothing was changed');
  });

  test('several changes told of together are undone together, the last first', async () => {
    answer = () => ({ says: 'Undone', changeId: 'u' });
    const changes = page.make(useChanges);
    changes.together(['c1', 'c2'], 'Merged 2 groups');
    expect(changes.notice).toEqual({ text: 'Merged 2 groups', changeIds: ['c1', 'c2'], bad: false });
    await changes.undoAll(['c1', 'c2']);
    expect(page.asked.map(({ path }) => path)).toEqual(['/changes/c2/undo', '/changes/c1/undo']);
    expect(changes.notice).toEqual({ text: 'Undone: Merged 2 groups', changeIds: [], bad: false });
  });

  test('the reading state goes round', () => {
    const { nextState } = page.make(useBatch);
    const states = [undefined, 'to read', 'reading', 'read'] as const;
    expect(states.map((s) => nextState(s))).toEqual(['to read', 'reading', 'read', null]);
  });
});

describe('long work', () => {
  const job = (state: JobInfo['state'], says = ''): JobInfo =>
    ({ id: 'j1', kind: 'import', title: 'tides.ris', state, done: 1, total: 2, says }) as JobInfo;

  test('is looked at when the server says that it went on, and its end is told once', async () => {
    const changes = page.make(useChanges);
    answer = () => ({ jobs: [job('running')] });
    const jobs = page.make(useJobs);
    const live = page.make(useLive);
    await turn();
    expect([jobs.running.length, changes.notice]).toEqual([1, null]);
    answer = () => ({ jobs: [job('done', '400 sources new')] });
    live.tell({ kinds: { job: ['j1'] } });
    await vi.waitFor(() =>
      expect([jobs.running.length, changes.notice?.text]).toEqual([0, 'tides.ris: 400 sources new']),
    );
    changes.tell('something else');
    await jobs.look();
    expect(changes.notice?.text).toEqual('something else');
  });

  test('a change that became a job is followed from its beginning, even if it ended at once, and can be undone then', async () => {
    const changes = page.make(useChanges);
    answer = () => ({ jobs: [] });
    page.make(useJobs);
    await turn();
    answer = ({ path }) =>
      path === '/jobs'
        ? { jobs: [{ ...job('done', 'Undone: Added 20,000 sources'), kind: 'change', changeId: 'c9' }] }
        : {
            says: 'Undoing “Added 20,000 sources” takes a while; Jobs shows how far it is',
            changeId: null,
            jobId: 'j1',
          };
    await changes.undo();
    expect(changes.notice).toMatchObject({ text: expect.stringContaining('takes a while') as string, changeIds: [] });
    await turn();
    expect(changes.notice).toEqual({ text: 'Undone: Added 20,000 sources', changeIds: ['c9'], bad: false });
    expect(changes.begun).toBeNull();
  });

  test('a server that is away for a moment is asked again', async () => {
    answer = () => new Response('', { status: 502 });
    const jobs = page.make(useJobs);
    await jobs.look();
    answer = () => ({ jobs: [job('running')] });
    await jobs.look();
    expect(jobs.running).toHaveLength(1);
  });

  test('cancelling says so to the server', async () => {
    answer = () => ({ jobs: [job('cancelled')] });
    const jobs = page.make(useJobs);
    await jobs.cancel('j1');
    await turn();
    expect(page.asked.find((a) => a.method === 'POST')).toMatchObject({ method: 'POST', path: '/jobs/j1/cancel' });
    expect(jobs.running).toEqual([]);
  });
});

describe('collections', () => {
  const collection = (id: string, name: string, count = 0) => ({ id, name, count });
  const PLACES = {
    collections: [collection('a', 'Archive', 3), collection('b', 'Licensing'), collection('c', 'Cases', 2)],
    placements: [
      { id: 'p2', collection: 'b', parent: null },
      { id: 'p1', collection: 'a', parent: null },
      { id: 'p3', collection: 'c', parent: 'b' },
      { id: 'p4', collection: 'c', parent: 'a' },
      { id: 'p5', collection: 'a', parent: 'c' },
    ],
  } as unknown as PlacesReply;

  test('are a tree in the server’s order, one of several places marked, and no circle followed', async () => {
    answer = () => PLACES;
    const places = page.make(usePlaces);
    await places.load();
    expect(places.flat.map((c) => c.path)).toEqual([
      'Archive',
      'Archive › Cases',
      'Licensing',
      'Licensing › Cases',
      'Licensing › Cases › Archive',
    ]);
    expect(places.tree[1]!.children[0]).toMatchObject({ shared: true, collection: { name: 'Cases' } });
    expect([places.pathOf('c'), places.pathOf('gone')]).toEqual(['Archive › Cases', 'a collection']);
  });

  test('stay as they were when the server does not answer', async () => {
    answer = () => PLACES;
    const places = page.make(usePlaces);
    await places.load();
    answer = () => new Response('', { status: 500 });
    await places.load();
    expect(places.flat).toHaveLength(5);
  });

  test('are found by the words of their path, in any order', () => {
    expect(hasWords('Licensing › Cases', 'cas lic')).toBe(true);
    expect(hasWords('Licensing › Cases', 'archive')).toBe(false);
    expect(hasWords('Licensing', '')).toBe(true);
  });
});

test('open documents: one tab each, that keeps its page; the one closed gives way to its neighbour', () => {
  const tabs = page.make(useTabs);
  const tab = (n: number) => ({ source: `s${n}`, file: `f${n}`, title: `Okonjo ${n}` });
  for (const n of [1, 2, 3]) {
    tabs.show(tab(n));
    tabs.keep({ file: `f${n}`, page: n * 10 });
  }
  tabs.show({ ...tab(2), title: 'Okonjo 2014' });
  expect([tabs.open[1]!.title, tabs.placeOf('f2')]).toEqual(['Okonjo 2014', { file: 'f2', page: 20 }]);
  // What was looked through stays known where only the page is another.
  tabs.keep({ file: 'f1', page: 11, looked: [1, 4] });
  tabs.keep({ file: 'f1', page: 12, zoom: null });
  expect(tabs.placeOf('f1')).toEqual({ file: 'f1', page: 12, zoom: null, looked: [1, 4] });
  expect([tabs.open.length, tabs.current?.file]).toEqual([3, 'f2']);
  expect(tabs.close('f2')?.file).toBe('f3');
  expect(tabs.close('f3')?.file).toBe('f1');
  expect(tabs.close('f1')).toBeUndefined();
});

test('files of dropped folders come too, with the folders they lay in; those the system hides do not', async () => {
  const file = (path: string) => ({
    isFile: true,
    fullPath: path,
    file: (ok: (f: File) => void) => ok(new File(['x'], path.split('/').at(-1)!)),
  });
  const folder = (...parts: unknown[][]) => ({
    isFile: false,
    createReader: () => ({ readEntries: (ok: (e: unknown[]) => void) => ok(parts.shift() ?? []) }),
  });
  const dropped = [
    file('/a.ris'),
    folder([file('/Box 4/b.pdf')], [folder([file('/Box 4/letters/c.bib'), file('/Box 4/.hidden')])]),
  ];
  const data = { items: dropped.map((e) => ({ webkitGetAsEntry: () => e })), files: [] };
  const files = await droppedFiles(data as unknown as DataTransfer);
  expect(files.map((f) => ('path' in f ? f.path : f.name))).toEqual(['a.ris', 'Box 4/b.pdf', 'Box 4/letters/c.bib']);
});
