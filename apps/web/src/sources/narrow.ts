/** What the answer may be narrowed by, with counts; and the years. */
import { refDebounced } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { routes } from '@pandecta/contract';
import { ask as fetchReply } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { AFTER_TYPING_MS, useAsk } from './ask.ts';

export const useNarrow = defineStore('narrow', () => {
  const ask = useAsk();
  const route = useRoute();
  const names = new Map<string, string>();
  // While one types, the lines go first.
  const question = computed(() => {
    const { sort: _sort, ...params } = ask.params;
    return params;
  });
  const settled = refDebounced(question, () => (ask.text ? AFTER_TYPING_MS : 0));

  const { value: reply } = useAsked({
    question: () => settled.value,
    fetch: async (query, signal) => {
      const next = await fetchReply(routes.search.narrow, { query, signal });
      for (const f of next.facets) for (const v of f.values) names.set(`${f.type}=${v.key}`, v.name);
      return next;
    },
    concerns: (touched, { q }) => concerns(touched, ['source', 'tag', 'collection', ...(q ? ['words' as const] : [])]),
    seen: () => route.name === 'sources',
  });
  const nameOf = (type: string, key: string): string | undefined => names.get(`${type}=${key}`);

  return { reply, nameOf };
});
