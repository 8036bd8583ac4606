// @vitest-environment happy-dom
/** What the report of an import says, and what it offers. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { ImportReport, IntakeRow } from '@pandecta/contract';
import { useSession } from '../session/store.ts';
import { settled, withoutPage } from '../testing.ts';
import AsItCame from './AsItCame.vue';
import GatherView from './GatherView.vue';
import ImportReportCard from './ImportReportCard.vue';
import { standingOf } from './standing.ts';

/** What each part of the page is answered where there is nothing yet. */
const NOTHING = {
  ...{ jobs: [], imports: [], collections: [], placements: [] },
  ...{ total: 0, from: 0, rows: [], notes: [], batches: [], facets: [], years: [] },
  ...{ waiting: 0, complete: 0, aside: 0, catalogues: [], searches: [], watches: [] },
};

let page: Awaited<ReturnType<typeof withoutPage>>;
let replies: Record<string, unknown>;
beforeEach(async () => {
  localStorage.clear();
  replies = {};
  page = await withoutPage(({ path }) => replies[path] ?? NOTHING);
});
afterEach(() => {
  document.body.innerHTML = '';
  vi.unstubAllGlobals();
});
const as = (...may: string[]): void => {
  page.make(useSession).workspace = { id: 'w', name: 'W', role: 'contributor', may } as never;
};

const report = (more: object = {}): ImportReport =>
  ({
    id: 'i',
    title: 'tides.ris',
    at: '2026-03-14T09:30:00Z',
    by: 'Ines Vance',
    destination: null,
    added: 3,
    known: 1,
    attached: 0,
    fresh: [{ id: 's1', title: 'Tides' }],
    withMessages: 1,
    messagesInAll: 1,
    changeId: 'c',
    undoable: true,
    files: [
      { name: 'tides.ris', format: 'RIS', added: 3, known: 1, messages: 1, outcome: '3 sources new' },
      { name: 'torn.pdf', format: 'PDF', added: 0, known: 0, messages: 1, outcome: 'Damaged', trouble: 'Damaged' },
    ],
    messages: [
      {
        file: 'tides.ris',
        severity: 'warning',
        rule: 'year',
        line: 7,
        column: 1,
        what: '“19x2” is no year',
        done: 'kept',
      },
    ],
    job: { id: 'j', state: 'done', done: 4, total: 4, says: '' },
    ...more,
  }) as unknown as ImportReport;
const show = (more: object = {}) => page.show(ImportReportCard, { report: report(more) });
const buttons = (view: ReturnType<typeof show>): string[] => view.findAll('button').map((b) => b.text());

describe('the report of an import', () => {
  test('tells what came of each file, and of each message where it stands and what was done', () => {
    as('gather');
    const view = show();
    const rows = (label: string) =>
      view.findAll(`table[aria-label=${label}] tbody tr`).map((r) => r.findAll('td').map((c) => c.text()));
    expect(rows('Files')).toEqual([
      ['tides.ris', 'RIS', '3 sources new'],
      ['torn.pdf', 'PDF', 'Damaged'],
    ]);
    expect(rows('Messages')).toEqual([['warning', 'tides.ris, line 7', '“19x2” is no year; kept']]);
    expect(view.text()).toMatch(/3\s*new.*1\s*already here/s);
  });

  test('offers to undo what stands, to whoever may; what is undone says so', () => {
    as('gather');
    expect(buttons(show())).toEqual(['Undo this import']);
    expect(show({ undoable: false }).text()).toContain('This import is undone');
    as('read');
    expect(buttons(show())).toEqual([]);
  });

  test('shows how far it is while it goes on, and asks before it is cancelled', async () => {
    as('gather');
    const view = show({ job: { id: 'j', state: 'running', done: 1, total: 4, says: 'Reading' } });
    expect(view.get('[role=progressbar]').attributes('aria-valuenow')).toBe('1');
    await view.get('button').trigger('click');
    expect(page.asked.filter((a) => a.path.endsWith('/cancel'))).toEqual([]);
    await view.findAll('button').at(-1)!.trigger('click');
    await settled();
    expect(page.asked.map((a) => a.path)).toContain('/jobs/j/cancel');
  });

  test('that failed says why at once, shows no figures, and is begun anew where one may', async () => {
    as('gather');
    const view = show({ job: { id: 'j', state: 'failed', says: 'The disk is full; nothing was added' } });
    expect([view.get('[role=alert]').text(), view.find('table').exists()]).toEqual([
      expect.stringContaining('The disk is full; nothing was added'),
      false,
    ]);
    await view.get('[role=alert] button').trigger('click');
    await settled();
    expect(page.asked.map((a) => a.path)).toContain('/jobs/j/again');
  });
});

describe('a line of the intake says what is most urgent of it', () => {
  const row = { unread: false, lookedUp: null, lacks: [], finds: [], guessed: [], files: 0 } as unknown as IntakeRow;
  test.each<[string, Partial<IntakeRow>, string]>([
    ['a text that could not be read', { unread: true, lacks: ['title'] }, 'left for you'],
    [
      'one that is here',
      { here: { id: 'x', verdict: 'certain', places: 2 }, lacks: ['page'] },
      'here already, in 2 places',
    ],
    ['one that may be here', { here: { id: 'x', verdict: 'perhaps', places: 0 } }, 'perhaps here already'],
    ['one nobody answered for', { lookedUp: 'silent', lacks: ['title'] }, 'nobody answered yet'],
    ['one that lacks something', { lacks: ['volume', 'page'] }, 'volume and pages missing'],
    ['one that lacks nothing', { files: 1 }, 'complete · file'],
    ['one that waits twice', { twice: 'Pasted list', lacks: ['page'] }, 'waits twice'],
    ['one that was guessed in part', { guessed: ['publisher'] }, 'guessed in part'],
    ['one in which something is found', { finds: ['Title in capitals'] }, 'title in capitals'],
    ['one in which much is found', { finds: ['Title in capitals', 'Edition in words'] }, '2 findings'],
  ])('%s', (_, more, says) => {
    expect(standingOf({ ...row, ...more }).says).toBe(says);
  });
});

describe('a text as it came', () => {
  const spans = [
    { field: 'author' as const, start: 0, end: 8 },
    { field: 'title' as const, start: 10, end: 23 },
  ];
  const text = 'Vance S. Silt and salt.';

  test('names each stretch, and gives it to another field by choosing it', async () => {
    const view = page.show(AsItCame, { text, spans: [spans[0], { ...spans[1], start: 9, end: 22 }], may: true });
    const title = view.findAll('button').find((b) => b.text() === 'Silt and salt')!;
    expect(title.attributes('aria-label')).toBe('Title: Silt and salt');
    await title.trigger('click');
    await settled();
    const entry = [...document.querySelectorAll('[role=menuitem]')].find(
      (e) => e.textContent?.trim() === 'Published in',
    )!;
    (entry as HTMLElement).click();
    await settled();
    expect(view.emitted('respan')).toEqual([[{ start: 9, end: 22, field: 'container-title' }]]);
  });

  test('is only shown to whom it is set aside', () => {
    expect(page.show(AsItCame, { text, spans, may: false }).findAll('button')).toEqual([]);
  });
});

describe('bringing in', () => {
  test('by hand goes where it was said, and to the new source', async () => {
    as('gather');
    replies['/places'] = {
      collections: [{ id: 'c1', name: 'Licensing', count: 0 }],
      placements: [{ id: 'p1', collection: 'c1', parent: null }],
      loose: 0,
      bin: 0,
      intake: 0,
      total: 0,
    };
    replies['/sources'] = { says: 'Added', changeId: 'c', id: 's9' };
    await page.router.push('/gather?into=c1');
    const view = page.show(GatherView);
    await settled();
    expect(view.get('section[aria-label="Where they go"]').text()).toContain('Licensing');
    await view.get('input[aria-label=Title]').setValue('  Tides ');
    await view.get('input[aria-label=Title]').trigger('submit');
    await settled();
    expect(page.asked.find((a) => a.method === 'POST')?.body).toEqual({
      record: { type: 'article-journal', title: 'Tides' },
      destination: { collections: ['c1'], tags: [], reading: null },
    });
    expect(page.router.currentRoute.value.fullPath).toBe('/sources?at=s9&edit=1');
  });

  test('is not offered to whoever may not', async () => {
    as('read');
    const view = page.show(GatherView);
    await settled();
    expect(view.findAll('button, input')).toEqual([]);
    expect(view.text()).toContain('As a reader you see what was brought in');
  });
});
