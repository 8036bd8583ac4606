import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { effectScope, nextTick, ref, type EffectScope } from 'vue';
import { settled, withoutPage } from '../testing.ts';
import { useAsked, type Asked } from './asked.ts';
import { concerns, useLive } from './live.ts';

let page: Awaited<ReturnType<typeof withoutPage>>;
const question = ref<string | null>('a');
const seen = ref(true);
/** What was asked, each to be answered when the test says so. */
let open: { question: string; signal: AbortSignal; answer(value: string): void; fail(error: Error): void }[];
let asked: Asked<string>;
let scope: EffectScope;

beforeEach(async () => {
  page = await withoutPage(() => ({}));
  question.value = 'a';
  seen.value = true;
  open = [];
  scope = effectScope();
  const use = (): Asked<string> =>
    useAsked({
      question: () => question.value,
      fetch: (q, signal) =>
        new Promise<string>((resolve, reject) => open.push({ question: q, signal, answer: resolve, fail: reject })),
      concerns: (touched, q) => concerns(touched, ['source'], q),
      seen: () => seen.value,
    });
  asked = scope.run(() => page.make(use))!;
});
afterEach(() => {
  scope.stop();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const live = () => page.make(useLive);
const times = (n: number): Promise<void> => vi.waitFor(() => expect(open).toHaveLength(n));

describe('the answer to a question', () => {
  test('says whether it is of what is asked now: until it is, nothing of it is that question’s', async () => {
    open[0]!.answer('of a');
    await settled();
    expect(asked.isCurrent()).toBe(true);
    question.value = 'b';
    await settled();
    expect([asked.data.value, asked.isCurrent()]).toEqual(['of a', false]);
    open[1]!.answer('of b');
    await settled();
    expect(asked.isCurrent()).toBe(true);
  });

  test('never is an older one over a newer one, whichever comes last', async () => {
    question.value = 'b';
    await settled();
    expect(open.map((o) => o.question)).toEqual(['a', 'b']);
    expect(open[0]!.signal.aborted).toBe(true);
    open[1]!.answer('of b');
    open[0]!.answer('of a');
    await settled();
    expect(asked.data.value).toBe('of b');
  });

  test('is asked for again when what it is of was touched, once for news that come together, and not for other news', async () => {
    open[0]!.answer('first');
    await settled();
    live().tell({ kinds: { source: ['z'] } });
    live().tell({ kinds: { tag: 'all' } });
    for (const ids of [['a'], ['a', 'z']]) live().tell({ kinds: { source: ids } });
    await times(2);
    expect(asked.data.value).toBe('first');
    open[1]!.answer('second');
    await settled();
    expect([asked.data.value, open.length]).toEqual(['second', 2]);
    live().tell({ everything: true, kinds: {} });
    await times(3);
  });

  test('is not asked for while no one looks, and is when someone does again, if anything was touched', async () => {
    open[0]!.answer('first');
    seen.value = false;
    await settled();
    seen.value = true;
    await settled();
    expect(open).toHaveLength(1);
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    seen.value = false;
    await nextTick();
    live().tell({ kinds: { source: 'all' } });
    vi.advanceTimersByTime(10_000);
    expect(open).toHaveLength(1);
    seen.value = true;
    await nextTick();
    expect(open).toHaveLength(2);
  });

  test('stays where asking again fails, with the error shown, and goes when nothing is asked', async () => {
    open[0]!.answer('first');
    await settled();
    void asked.reload();
    expect(asked.isLoading.value).toBe(true);
    open[1]!.fail(new Error('The server does not answer.'));
    await settled();
    expect([asked.data.value, asked.error.value, asked.isLoading.value]).toEqual([
      'first',
      'The server does not answer.',
      false,
    ]);
    question.value = null;
    await settled();
    expect(asked.data.value).toBeNull();
  });
});
