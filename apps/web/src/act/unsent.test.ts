// @vitest-environment happy-dom
/** What one wrote while nobody answered: kept, sent when somebody does, once, and lost by nothing but one's own hand. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { SourceDetail } from '@pandecta/contract';
import UnsentMenu from '../app/UnsentMenu.vue';
import { RecordEditor } from '../sources/index.ts';
import { settled, withoutPage, type Answer } from '../testing.ts';
import { useChanges } from './changes.ts';
import { useUnsent } from './unsent.ts';

let answer: Answer;
let page: Awaited<ReturnType<typeof withoutPage>>;
beforeEach(async () => {
  sessionStorage.clear();
  answer = nobody;
  page = await withoutPage((asked) => answer(asked));
});
afterEach(() => {
  document.body.innerHTML = '';
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const nobody: Answer = () => {
  throw new TypeError('no network');
};
const problem = (status: number, detail: string): Response => Response.json({ status, code: 'x', detail }, { status });
const source = (id: string, title: string): SourceDetail =>
  ({ id, record: { type: 'book', title }, provenance: {}, tags: [], places: [], files: [], versions: [] }) as never;
const edits = () => page.asked.filter((a) => a.method === 'PATCH').map((a) => [a.path, a.body]);

async function write(view: ReturnType<typeof page.show>, text: string): Promise<void> {
  const title = view.get('#field-title');
  await title.setValue(text);
  await title.trigger('blur');
  await settled();
}
const titleIn = (view: ReturnType<typeof page.show>): string =>
  (view.get('#field-title').element as HTMLTextAreaElement).value;

test('a field left while nobody answers is kept over going on to another source, and is there on coming back', async () => {
  const view = page.show(RecordEditor, { source: source('a', 'Tides') });
  await write(view, 'Ebb');
  expect(page.make(useChanges).notice!.text).toContain('What you wrote is kept');
  await view.setProps({ source: source('b', 'Floods') });
  expect(titleIn(view)).toBe('Floods');
  await view.setProps({ source: source('a', 'Tides') });
  expect(titleIn(view)).toBe('Ebb');
  // Also after the page was loaded anew.
  expect(sessionStorage.getItem('unsent undefined undefined')).toContain('Ebb');
});

test.each([
  ['the database is away', () => problem(503, 'The database does not answer just now.')],
  ['one is to sign in anew', () => problem(401, 'Sign in to go on.')],
])('where %s it is kept as well', async (_, reply) => {
  answer = reply;
  await write(page.show(RecordEditor, { source: source('a', 'Tides') }), 'Ebb');
  expect(page.make(useUnsent).kept).toMatchObject([{ text: 'Ebb', says: 'Title of “Tides”' }]);
});

test('it is sent with what stood there when one began, as soon as somebody answers, and waits no more', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  const unsent = page.make(useUnsent);
  const edit = { of: 'record', source: 'a', field: 'title', value: 'Ebb', before: 'Tides' } as const;
  void unsent.save({ edit, text: 'Ebb', says: 'Title', to: '/' });
  await vi.advanceTimersByTimeAsync(1);
  answer = () => ({ says: 'Changed title', changeId: 'c' });
  await vi.advanceTimersByTimeAsync(3500);
  expect(edits()).toEqual(Array(2).fill(['/sources/a', { fields: { title: 'Ebb' }, seen: { title: 'Tides' } }]));
  expect(unsent.kept).toEqual([]);
  await vi.advanceTimersByTimeAsync(10_000);
  expect(edits()).toHaveLength(2);
});

test('what was saved by and by stands in the editor, and what one wrote on since stands on it', async () => {
  const view = page.show(RecordEditor, { source: source('a', 'Tides') });
  await write(view, 'Ebb');
  await view.get('#field-title').setValue('Ebb and flood');
  answer = () => ({ says: 'Changed title', changeId: 'c' });
  await page.make(useUnsent).sendAll();
  await settled();
  expect(titleIn(view)).toBe('Ebb and flood');
  await view.get('#field-title').trigger('blur');
  await settled();
  expect(edits().at(-1)).toEqual(['/sources/a', { fields: { title: 'Ebb and flood' }, seen: { title: 'Ebb' } }]);
});

test('what one writes while an earlier one is being sent is kept, and stands on that one where it comes through', async () => {
  const unsent = page.make(useUnsent);
  const title = (value: string) => ({ edit: { of: 'record', source: 'a', field: 'title', value, before: 'Tides' } as const, text: value, says: 'Title', to: '/' }); // prettier-ignore
  for (const comesThrough of [false, true]) {
    await unsent.save(title('Ebb'));
    let end!: () => void;
    answer = () =>
      new Promise((resolve, refuse) => {
        end = () =>
          comesThrough ? resolve({ says: 'Changed title', changeId: 'c' }) : refuse(new TypeError('no network'));
      });
    const sending = unsent.sendAll();
    await settled();
    answer = nobody;
    await unsent.save(title('Flood'));
    end();
    await sending;
    expect(unsent.kept).toMatchObject([{ text: 'Flood', edit: { before: comesThrough ? 'Ebb' : 'Tides' } }]);
    unsent.letGo(unsent.kept[0]!.edit);
  }
});

test('what one takes back before it could be saved is not saved, and what one lets go is not shown as though it were', async () => {
  const view = page.show(RecordEditor, { source: source('a', 'Tides') });
  const unsent = page.make(useUnsent);
  await write(view, 'Ebb');
  await write(view, 'Tides');
  expect(unsent.kept).toEqual([]);
  await write(view, 'Flood');
  unsent.letGo(unsent.kept[0]!.edit);
  await settled();
  expect(titleIn(view)).toBe('Tides');
  answer = () => ({ says: 'Changed title', changeId: 'c' });
  await unsent.sendAll();
  expect(edits()).toHaveLength(2);
});

test('what is refused then is told and not sent again; it goes only by one’s own hand, and one does not sign out over it', async () => {
  await write(page.show(RecordEditor, { source: source('a', 'Tides') }), 'Ebb');
  const unsent = page.make(useUnsent);
  answer = () => problem(404, 'This source is not here any more.');
  await unsent.sendAll();
  await unsent.sendAll();
  expect(edits()).toHaveLength(2);
  const menu = page.show(UnsentMenu);
  expect(menu.get('button').text()).toBe('1 not saved yet');
  await menu.get('button').trigger('click');
  await settled();
  expect(document.body.textContent).toMatch(/Title of “Tides”.*Ebb.*Refused: This source is not here any more\./s);
  expect(unsent.mayLeave()).toBe(false);
  unsent.letGo(unsent.kept[0]!.edit);
  expect(unsent.mayLeave()).toBe(true);
});

describe('where another wrote meanwhile', () => {
  const stale: Answer = () =>
    Response.json(
      {
        status: 409,
        code: 'stale',
        detail: 'Ines Vance changed it.',
        conflict: { by: 'Ines Vance', moved: [{ what: 'Title', field: 'title', yours: 'Ebb', theirs: 'Flood' }] },
      },
      { status: 409 },
    );
  const choose = (view: ReturnType<typeof page.show>, says: string) =>
    view
      .findAll('button')
      .find((b) => b.text() === says)!
      .trigger('click');

  test.each([
    ['at once', async () => void (answer = stale)],
    ['by and by', async () => ((answer = stale), page.make(useUnsent).sendAll())],
  ])(
    'and it is found out %s, both values stay to be chosen of, on coming back too, and neither is sent',
    async (when, found) => {
      if (when === 'at once') await found();
      const view = page.show(RecordEditor, { source: source('a', 'Tides') });
      await write(view, 'Ebb');
      if (when === 'by and by') await found();
      await view.setProps({ source: source('b', 'Floods') });
      expect(view.find('[role=alert]').exists()).toBe(false);
      await view.setProps({ source: source('a', 'Flood') });
      expect(view.get('[role=alert]').text()).toMatch(/Ines Vance.*Flood.*Ebb/s);
      const sent = edits().length;
      await page.make(useUnsent).sendAll();
      expect(edits()).toHaveLength(sent);
      answer = () => ({ says: 'Changed title', changeId: 'c' });
      await choose(view, 'Use mine');
      await settled();
      expect(edits().at(-1)).toEqual(['/sources/a', { fields: { title: 'Ebb' }, seen: { title: 'Flood' } }]);
      expect(page.make(useUnsent).kept).toEqual([]);
    },
  );

  test('and one keeps theirs, one’s own is let go everywhere', async () => {
    answer = stale;
    const view = page.show(RecordEditor, { source: source('a', 'Tides') });
    await write(view, 'Ebb');
    await view.setProps({ source: source('a', 'Flood') });
    await choose(view, 'Keep theirs');
    await settled();
    expect(titleIn(view)).toBe('Flood');
    expect(page.make(useUnsent).kept).toEqual([]);
    expect(page.make(useUnsent).mayLeave()).toBe(true);
  });
});

test('what is refused at once is not lost on going on to another source either', async () => {
  answer = () => problem(400, 'A title has at most 4,000 characters.');
  const view = page.show(RecordEditor, { source: source('a', 'Tides') });
  await write(view, 'Ebb');
  expect(page.make(useChanges).notice!.text).toBe('A title has at most 4,000 characters.');
  await view.setProps({ source: source('b', 'Floods') });
  await view.setProps({ source: source('a', 'Tides') });
  expect(titleIn(view)).toBe('Ebb');
  answer = () => ({ says: 'Changed title', changeId: 'c' });
  await write(view, 'Ebb tide');
  expect(page.make(useUnsent).kept).toEqual([]);
});

test('a gloss is kept as it was written last, on what stood before the first', async () => {
  const unsent = page.make(useUnsent);
  const gloss = (value: string, before: string) => ({ edit: { of: 'gloss', mark: 'm', value, before } as const, text: value, says: 'Gloss', to: '/' }); // prettier-ignore
  await unsent.save(gloss('One', ''));
  await unsent.save(gloss('Two', ''));
  expect(unsent.kept).toHaveLength(1);
  expect(unsent.ofMark('m')).toMatchObject({ text: 'Two' });
});
