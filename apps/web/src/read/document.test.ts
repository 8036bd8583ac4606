/** Documents that are opened and searched one after the other: of each its own, whichever answer comes last. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { effectScope, nextTick, ref } from 'vue';
import { settled, withoutPage } from '../testing.ts';
import { useDocument } from './document.ts';
import { useWithin } from './within.ts';

/** What was asked and not answered yet, by a part of its address. */
let asked: { path: string; q: string | null; answer: (reply: unknown) => void }[];
let page: Awaited<ReturnType<typeof withoutPage>>;
beforeEach(async () => {
  asked = [];
  page = await withoutPage(
    ({ path, query }) => new Promise((answer) => asked.push({ path, q: query.get('q'), answer })),
  );
});
afterEach(() => vi.unstubAllGlobals());

async function answer(part: string | RegExp, reply: unknown): Promise<void> {
  await nextTick();
  const at = asked.findIndex(({ path, q }) => `${path} ${q}`.match(part));
  asked.splice(at, 1)[0]!.answer(reply);
  await settled();
}
const hit = (text: string) => ({ page: 1, text, lit: [{ start: 0, end: text.length }], rects: [] });
const opened = () => effectScope(true).run(() => page.make(useDocument))!;
const document = (file: string) => ({ fileId: file, sourceId: `of ${file}`, mediaType: 'text/html', marks: [] });

test('of two documents opened one after the other the second stands, though the first comes later', async () => {
  const doc = opened();
  const both = [doc.open('of one', 'one'), doc.open('of two', 'two')];
  await answer(/two\b.*document|document.*two|files\/two/, document('two'));
  await answer(/sources\/of%20two null/, { id: 'of two' });
  await answer(/files\/one/, document('one'));
  await answer(/sources\/of%20one null/, { id: 'of one' });
  expect(await Promise.all(both)).toEqual([false, true]);
  expect([doc.info.value?.fileId, doc.source.value?.id]).toEqual(['two', 'of two']);
});

test('a document that cannot be opened says why', async () => {
  const doc = opened();
  const one = doc.open('of one', 'one');
  const problem = { title: 'gone', status: 404, code: 'not_found', detail: 'It is not here any more.' };
  await answer(/files\/one/, Response.json(problem, { status: 404 }));
  await answer(/sources/, { id: 'of one' });
  expect(await one).toBe(false);
  expect(doc.error.value).toBe('It is not here any more.');
});

test('hits are gone through in a circle, and their words are told', async () => {
  const within = useWithin(() => ({ source: 's', file: 'f' }));
  within.words.value = 'gate';
  void within.search();
  await answer('gate', { hits: [hit('Gate'), hit('gates'), hit('gated')], total: 3 });
  expect(within.lit.value).toEqual(['Gate', 'gates', 'gated']);
  within.step(-1);
  expect(within.current.value?.text).toBe('gated');
  within.step(1);
  expect(within.at.value).toBe(0);
});

test('hits of an earlier question, and of a document that was left, are nothing', async () => {
  const here = ref({ source: 's', file: 'one' });
  const within = useWithin(() => here.value);
  within.words.value = 'ga';
  void within.search();
  within.words.value = 'gate';
  void within.search();
  await answer(/ gate$/, { hits: [hit('gate')], total: 1 });
  await answer(/ ga$/, { hits: [hit('garden'), hit('gate')], total: 2 });
  expect(within.total.value).toBe(1);

  void within.search();
  here.value = { source: 's', file: 'two' };
  await answer(/ gate$/, { hits: [hit('gate of one')], total: 1 });
  expect([within.hits.value, within.total.value]).toEqual([[], 0]);
});

test('where there is no answer it says why, and shows no hits of before', async () => {
  const within = useWithin(() => ({ source: 's', file: 'f' }));
  within.words.value = 'gate';
  void within.search();
  await answer('gate', { hits: [hit('gate')], total: 1 });
  void within.search();
  const problem = { title: 'away', status: 503, code: 'database_away', detail: 'The database does not answer.' };
  await answer('gate', Response.json(problem, { status: 503 }));
  expect([within.total.value, within.error.value]).toEqual([0, 'The database does not answer.']);
  within.words.value = '';
  await within.search();
  expect(within.error.value).toBe('');
});
