// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { nextTick, type Component } from 'vue';
import ConfirmInPlace from './ConfirmInPlace.vue';
import KitCombobox from './KitCombobox.vue';
import KitField from './KitField.vue';
import KitMenu from './KitMenu.vue';
import KitNotice from './KitNotice.vue';
import KitSelect from './KitSelect.vue';
import KitTable from './KitTable.vue';
import ProgressBar from './ProgressBar.vue';
import TimeText from './TimeText.vue';

const show = (component: Component, props: object, slots: Record<string, string> = {}) =>
  mount(component, { props: props as never, slots, attachTo: document.body });
afterEach(() => {
  document.body.innerHTML = '';
});

describe('a button for what cannot be taken back', () => {
  const asks = { does: 'Cancel', asks: 'Nothing of it comes.', yes: 'Cancel it', no: 'Go on' };

  test('asks first, and is at the answer that leaves things as they are', async () => {
    const box = show(ConfirmInPlace, asks);
    await box.get('button').trigger('click');
    await nextTick();
    expect(box.emitted('confirm')).toBeUndefined();
    expect(document.activeElement?.textContent).toBe('Go on');
    await box.get('button:last-child').trigger('click');
    expect(box.emitted('confirm')).toHaveLength(1);
    expect(box.text()).toBe('Cancel');
  });

  test('is left by Escape, back where one was', async () => {
    const box = show(ConfirmInPlace, asks);
    await box.get('button').trigger('click');
    await box.get('[role=group]').trigger('keydown', { key: 'Escape' });
    await nextTick();
    expect(box.emitted('confirm')).toBeUndefined();
    expect(document.activeElement?.textContent).toBe('Cancel');
  });
});

describe('a field', () => {
  test('is called by its label, whether that is seen or not', () => {
    expect(show(KitField, { label: 'Title', above: true }).get('label').text()).toBe('Title');
    expect(show(KitField, { label: 'Ask' }).get('input').attributes('aria-label')).toBe('Ask');
  });

  test('says what is wrong with what stands in it, and what else is to be known', () => {
    const field = show(KitField, { label: 'Year', error: '“19x2” is no year', hint: '70 % sure' });
    expect(field.get('input').attributes('aria-invalid')).toBe('true');
    expect(field.get('[role=status]').text()).toBe('“19x2” is no year');
    expect(field.text()).toContain('70 % sure');
  });

  test('has room for lines where it is given them, and tells each letter', async () => {
    const field = show(KitField, { label: 'Note', lines: 3, modelValue: 'Ebb' });
    const area = field.get('textarea');
    expect([area.attributes('rows'), (area.element as HTMLTextAreaElement).value]).toEqual(['3', 'Ebb']);
    await area.setValue('Ebb tide');
    expect(field.emitted('update:modelValue')).toEqual([['Ebb tide']]);
  });
});

test('nothing is one of the things that can be chosen', async () => {
  const options = [
    { value: null, name: 'none' },
    { value: 'read', name: 'read' },
  ];
  const select = show(KitSelect, { label: 'State', options, modelValue: 'read' });
  (select.get('select').element as HTMLSelectElement).selectedIndex = 0;
  await select.get('select').trigger('change');
  expect(select.emitted('update:modelValue')).toEqual([[null]]);
});

test('a menu does what was chosen and closes, but stays for what it only turns on and off', async () => {
  const done: string[] = [];
  const menu = show(
    KitMenu,
    {
      entries: [
        { name: 'RIS', hint: '.ris', run: () => done.push('ris') },
        { name: 'Year', checked: true, run: () => done.push('year') },
      ],
    },
    { default: 'Export' },
  );
  await menu.get('button').trigger('click');
  const [ris, year] = menu.findAll('[role=menuitem]');
  expect([ris!.text(), year!.text()]).toEqual(['RIS.ris', '✓Year, on']);
  await year!.trigger('click');
  expect([done, menu.findAll('[role=menuitem]').length]).toEqual([['year'], 2]);
  await ris!.trigger('click');
  expect([done, menu.findAll('[role=menuitem]').length]).toEqual([['year', 'ris'], 0]);
});

test('what is named by typing is taken, and the field is empty for the next', async () => {
  const entries = [{ key: 'a', name: 'used' }];
  const box = show(KitCombobox, { label: 'Add a tag', entries, text: 'us' }, { default: 'used' });
  await box.get('input').setValue('us');
  await vi.waitFor(() => expect(box.get('input').attributes('aria-activedescendant')).toBeTruthy());
  await box.get('input').trigger('keydown', { key: 'Enter' });
  expect([box.emitted('choose'), box.emitted('update:text')?.at(-1)]).toEqual([[[entries[0]]], ['']]);
  await box.get('input').trigger('keydown', { key: 'Escape' });
  expect(box.emitted('done')).toHaveLength(1);
});

test('what went wrong is told at once, all else in its turn', () => {
  expect(show(KitNotice, { tone: 'bad' }, { default: 'No' }).attributes('role')).toBe('alert');
  expect(show(KitNotice, { tone: 'warn' }, { default: 'Oh' }).attributes('role')).toBe('status');
});

test('progress says how far it is, or only that it goes on', () => {
  const bar = (max: number) => show(ProgressBar, { label: 'Reading', value: 4, max }).attributes();
  expect(bar(10)).toMatchObject({ role: 'progressbar', 'aria-valuenow': '4', 'aria-valuemax': '10' });
  expect(bar(0)).not.toHaveProperty('aria-valuenow');
});

test('a table tells its columns, seen or not', () => {
  const table = show(
    KitTable,
    { label: 'Files', columns: [{ key: 'name', name: 'Name' }], rows: [{ name: 'tides.ris' }] },
    { name: '{{ params.row.name }}' },
  );
  expect([table.get('th').text(), table.get('td').text()]).toEqual(['Name', 'tides.ris']);
});

test('a moment is written for a person and for a machine', () => {
  const time = show(TimeText, { at: '2026-03-14T09:30:00Z', to: 'day' });
  expect([time.text(), time.attributes('datetime')]).toEqual(['14 Mar 2026', '2026-03-14T09:30:00.000Z']);
});
