/** Whoever works through a list keeps their place in it, whatever others do to it. */
import { expect, test } from 'vitest';
import { effectScope, shallowRef } from 'vue';
import { useHeld } from './held.ts';

function holding(...ids: string[]) {
  const all = shallowRef(ids.map((id) => ({ id })));
  const set = (...now: string[]): void => void (all.value = now.map((id) => ({ id })));
  const held = effectScope(true).run(() => useHeld(() => all.value))!;
  return { held, set, at: () => held.current.value?.id };
}

test('one begins at the first, and goes no further than the ends', () => {
  const { held, at } = holding('a', 'b', 'c');
  expect(at()).toBe('a');
  held.step(-1);
  expect(at()).toBe('a');
  held.step(2);
  held.step(2);
  expect([at(), held.place.value]).toEqual(['c', 2]);
});

test('what others take from above, or put there, does not move one to another', () => {
  const { held, set, at } = holding('a', 'b', 'c', 'd');
  held.go(2);
  set('b', 'c', 'd');
  expect([at(), held.place.value]).toEqual(['c', 1]);
  set('x', 'y', 'b', 'c', 'd');
  expect([at(), held.place.value]).toEqual(['c', 3]);
});

test('where the one goes, one is at what took its place, and stays there', () => {
  const { held, set, at } = holding('a', 'b', 'c', 'd');
  held.id.value = 'c';
  set('b', 'c', 'd');
  set('b', 'd');
  expect(at()).toBe('d');
  set('d');
  expect(at()).toBe('d');
  set('b', 'd', 'c');
  expect(at()).toBe('d');
  set('b', 'a');
  expect(at()).toBe('a');
});

test('while nothing is there the one is remembered', () => {
  const { held, set, at } = holding('a', 'b');
  held.step(1);
  set();
  expect(at()).toBeUndefined();
  set('a', 'b');
  expect(at()).toBe('b');
});
