import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { effectScope, type EffectScope } from 'vue';
import { withoutPage } from '../testing.ts';
import { useSession } from '../session/store.ts';
import { answerKey, available, COMMANDS, keyInWords, keysByPlace, useDeeds, type Command } from './commands.ts';

let scope: EffectScope;
let page: Awaited<ReturnType<typeof withoutPage>>;
let may: string[];
beforeEach(async () => {
  page = await withoutPage(() => ({}));
  scope = effectScope();
  may = ['read', 'own', 'edit'];
  vi.stubGlobal('document', { querySelector: () => null });
  page.make(useSession).workspace = { id: 'w', name: 'W', role: 'contributor', may } as never;
});
afterEach(() => {
  scope.stop();
  vi.unstubAllGlobals();
});

function press(key: string, more: object = {}, target: object = {}): boolean {
  let prevented = false;
  const event = {
    key,
    target: { tagName: 'DIV', closest: () => null, ...target },
    preventDefault: () => (prevented = true),
    ...more,
  };
  page.make(() => answerKey(event as unknown as KeyboardEvent));
  return prevented;
}

/** A button, as what shows one of several or any other. */
const button = (shown: boolean): object => ({
  closest: (of: string) => (of === '[role=menu]' ? null : { matches: () => shown }),
});

test('no key stands for two commands in one place, nor everywhere and in a place', () => {
  const met = new Set<string>();
  for (const { where, keys } of COMMANDS as readonly Command[])
    for (const key of keys ?? []) {
      expect(met.has(`${where} ${key}`)).toBe(false);
      met.add(`${where} ${key}`);
      // Only the way to where one asks is another in each stage.
      if (where !== 'Everywhere' && key !== '/') expect(met.has(`Everywhere ${key}`)).toBe(false);
    }
});

describe('a key', () => {
  test('does what is bound to it as long as it is bound, and is otherwise the browser’s', () => {
    const star = vi.fn();
    scope.run(() => useDeeds({ star }));
    expect([press('s'), star.mock.calls.length]).toEqual([true, 1]);
    expect(press('s', { ctrlKey: true })).toBe(false);
    scope.stop();
    expect([press('s'), star.mock.calls.length]).toEqual([false, 1]);
  });

  test('with Shift or Ctrl is another key; a sign that Shift makes is itself', () => {
    const [next, on, keys, redo] = [vi.fn(), vi.fn(), vi.fn(), vi.fn()];
    scope.run(() => useDeeds({ next, 'select-on': on, keys, redo }));
    press('ArrowDown', { shiftKey: true });
    press('?', { shiftKey: true });
    press('Z', { ctrlKey: true, shiftKey: true });
    expect([next, on, keys, redo].map((f) => f.mock.calls.length)).toEqual([0, 1, 1, 1]);
  });

  test('is left alone where one types, on a control that has its own use of it, and where nothing was to be done', () => {
    const next = vi.fn(() => false);
    scope.run(() => useDeeds({ next }));
    expect(press('j', {}, { tagName: 'INPUT' })).toBe(false);
    expect(press('ArrowDown', {}, button(false))).toBe(false);
    expect(press('j', {}, { closest: (of: string) => (of === '[role=menu]' ? {} : null) })).toBe(false);
    expect(next).not.toHaveBeenCalled();
    expect(press('j')).toBe(false);
    expect(next).toHaveBeenCalled();
  });

  test('walks with the arrows in what the one shows that was chosen of several, though one is still at that', () => {
    const next = vi.fn();
    scope.run(() => useDeeds({ next }));
    expect([true, false].map((shown) => press('ArrowDown', {}, button(shown)))).toEqual([true, false]);
    expect(press('Enter', {}, button(true))).toBe(false);
    expect(next).toHaveBeenCalledTimes(1);
  });

  test('does nothing that one may not do, and the palette does not offer it', () => {
    const bin = vi.fn();
    scope.run(() => useDeeds({ 'to-bin': bin, 'to-read': vi.fn() }));
    const offered = (): string[] => page.make(() => available()).map(({ command }) => command.id);
    expect(offered()).toEqual(['to-read', 'to-bin']);
    may.splice(may.indexOf('edit'), 1);
    expect([press('Delete'), bin.mock.calls.length, offered()]).toEqual([false, 0, ['to-read']]);
  });
});

test('the list of keys says them as they stand on a keyboard', () => {
  expect(['Ctrl Shift z', 'ArrowDown', 'Escape', '?', 'f'].map(keyInWords)).toEqual([
    'Ctrl Shift Z',
    '↓',
    'Esc',
    '?',
    'f',
  ]);
  const [, ledger, , , reader] = keysByPlace();
  expect(ledger!.keys).toEqual(
    expect.arrayContaining([
      { keys: 'j ↓', does: 'next source' },
      { keys: 'Shift ↓ ↑', does: 'select as you go' },
    ]),
  );
  expect(reader!.keys).toContainEqual({ keys: '1 – 9', does: 'mark the chosen words with a sense' });
});
