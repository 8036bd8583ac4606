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
  data: ShallowRef<A | null>;
  /** Whether what stands there answers what is asked now, and not what was asked before. */
  isCurrent: () => boolean;
  /** Whether an answer is being waited for. */
  isLoading: Ref<boolean>;
  /** Why there is no answer, as a sentence. */
  error: Ref<string>;
  /** Asks again at once. */
  reload: () => Promise<void>;
}

export function useAsked<Q, A>({ question, fetch, concerns, seen = () => true, pause }: Asking<Q, A>): Asked<A> {
  const data = shallowRef<A | null>(null);
  const error = ref('');
  const isLoading = ref(false);
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
    isLoading.value = now !== null;
    if (now === null) {
      data.value = null;
      return;
    }
    stop = new AbortController();
    const { signal } = stop;
    try {
      const wait = another && data.value ? (pause?.() ?? 0) : 0;
      if (wait) {
        data.value = null;
        await promiseTimeout(wait);
        if (signal.aborted) return;
      }
      const answer = await fetch(now, signal);
      // Whoever asked later has the newer answer, or waits for it.
      if (signal.aborted) return;
      data.value = answer;
      answered.value = key;
      error.value = '';
    } catch (cause) {
      if (!signal.aborted && !isAbort(cause)) error.value = (cause as Error).message;
    } finally {
      if (!signal.aborted) isLoading.value = false;
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
  const isCurrent = (): boolean => data.value !== null && answered.value === JSON.stringify(question());
  return { data, error, isLoading, isCurrent, reload: load };
}
