/** The answer to a question, kept true while it is on screen. */
import { promiseTimeout } from '@vueuse/core';
import { onScopeDispose, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import type { Touched } from '@pandecta/contract';
import { isAbort } from '../api/client.ts';
import { useNews } from './live.ts';

export interface Asking<Q, A> {
  /** What is asked; null asks nothing. */
  question: () => Q | null;
  fetch: (question: Q, signal: AbortSignal) => Promise<A>;
  /** Whether what was touched may alter the answer. */
  concerns: (touched: Touched, question: Q) => boolean;
  /** Whether anyone looks at it: what is not seen is fetched when it is again. */
  seen?: () => boolean;
  /** How long to wait before another question is sent, in milliseconds; what stands for the one before is let go. */
  pause?: () => number;
}

export interface Asked<A> {
  value: ShallowRef<A | null>;
  /** Whether what stands there answers what is asked now, and not what was asked before. */
  isCurrent: () => boolean;
  /** Why there is no answer, as a sentence. */
  trouble: Ref<string>;
  /** Asks again at once. */
  reload: () => Promise<void>;
}

export function useAsked<Q, A>({ question, fetch, concerns, seen = () => true, pause }: Asking<Q, A>): Asked<A> {
  const value = shallowRef<A | null>(null);
  const trouble = ref('');
  let stop: AbortController | undefined;
  let stale = true;
  let asked: string | undefined;
  /** What the answer that stands there was asked. */
  const answered = ref<string>();

  async function load(): Promise<void> {
    stop?.abort();
    const now = question();
    stale = false;
    const key = JSON.stringify(now);
    const another = key !== asked;
    asked = key;
    if (now === null) {
      value.value = null;
      return;
    }
    stop = new AbortController();
    const { signal } = stop;
    try {
      const wait = another && value.value ? (pause?.() ?? 0) : 0;
      if (wait) {
        value.value = null;
        await promiseTimeout(wait);
        if (signal.aborted) return;
      }
      const answer = await fetch(now, signal);
      // Whoever asked later has the newer answer, or waits for it.
      if (signal.aborted) return;
      value.value = answer;
      answered.value = key;
      trouble.value = '';
    } catch (error) {
      if (!signal.aborted && !isAbort(error)) trouble.value = (error as Error).message;
    }
  }

  const look = (): void => void (seen() ? load() : (stale = true));
  watch(() => JSON.stringify(question()), look, { immediate: true });
  watch(seen, (now) => now && stale && void load());
  useNews((touched) => {
    const now = question();
    return now !== null && concerns(touched, now);
  }, look);
  onScopeDispose(() => stop?.abort());
  const isCurrent = (): boolean => value.value !== null && answered.value === JSON.stringify(question());
  return { value, trouble, isCurrent, reload: load };
}
