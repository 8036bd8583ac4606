/** What is searched in the document that is open, and the hit one is at. */
import { computed, ref, shallowRef, watch } from 'vue';
import { routes, type PageHit } from '@pandecta/contract';
import { ask } from '../api/client.ts';

/** @param here the document that is open; null while none is */
export function useWithin(here: () => { source: string; file: string } | null) {
  const words = ref('');
  const hits = shallowRef<PageHit[]>([]);
  /** All there are; of very many the first are given. */
  const total = ref(0);
  const at = ref(0);
  /** Why there is no answer, as a sentence. */
  const error = ref('');
  const current = computed(() => hits.value[at.value]);
  /** The words that were found, as they stand there. */
  const lit = computed(() => hits.value.flatMap((h) => h.lit.map((l) => h.text.slice(l.start, l.end))));
  let turn = 0;

  function clear(): void {
    turn += 1;
    hits.value = [];
    total.value = at.value = 0;
    error.value = '';
  }
  // What was found in one is nothing in another.
  watch(() => here()?.file, clear, { flush: 'sync' });

  /** Asks for the words; whoever asks later, or opens another document, has the newer answer. */
  async function search(): Promise<void> {
    const document = here();
    if (!document || !words.value.trim()) return clear();
    const mine = ++turn;
    try {
      const reply = await ask(routes.files.within, { ...document, query: { q: words.value } });
      if (mine !== turn) return;
      hits.value = reply.hits;
      total.value = reply.total;
      at.value = 0;
      error.value = '';
    } catch (cause) {
      if (mine !== turn) return;
      clear();
      error.value = (cause as Error).message;
    }
  }
  /** From the last to the first and back. */
  function step(by: number): void {
    if (hits.value.length) at.value = (at.value + by + hits.value.length) % hits.value.length;
  }

  return { words, hits, total, at, current, lit, error, search, step };
}
