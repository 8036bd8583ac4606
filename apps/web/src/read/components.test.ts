// @vitest-environment happy-dom
/** Glosses beside their marks. */
import { mount } from '@vue/test-utils';
import { afterEach, describe, expect, test } from 'vitest';
import { nextTick } from 'vue';
import type { Mark } from '@pandecta/contract';
import GlossColumn from './GlossColumn.vue';
import PageStrip from './PageStrip.vue';

const PLAIN = { says: '', retired: false, into: null };
const senses = [
  { ...PLAIN, id: 'claim', name: 'Claim', key: 1, colour: 'straw' as const },
  { ...PLAIN, id: 'doubt', name: 'Doubt', key: 2, colour: 'rose' as const },
];
const mark = (id: string, y0: number, gloss: string): Mark =>
  ({
    id,
    page: 1,
    cited: '1',
    shape: 'highlight',
    personal: false,
    sense: 'claim',
    gloss,
    quote: { exact: `words of ${id}`, prefix: '', suffix: '' },
    rects: [{ x0: 0, x1: 9, y0, y1: y0 + 10 }],
    by: 'Ines Vance',
    at: '2026-03-14T09:30:00Z',
  }) as unknown as Mark;
const show = (more: object) =>
  mount(GlossColumn, {
    props: {
      marks: [mark('b', 104, 'Second'), mark('a', 100, 'First')],
      senses,
      scale: 1,
      page: 1,
      active: null,
      mayMark: true,
      ...more,
    } as never,
    attachTo: document.body,
  });
afterEach(() => {
  document.body.innerHTML = '';
});

describe('glosses', () => {
  test('stand level with their marks, in their order, none over another', () => {
    const tops = show({})
      .findAll('article')
      .map((a) => [a.text(), parseFloat((a.element as HTMLElement).style.top)] as const);
    expect(tops.map(([text]) => text.replace(/\s+/g, ' '))).toEqual(['1Claim · p. 1First', '1Claim · p. 1Second']);
    expect(tops[0]![1]).toBe(96);
    expect(tops[1]![1]).toBeGreaterThan(96 + 28);
  });

  test('are sent once, however they are left, with what one began with; and not where nothing was written', async () => {
    const view = show({ active: 'a' });
    await nextTick();
    const text = view.get('textarea');
    await text.trigger('blur');
    expect(view.emitted('gloss')).toBeUndefined();
    await text.setValue('First, and again');
    await text.trigger('blur');
    await text.trigger('keydown', { key: 'Enter', ctrlKey: true });
    expect(view.emitted('gloss')).toEqual([['a', 'First, and again', 'First']]);
    expect(view.emitted('activate')).toEqual([[null]]);
  });

  test('one begins to write in are where the keys go', async () => {
    const view = show({ active: null });
    await view.setProps({ active: 'b' } as never);
    await nextTick();
    expect(document.activeElement).toBe(view.get('textarea').element);
  });

  test('that met another’s newer one show both, and the sense one chooses is told', async () => {
    const met = { by: 'Tobias Reed', yours: 'Mine', theirs: 'Theirs' };
    const view = show({ marks: [{ ...mark('a', 100, 'Theirs'), met }] });
    expect(view.get('[role=alert]').text()).toMatch(/Tobias Reed.*Theirs.*Mine/s);
    for (const button of view.findAll('[role=alert] button')) await button.trigger('click');
    expect(view.emitted('yield')).toEqual([['a']]);
    expect(view.emitted('gloss')).toEqual([['a', 'Mine', 'Theirs']]);
    const open = show({ active: 'a' });
    await open
      .findAll('button')
      .find((b) => b.text() === '2 Doubt')!
      .trigger('click');
    expect(open.emitted('edit')).toEqual([['a', { sense: 'doubt' }]]);
  });

  test('of another are read by whoever may not mark, without anything to change them', () => {
    const view = show({ active: 'a', mayMark: false });
    expect(view.find('textarea').exists()).toBe(false);
    expect(view.text()).toContain('First');
    expect(
      view
        .findAll('button')
        .filter((b) => !b.attributes('disabled'))
        .map((b) => b.text()),
    ).not.toContain('Remove mark');
  });
});

test('the strip goes by page with the arrows, to its ends with Home and End, and says where it is', async () => {
  const strip = mount(PageStrip, {
    props: {
      pages: 9,
      page: 4,
      marks: [],
      senses,
      hits: [],
      heights: () => 700,
      labelOf: (n: number) => String(200 + n),
    },
  });
  const slider = strip.get('[role=slider]');
  expect(slider.attributes('aria-valuetext')).toBe('Page 204 (4 of 9)');
  for (const key of ['ArrowRight', 'ArrowLeft', 'Home', 'End']) await slider.trigger('keydown', { key });
  expect(strip.emitted('go')).toEqual([[5], [3], [1], [9]]);
});
