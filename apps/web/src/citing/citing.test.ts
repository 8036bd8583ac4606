/** Copying: what lies in the clipboard afterwards, and what is said of it. */
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { CiteReply } from '@pandecta/contract';
import { useChanges } from '../act/changes.ts';
import { withoutPage, type Answer } from '../testing.ts';
import { useCiting } from './store.ts';

let answer: Answer;
let page: Awaited<ReturnType<typeof withoutPage>>;
let copied: Record<string, string>[];
beforeEach(async () => {
  page = await withoutPage((asked) => answer(asked));
  copied = [];
  class Item {
    constructor(readonly parts: Record<string, Blob>) {}
  }
  vi.stubGlobal('ClipboardItem', Item);
  vi.stubGlobal('navigator', {
    clipboard: {
      write: async (items: Item[]) => {
        for (const { parts } of items)
          copied.push(
            Object.fromEntries(await Promise.all(Object.entries(parts).map(async ([t, b]) => [t, await b.text()]))),
          );
      },
    },
  });
});
afterEach(() => vi.unstubAllGlobals());

const entry = (n: number) => ({ id: `s${n}`, html: `Okonjo. <i>Silt ${n}</i>.`, text: `Okonjo. Silt ${n}.` });
const reply = (more: Partial<CiteReply>): CiteReply => ({ entries: [], unprinted: [], ...more }) as CiteReply;

test('a bibliography is copied rich and plain at once, an entry a paragraph and a line', async () => {
  const citing = page.make(useCiting);
  answer = () => reply({ entries: [entry(1), entry(2)], hangingIndent: true });
  await citing.copyCited({ ids: ['s1', 's2'] }, 'bibliography');
  expect(page.asked[0]).toMatchObject({ path: '/cite', body: { ids: ['s1', 's2'], style: citing.style.id } });
  expect(copied).toHaveLength(1);
  expect(copied[0]!['text/plain']).toBe('Okonjo. Silt 1.\nOkonjo. Silt 2.');
  expect(copied[0]!['text/html']!.match(/<p style="[^"]*text-indent:-2em">.*?<\/p>/g)).toHaveLength(2);
  expect(page.make(useChanges).notice!.text).toBe('Copied a bibliography of 2 entries, as rich and as plain text');
});

test('a citation is copied as it stands in the text', async () => {
  const citing = page.make(useCiting);
  answer = () => reply({ entries: [entry(1)], citationHtml: '(Okonjo <i>n.d.</i>)', citationText: '(Okonjo n.d.)' });
  await citing.copyCited({ ids: ['s1'] }, 'citation');
  expect(page.asked[0]!.body).toMatchObject({ inText: true });
  expect(copied).toEqual([{ 'text/html': '(Okonjo <i>n.d.</i>)', 'text/plain': '(Okonjo n.d.)' }]);
  expect(page.make(useChanges).notice!.text).toBe('Copied “(Okonjo n.d.)”');
});

test('what the style has no form for is named; nothing printed, nothing is copied', async () => {
  const citing = page.make(useCiting);
  const changes = page.make(useChanges);
  answer = () => reply({ entries: [entry(1)], unprinted: ['s2'] });
  await citing.copyCited({ ids: ['s1', 's2'] }, 'bibliography');
  expect(changes.notice!.text).toMatch(/^Copied: Okonjo\. Silt 1\.; .* prints nothing for 1 of the 2 sources$/);
  answer = () => reply({ unprinted: ['s2'] });
  await citing.copyCited({ ids: ['s2'] }, 'bibliography');
  expect(copied).toHaveLength(1);
  expect(changes.notice).toMatchObject({ bad: true });
  expect(changes.notice!.text).toMatch(/^Nothing copied: .* prints nothing for a source like this$/);
});

test('the language is the style’s own unless one is chosen', async () => {
  const citing = page.make(useCiting);
  answer = () => reply({ entries: [entry(1)] });
  await citing.cite({ ids: ['s1'] });
  citing.locale = 'de-DE';
  await citing.cite({ ids: ['s1'] });
  citing.locale = '';
  expect(page.asked.map((a) => (a.body as { locale?: string }).locale)).toEqual([undefined, 'de-DE']);
});

test('what the server or the browser refuses is told, and nothing is claimed to be copied', async () => {
  const citing = page.make(useCiting);
  const changes = page.make(useChanges);
  answer = () => Response.json({ code: 'style_failed', detail: 'The style could not be used.' }, { status: 422 });
  await citing.copyCited({ ids: ['s1'] }, 'bibliography');
  expect(changes.notice).toEqual({ text: 'The style could not be used.', changeIds: [], bad: true });
  answer = () => reply({ entries: [entry(1)] });
  vi.stubGlobal('navigator', { clipboard: { write: () => Promise.reject(new Error('not allowed here')) } });
  await citing.copyCited({ ids: ['s1'] }, 'bibliography');
  expect(changes.notice).toMatchObject({ text: 'not allowed here', bad: true });
});

test('styles are looked for by words, and come with the languages there are', async () => {
  const citing = page.make(useCiting);
  answer = () => ({ styles: [{ id: 'ieee', title: 'Numeric', manner: 'numeric' }], locales: ['en-GB', 'de-DE'] });
  expect((await citing.find('num & more')).map((s) => s.id)).toEqual(['ieee']);
  expect(page.asked[0]!.query.get('like')).toBe('num & more');
  expect(citing.locales).toEqual(['en-GB', 'de-DE']);
});
