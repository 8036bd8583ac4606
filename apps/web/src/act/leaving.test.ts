// @vitest-environment happy-dom
/** Reloading over what one wrote: the browser asks where it was not sent, and nowhere else. */
import { mount } from '@vue/test-utils';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { useAskBeforeLeaving } from './leaving.ts';

const PAGE = `<form id="keep"><input id="name" type="text" value="Tides"><textarea id="why"></textarea></form>
  <input id="filter" type="text"><input id="title" type="text" data-work value="Ebb"><textarea id="gloss"></textarea>`;
let view: ReturnType<typeof mount>;
beforeEach(() => {
  document.body.innerHTML = PAGE;
  view = mount({ setup: useAskBeforeLeaving, template: '<i />' });
});
afterEach(() => {
  view.unmount();
  document.body.innerHTML = '';
});

const at = (id: string): HTMLInputElement => document.querySelector<HTMLInputElement>(`#${id}`)!;
const says = (of: EventTarget, event: string): boolean => of.dispatchEvent(new Event(event, { bubbles: true }));
function write(id: string, text: string): void {
  says(at(id), 'focusin');
  at(id).value = text;
  says(at(id), 'input');
}
/** Whether the browser asks. */
const asks = (): boolean => !window.dispatchEvent(new Event('beforeunload', { cancelable: true }));

test.each(['name', 'why', 'title', 'gloss'])('what stands written in the %s and was not sent is asked about', (id) => {
  expect(asks()).toBe(false);
  write(id, 'The ebb ran late');
  expect(asks()).toBe(true);
});

test('what stands there as it stood, or nothing, is not asked about, nor what one looks for', () => {
  write('name', 'Tides of the estuary');
  write('name', 'Tides');
  write('why', ' ');
  write('filter', 'silt');
  expect(asks()).toBe(false);
});

test('a form that was sent is not asked about, until it is refused or written on', () => {
  write('why', 'For the third chapter');
  says(at('keep'), 'submit');
  expect(asks()).toBe(false);
  document.body.insertAdjacentHTML('beforeend', '<p role="alert">The database does not answer just now.</p>');
  expect(asks()).toBe(true);
  document.querySelector('[role=alert]')!.remove();
  write('why', 'For the third chapter, page 4');
  expect(asks()).toBe(true);
  at('keep').remove();
  expect(asks(), 'it was closed').toBe(false);
});

test('a field by itself is not asked about once one has left it, and anew when one writes on', () => {
  write('gloss', 'Compare the gauge of 1911');
  says(at('gloss'), 'change');
  expect(asks()).toBe(false);
  write('gloss', 'Compare the gauge of 1911, and of 1912');
  expect(asks()).toBe(true);
});
