// @vitest-environment happy-dom
/** Page numbers, the parts of a plain paragraph, the contents of a document. */
import { mount } from '@vue/test-utils';
import { expect, test } from 'vitest';
import type { Mark } from '@pandecta/contract';
import OutlineTree from './OutlineTree.vue';
import PageField from './PageField.vue';
import { partsOf } from './plain/parts.ts';

const numbers = { runs: [{ page: 1, style: 'decimal' as const, prefix: '', start: 201 }], origin: 'record' as const };
const field = (more: object = {}) =>
  mount(PageField, {
    props: { page: 3, pages: 29, numbers, labelOf: (n: number) => String(200 + n), mayEdit: true, ...more },
  });

test('a page is gone to by the number it is cited by, else by its count; one there is none of is said', async () => {
  const view = field();
  const input = view.get('input');
  expect(input.element.value).toBe('203');
  for (const written of ['210', '7', 'cover']) {
    await input.setValue(written);
    await input.trigger('keydown', { key: 'Enter' });
  }
  expect(view.emitted('go')).toEqual([[10], [7]]);
  expect(view.get('[role=status]').text()).toBe('There is no page “cover”');
  await view.setProps({ page: 7 });
  expect([input.element.value, view.get('[role=status]').text()]).toEqual(['207', '']);
});

const mark = (id: string, exact: string, shape = 'highlight'): Mark =>
  ({ id, shape, quote: { exact, prefix: '', suffix: '' } }) as Mark;

test('the parts of a paragraph are all of its text, those that are marked with their mark', () => {
  const text = 'The keeper shut the gate at dusk.';
  const parts = partsOf(text, [
    mark('a', 'keeper shut the'),
    mark('b', 'shut the gate'),
    mark('c', 'elsewhere'),
    mark('d', '', 'region'),
  ]);
  expect(parts.map((p) => p.text).join('')).toBe(text);
  expect(parts.map((p) => [p.text, p.mark?.id])).toEqual([
    ['The ', undefined],
    ['keeper ', 'a'],
    ['shut the', 'b'],
    [' gate', 'b'],
    [' at dusk.', undefined],
  ]);
  expect(partsOf('', [])).toEqual([]);
  const aloud = partsOf(text, [mark('a', 'keeper shut the')], { start: 11, end: 15 });
  expect(aloud.filter((p) => p.isSpoken).map((p) => [p.text, p.mark?.id])).toEqual([['shut', 'a']]);
  expect(aloud.map((p) => p.text).join('')).toBe(text);
});

test('the headings of a document lead to their places, at any depth', async () => {
  const headings = [{ title: 'One', dest: 'a', items: [{ title: 'One, first', dest: ['b'], items: [] }] }];
  const view = mount(OutlineTree, { props: { headings } });
  for (const button of view.findAll('button')) await button.trigger('click');
  expect(view.emitted('follow')).toEqual([['a'], [['b']]]);
});
