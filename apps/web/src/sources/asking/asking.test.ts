// @vitest-environment happy-dom
/** The ask line as one types, and the same question as rows. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { nextTick } from 'vue';
import { printQuery } from '@pandecta/core/query';
import { useSession } from '../../session/store.ts';
import { settled, withoutPage, type Answer } from '../../testing.ts';
import { useAsk } from '../ask.ts';
import { useLedger } from '../ledger/store.ts';
import AskLine from './AskLine.vue';
import QuestionBuilder from './QuestionBuilder.vue';
import { wholeTree } from './whole.ts';

let page: Awaited<ReturnType<typeof withoutPage>>;
const TAGS = {
  values: [
    { value: 'used', count: 21 },
    { value: 'check again', count: 18 },
  ],
};
const answer: Answer = ({ path }) =>
  path === '/suggest'
    ? TAGS
    : {
        rows: [],
        total: 0,
        notes: [{ start: 5, end: 9, says: 'This is not known' }],
        facets: [{ type: 'tag', name: 'Tag', values: [{ key: 't', name: 'used', count: 3 }] }],
        years: [],
        collections: [{ id: 'c', name: 'Chapter 2', count: 1 }],
        placements: [{ id: 'p', collection: 'c', parent: null }],
        searches: [],
        folders: [],
        counts: [],
      };
beforeEach(async () => {
  localStorage.clear();
  page = await withoutPage(answer);
  page.make(useSession).workspace = { id: 'w', name: 'Inquiry', role: 'contributor', may: ['read', 'own', 'arrange'] };
});
afterEach(() => {
  document.body.innerHTML = '';
  vi.unstubAllGlobals();
});

async function typing(text: string) {
  const view = page.show(AskLine, { building: false });
  const input = view.get<HTMLInputElement>('input[role="combobox"]');
  input.element.focus();
  await input.setValue(text);
  await input.trigger('keyup');
  await vi.waitFor(() => expect(view.findAll('[role="option"]').length).toBeGreaterThan(0));
  return { view, input, offered: () => view.findAll('[role="option"]').map((o) => o.text()) };
}

describe('as one types', () => {
  test('fields are offered by their names, and a field goes on with its values', async () => {
    const { input, offered } = await typing('gate ta');
    expect(offered()).toEqual(['tag:Tag']);
    await input.trigger('keydown', { key: 'ArrowDown' });
    await input.trigger('keydown', { key: 'Enter' });
    expect(input.element.value).toBe('gate tag:');
    await vi.waitFor(() => expect(offered()).toEqual(['used21', 'check again18']));
    await input.trigger('keydown', { key: 'ArrowUp' });
    await input.trigger('keydown', { key: 'Tab' });
    expect(input.element.value).toBe('gate tag:"check again" ');
  });

  test('what is offered is known to those who do not see it, and Escape sends it away before it leaves the line', async () => {
    const { view, input } = await typing('state:re');
    await input.trigger('keydown', { key: 'ArrowDown' });
    const active = input.attributes('aria-activedescendant')!;
    expect(view.get(`[id="${active}"]`).attributes('aria-selected')).toBe('true');
    await input.trigger('keydown', { key: 'Escape' });
    expect([view.findAll('[role="option"]').length, document.activeElement === input.element]).toEqual([0, true]);
  });

  test('what was not understood is shown with the stretch it stands at', async () => {
    page.make(useLedger).begin();
    const view = page.show(AskLine, { building: false });
    const input = view.get<HTMLInputElement>('input[role="combobox"]');
    input.element.focus();
    await input.setValue('gate yaer x');
    await settled();
    await vi.waitFor(() => expect(view.get('[role="status"]').text()).toBe('yaerThis is not known'));
  });
});

test('what stands as chips is part of the question, by its names', () => {
  const names: Record<string, string> = {
    'tag=t': 'used',
    'in=c': 'Licensing › Chapter 2',
    'person=Okonjo, Marit': 'Okonjo, Marit',
  };
  const asked = {
    q: '"tidal barrier"',
    include: ['kind=book', 'kind=legal_case', 'tag=t', 'person=Okonjo, Marit', 'star=yes', 'file=image only'],
    exclude: ['reading=to read'],
    collection: 'c',
    below: false,
    yearFrom: 1980,
  };
  expect(printQuery(wholeTree(asked, (type, key) => names[`${type}=${key}`]))).toBe(
    'filed:"Licensing › Chapter 2" tag:"used" person:"Okonjo, Marit" (kind:"book" or kind:"legal_case") is:"starred" file:"image" year:1980- -state:"to read" "tidal barrier"',
  );
});

describe('the question built of rows', () => {
  const built = async (query: string) => {
    await page.router.push(`/sources?${query}`);
    const view = page.show(QuestionBuilder);
    await settled();
    const ask = page.make(useAsk);
    return { view, ask };
  };

  test('opens with what is asked, alters it at once, and keeps a field that was used at hand', async () => {
    const { view, ask } = await built('q=gate');
    const [field, how, value] = [view.findAll('select')[1]!, view.findAll('select')[2]!, view.get('input')];
    expect([(field.element as HTMLSelectElement).value, (value.element as HTMLInputElement).value]).toEqual([
      'words',
      'gate',
    ]);
    expect((how.element as HTMLSelectElement).value).toBe('has');
    await value.setValue('gate silt');
    await settled();
    expect(ask.text).toBe('gate silt');
    await view
      .findAll('button')
      .find((b) => b.text() === '+ Condition')!
      .trigger('click');
    await view.findAll('select')[3]!.setValue('tag');
    await view.findAll('input').at(-1)!.setValue('used');
    await settled();
    expect(ask.text).toBe('gate silt tag:"used"');
    expect(view.text()).toContain('used lately:Tag');
  });

  test('none of these is said of a group, and a row without a value asks for nothing', async () => {
    const { view, ask } = await built('q=tag:used');
    await view.findAll('select')[0]!.setValue('none');
    await settled();
    expect(ask.text).toBe('-tag:used');
    await view.get('input').setValue('');
    await settled();
    expect(ask.text).toBe('');
  });

  test('what is typed meanwhile stands in the rows, and a value that is no range is told', async () => {
    const { view, ask } = await built('q=year:1980');
    ask.setText('year:soon');
    await settled();
    await nextTick();
    expect(view.get<HTMLInputElement>('input').element.value).toBe('soon');
    expect(view.text()).toContain('“soon” is no year');
  });
});
