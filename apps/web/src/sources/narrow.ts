/** What the answer may be narrowed by, with counts; and the years. */
import { watchDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { routes, type NarrowReply } from '@pandecta/contract';
import { ask as fetchReply, isAbort } from '../api/client.ts';
import { useChanges } from '../app/changes.ts';
import { AFTER_TYPING_MS, useAsk } from './ask.ts';

export const useNarrow = defineStore('narrow', () => {
  const ask = useAsk();
  const changes = useChanges();
  const reply = ref<NarrowReply | null>(null);
  const names = new Map<string, string>();
  let stop: AbortController | undefined;

  async function load(): Promise<void> {
    stop?.abort();
    stop = new AbortController();
    try {
      const { sort: _sort, ...params } = ask.params;
      const next = await fetchReply(routes.search.narrow, { query: params, signal: stop.signal });
      for (const f of next.facets) for (const v of f.values) names.set(`${f.type}=${v.key}`, v.name);
      reply.value = next;
    } catch (error) {
      if (!isAbort(error)) reply.value = null;
    }
  }

  // While one types, the lines go first.
  watchDebounced([() => ask.params, () => changes.version], load, {
    deep: true,
    debounce: () => (ask.text ? AFTER_TYPING_MS : 0),
  });
  const nameOf = (type: string, key: string): string | undefined => names.get(`${type}=${key}`);

  return { reply, load, nameOf };
});
