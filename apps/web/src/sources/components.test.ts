// @vitest-environment happy-dom
/** What the parts of Sources do on screen. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Facet, SourceDetail, SourceRow } from '@pandecta/contract';
import { useSession } from '../session/store.ts';
import { settled, withoutPage, type Answer } from '../testing.ts';
import { useAsk } from './ask.ts';
import AskLine from './asking/AskLine.vue';
import BatchSlip from './BatchSlip.vue';
import HistoryList from './HistoryList.vue';
import { useLook } from './ledger/columns.ts';
import LedgerRow from './ledger/LedgerRow.vue';
import NarrowPane from './NarrowPane.vue';
import { useNarrow } from './narrow.ts';
import RecordEditor from './RecordEditor.vue';
import TagInput from './TagInput.vue';
import YearRibbon from './ledger/YearRibbon.vue';

let page: Awaited<ReturnType<typeof withoutPage>>;
let answer: Answer;
/** What the server says of the question asked of it. */
const serve =
  (replies: Record<string, unknown>): Answer =>
  ({ path }) =>
    replies[path] ?? {
      rows: [],
      total: 0,
      notes: [],
      facets: [],
      years: [],
      collections: [],
      placements: [],
      tags: [],
    };

beforeEach(async () => {
  localStorage.clear();
  answer = serve({});
  page = await withoutPage((asked) => answer(asked));
  page.make(useSession).workspace = {
    id: 'w',
    name: 'Inquiry',
    role: 'contributor',
    may: ['read', 'edit', 'own', 'cite', 'gather', 'arrange', 'mark'],
  };
});
afterEach(() => {
  document.body.innerHTML = '';
  vi.unstubAllGlobals();
});

const button = (view: ReturnType<typeof page.show>, name: string) =>
  view.findAll('button').find((b) => (b.attributes('aria-label') ?? b.text()) === name)!;

describe('the record being edited', () => {
  const source = {
    id: 's',
    record: { type: 'book', title: 'Tides', publisher: 'Quillback' },
    provenance: { publisher: { from: 'layout', sure: 0.7 } },
    tags: [],
    places: [],
    files: [],
    versions: [],
  } as unknown as SourceDetail;
  const edits = () => page.asked.filter((a) => a.method === 'PATCH').map((a) => a.body);
  const stale = (theirs: unknown): Response =>
    Response.json(
      {
        detail: 'Ines Vance changed this',
        conflict: {
          by: 'Ines Vance',
          subject: { kind: 'source', id: 's' },
          moved: [{ what: 'title', field: 'title', yours: 'Ebb', theirs }],
        },
      },
      { status: 409 },
    );

  test('sends a field once it is left, with what it held when one began, and nothing where nothing changed', async () => {
    const view = page.show(RecordEditor, { source });
    const title = view.get('#field-title');
    await title.setValue('Ebb');
    await title.trigger('blur');
    await settled();
    expect(edits()).toEqual([{ fields: { title: 'Ebb' }, seen: { title: 'Tides' } }]);
    await view.get('#field-publisher').setValue('Quillback');
    await view.get('#field-publisher').trigger('blur');
    await settled();
    expect(edits()).toHaveLength(1);
  });

  test('is no other’s: written on before the record has come anew, it stands on what was saved', async () => {
    answer = ({ method }) => (method === 'PATCH' ? { changeId: 'c', says: 'Changed title' } : {});
    const view = page.show(RecordEditor, { source });
    const title = view.get('#field-title');
    for (const text of ['Ebb', 'Flood']) {
      await title.setValue(text);
      await title.trigger('blur');
      await settled();
    }
    expect(edits()).toEqual([
      { fields: { title: 'Ebb' }, seen: { title: 'Tides' } },
      { fields: { title: 'Flood' }, seen: { title: 'Ebb' } },
    ]);
    expect((title.element as HTMLInputElement).value).toBe('Flood');
    // What another wrote meanwhile is seen once the record has come.
    await view.setProps({ source: { ...source, record: { type: 'book', title: 'Springs' } } });
    expect((title.element as HTMLInputElement).value).toBe('Springs');
  });

  test('shows the other reports of a case a row each, and saves them together once all are left', async () => {
    const record = { type: 'legal_case', title: 'Re Withy', parallel: '[1987] 2 WLR 30, 33 (CA); 26 DLR (4th) 200' };
    const view = page.show(RecordEditor, { source: { ...source, record } });
    const field = (name: string) => view.get<HTMLInputElement>(`[aria-label="${name}"]`);
    const parts = ['Year', 'Volume', 'Report', 'First page', 'Pinpoint', 'Court'];
    const row = (at: number) => parts.map((p) => field(`${p} of report ${at}`).element.value);
    expect(row(1)).toEqual(['[1987]', '2', 'WLR', '30', '33', 'CA']);
    expect(row(2)).toEqual(['', '26', 'DLR (4th)', '200', '', '']);
    await field('Pinpoint of report 2').setValue('210');
    await field('Pinpoint of report 2').trigger('focusout', { relatedTarget: field('Court of report 2').element });
    expect(edits()).toEqual([]);
    await view
      .findAll('button')
      .find((b) => b.text() === 'Add a report')!
      .trigger('click');
    await field('Report of report 3').setValue('Sallow LR; 4');
    expect(document.activeElement).toBe(field('Year of report 3').element);
    await field('Report of report 3').trigger('focusout');
    await settled();
    const now = '[1987] 2 WLR 30, 33 (CA); 26 DLR (4th) 200, 210; Sallow LR  4';
    expect(edits()).toEqual([{ fields: { parallel: now }, seen: { parallel: record.parallel } }]);
    await button(view, 'Remove report 1').trigger('click');
    await settled();
    expect(edits().at(-1)).toMatchObject({ fields: { parallel: '26 DLR (4th) 200, 210; Sallow LR  4' } });
  });

  test('saves what is written in the next source too, when one went on to it while editing', async () => {
    const view = page.show(RecordEditor, { source });
    await view.setProps({ source: { ...source, id: 'next', record: { type: 'book', title: 'Floods' } } });
    await view.get('#field-title').setValue('Springs');
    await view.get('#field-title').trigger('blur');
    await settled();
    expect(view.find('[role=alert]').exists()).toBe(false);
    expect(edits()).toEqual([{ fields: { title: 'Springs' }, seen: { title: 'Floods' } }]);
  });

  test('that met another’s newer value shows both, and loses neither until one has chosen', async () => {
    answer = ({ method }) => (method === 'PATCH' ? stale('Flood') : {});
    const view = page.show(RecordEditor, { source });
    await view.get('#field-title').setValue('Ebb');
    await view.get('#field-title').trigger('blur');
    await settled();
    const both = view.get('[role=alert]');
    expect(both.findAll('dd').map((d) => d.text())).toEqual(['Flood', 'Keep theirs', 'Ebb', 'Use mine']);
    await view.get('#field-title').trigger('blur');
    expect(edits()).toHaveLength(1);
    answer = () => ({ says: 'Edited', changeId: 'c' });
    await button(view, 'Use mine').trigger('click');
    await settled();
    expect(edits().at(-1)).toEqual({ fields: { title: 'Ebb' }, seen: { title: 'Flood' } });
    expect(view.find('[role=alert]').exists()).toBe(false);
  });

  test('lets one’s own go where one keeps theirs', async () => {
    answer = ({ method }) => (method === 'PATCH' ? stale('Flood') : {});
    const view = page.show(RecordEditor, { source });
    await view.get('#field-title').setValue('Ebb');
    await view.get('#field-title').trigger('blur');
    await settled();
    await button(view, 'Keep theirs').trigger('click');
    expect((view.get('#field-title').element as HTMLTextAreaElement).value).toBe('Tides');
    expect(edits()).toHaveLength(1);
  });

  test('says how a field is known, and what is wrong with a date', async () => {
    const view = page.show(RecordEditor, { source });
    expect(view.text()).toContain('from layout, 70 % sure');
    await view.get('#field-issued').setValue('1874/1871');
    expect(view.get('#field-issued').attributes('aria-invalid')).toBe('true');
  });
});

describe('narrowing', () => {
  const facet = (count: number): Facet => ({
    type: 'tag',
    name: 'Tag',
    values: Array.from({ length: count }, (_, i) => ({ key: `t${i}`, name: `tag ${i}`, count: 20 - i })),
  });
  const show = async (facets: Facet[]) => {
    const offered = facets.map(({ type, name }) => ({ type, name }));
    answer = serve({ '/narrow': { total: 9, years: [], offered, facets } });
    page.make(useNarrow);
    const view = page.show(NarrowPane);
    await settled();
    return view;
  };

  test('a click includes, another leaves out, a third does neither', async () => {
    const view = await show([facet(2)]);
    const ask = page.make(useAsk);
    const seen: unknown[] = [];
    for (let i = 0; i < 3; i += 1) {
      await view.findAll('li button')[0]!.trigger('click');
      await settled();
      seen.push([[...ask.include], [...ask.exclude]]);
    }
    expect(seen).toEqual([
      [['tag=t0'], []],
      [[], ['tag=t0']],
      [[], []],
    ]);
  });

  test('few values are shown until more are asked for', async () => {
    const view = await show([facet(15)]);
    expect(view.findAll('li')).toHaveLength(6);
    await button(view, '+ 9 more').trigger('click');
    expect(view.findAll('li')).toHaveLength(15);
  });

  test('of very many values all stand in a sheet', async () => {
    const many = await show([facet(30)]);
    expect(many.findAll('li')).toHaveLength(6);
    expect(button(many, 'all of them…').exists()).toBe(true);
  });

  test('only what is open is counted', async () => {
    const view = await show([facet(2)]);
    await view.get('h2 button').trigger('click');
    await settled();
    const asked = page.asked.filter((a) => a.path.includes('/narrow')).at(-1)!;
    expect(new URL(asked.path, 'http://x').searchParams.getAll('facets')).not.toContain('tag');
  });

  test('what was chosen stays in sight where it matches nothing now', async () => {
    await page.router.push('/sources?include=tag%3Dlost');
    const view = await show([facet(1)]);
    const first = view.get('li button');
    expect([first.attributes('aria-pressed'), first.text()]).toEqual(['true', '✓ lost0']);
  });
});

describe('the ask line', () => {
  test('shows what narrows as chips; Backspace at its beginning takes the last away', async () => {
    await page.router.push('/sources?include=kind%3Dbook&exclude=tag%3Dx&from=1980');
    const view = page.show(AskLine, { building: false });
    await settled();
    const chips = () => view.findAll('.chip').map((c) => c.text());
    expect(chips()).toEqual(['kind: book', 'not tag: x', 'years: 1980–…']);
    await view.get('input').trigger('keydown', { key: 'Backspace' });
    await settled();
    expect(chips()).toEqual(['kind: book', 'not tag: x']);
    await button(view, 'Take away kind: book').trigger('click');
    await settled();
    expect(chips()).toEqual(['not tag: x']);
  });

  test('sends words as they are typed, and Clear takes words and chips away', async () => {
    const ask = page.make(useAsk);
    const view = page.show(AskLine, { building: false });
    await view.get('input').setValue('gate');
    await vi.waitFor(() => expect(ask.text).toBe('gate'));
    await button(view, 'Clear').trigger('click');
    await settled();
    expect([ask.text, (view.get('input').element as HTMLInputElement).value]).toEqual(['', '']);
  });
});

describe('a line of the ledger', () => {
  const row = (more: object): SourceRow =>
    ({
      id: 'a',
      record: { type: 'article-journal', title: 'Tides' },
      tags: [],
      titleLit: [],
      marks: 0,
      pages: 0,
      files: 0,
      places: [],
      reading: null,
      starred: false,
      rating: null,
      recheck: null,
      labels: [],
      hits: [],
      moreHits: 0,
      addedAt: '2026-03-14',
      ...more,
    }) as unknown as SourceRow;
  const say = (more: object): string => page.show(LedgerRow, { row: row(more), checked: false, current: false }).text();

  test('says of an article where it stands, of a case its report and court, of a letter to whom', () => {
    const name = { family: 'Okonjo', given: 'Marit' };
    const issued = { 'date-parts': [[1974, 3, 2]] };
    expect(
      say({
        record: {
          type: 'article-journal',
          title: 'Tides',
          author: [name],
          'container-title': 'Shore',
          volume: '3',
          issue: '1',
          issued,
        },
      }),
    ).toContain('Okonjo · Shore 3(1) · 1974');
    expect(
      say({
        record: {
          type: 'legal_case',
          title: 'Sallow v Withy',
          volume: '2',
          'container-title': 'SR',
          page: '10',
          authority: 'High Court',
          issued,
        },
      }),
    ).toContain('2 SR 10, High Court · 2 Mar 1974');
    expect(
      say({
        record: {
          type: 'personal_communication',
          title: 'Letter',
          author: [name],
          recipient: [{ family: 'Reed' }],
          issued,
        },
      }),
    ).toContain('Okonjo · to Reed · 2 Mar 1974');
  });

  test('says how many marks, pages and places it has, in words that fit the number', () => {
    expect(say({ marks: 1, pages: 7, places: ['a', 'b'], files: 1 })).toMatch(/1 mark7 p\.2 places/);
  });

  test('has its columns where each source has one line, and says what its citation would miss', () => {
    const look = page.make(useLook);
    const book = { record: { type: 'book', title: 'Tides', publisher: 'Quillback' }, places: ['a', 'b'] };
    expect(say(book)).toContain('Quillback · author and date missing');
    look.setDensity('one');
    for (const id of ['author', 'year', 'tags', 'missing', 'places'] as const) look.toggle(id);
    expect(say(book)).toBe('BkBookTidesQuillbackauthor and date2');
  });

  test('says why a file cannot be searched, and what a tag means where one rests on it', () => {
    const tags = [{ id: 't', name: 'used', subject: false, says: 'Stands in a draft' }];
    const view = page.show(LedgerRow, {
      row: row({ fileTrouble: 'image only', tags }),
      checked: false,
      current: false,
    });
    expect(view.text()).toContain('image only');
    expect(view.get('.tag').attributes('title')).toBe('used: Stands in a draft');
  });
});

describe('adding a tag', () => {
  test('offers those that begin so, and a new one where none is called so; Enter takes none of an earlier letter', async () => {
    answer = ({ query }) => ({
      tags: query.get('begins') === 'u' ? [{ id: '1', name: 'used', subject: false, count: 3 }] : [],
    });
    const view = page.show(TagInput);
    const offered = () => view.findAll('[role=option]').map((o) => o.text());
    await view.get('input').setValue('u');
    await vi.waitFor(() => expect(offered()).toEqual(['used3', 'New tag “u”']));
    await view.get('input').setValue('up');
    expect(offered()).toEqual(['New tag “up”']);
    await view.get('input').trigger('keydown', { key: 'Enter' });
    await vi.waitFor(() => expect(view.emitted('add')).toEqual([['up']]));
  });
});

test('a history tells who did what and when, with fields before and after, and offers to undo what stands', async () => {
  const entry = (more: object) => ({
    id: 'c1',
    by: 'Ines Vance',
    at: '2026-03-14T09:30:00Z',
    says: 'Edited title',
    undone: false,
    undoes: null,
    change: { do: 'edit', source: 's', fields: { title: { before: 'Tides', after: 'Ebb' } } },
    ...more,
  });
  answer = serve({
    '/sources/s/history': {
      entries: [entry({}), entry({ id: 'c2', says: 'Tagged', undone: true, change: { do: 'tag' } })],
    },
  });
  const view = page.show(HistoryList, { source: 's' });
  await settled();
  expect(view.findAll('li').map((l) => l.findAll('button').length)).toEqual([1, 0]);
  expect([view.get('del').text(), view.get('ins').text()]).toEqual(['Tides', 'Ebb']);
  expect(view.findAll('time').map((t) => t.attributes('datetime'))).toEqual(Array(2).fill('2026-03-14T09:30:00.000Z'));
  expect(view.text()).toContain('undone');
});

test('several sources: what all share is said so, and what only some have by how many', async () => {
  const sum = {
    count: 3,
    kinds: [{ name: 'Book', count: 3 }],
    tags: [{ id: 't', name: 'used', subject: false, count: 2 }],
    collections: [],
    withFile: 1,
    starred: 3,
    reading: [{ state: 'none', count: 3 }],
    yearFrom: 1974,
    yearTo: 2014,
  };
  answer = serve({ '/summary': sum });
  const chosen = { ids: ['a', 'b', 'c'] };
  const view = page.show(BatchSlip, { chosen, count: 3 });
  await vi.waitFor(() => expect(view.text()).toContain('Bookall'));
  expect(view.text()).toMatch(/3 sources.*used2.*In no collection.*with a file1.*starredall.*years1974–2014/s);
  await button(view, 'Take used from all').trigger('click');
  await settled();
  expect(page.asked.find((a) => a.path === '/tagging')).toMatchObject({
    body: { ...chosen, name: 'used', present: false },
  });
});

test('years are typed beside the ribbon; what is no year changes nothing', async () => {
  answer = serve({
    '/narrow': {
      total: 2,
      facets: [],
      years: [
        { year: 1974, count: 1 },
        { year: 2014, count: 1 },
      ],
    },
  });
  const ask = page.make(useAsk);
  page.make(useNarrow);
  const view = page.show(YearRibbon);
  await settled();
  const from = view.get('input[aria-label="From year"]');
  expect(from.attributes('placeholder')).toBe('1974');
  await from.setValue('1980');
  await from.trigger('change');
  await settled();
  expect(ask.years).toEqual([1980, undefined]);
  await from.setValue('soon');
  await from.trigger('change');
  await settled();
  expect(ask.years[0]).not.toBeNaN();
});
