/** What the answer may be narrowed by, with counts; and the years. */
import { refDebounced, useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { routes } from '@pandecta/contract';
import { ask as fetchReply } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { AFTER_TYPING_MS, facetParts, useAsk } from './ask.ts';

export const useNarrow = defineStore('narrow', () => {
  const ask = useAsk();
  const route = useRoute();
  const names = new Map<string, string>();
  /** The kinds of facets that are open: only these are counted. */
  const open = useLocalStorage<string[]>('open facets', ['kind', 'tag', 'label', 'reading', 'star', 'file', 'person']);
  const toggle = (type: string): void =>
    void (open.value = open.value.includes(type) ? open.value.filter((t) => t !== type) : [...open.value, type]);
  // While one types, the lines go first.
  const question = computed(() => {
    const { sort: _sort, group: _group, ...params } = ask.params;
    // Those that are looked at, and those whose values stand as chips and want their names.
    const chosen = [...ask.include, ...ask.exclude].map((f) => facetParts(f)[0]);
    return { ...params, facets: [...new Set([...open.value, ...chosen])].sort() };
  });
  const settled = refDebounced(question, () => (ask.text ? AFTER_TYPING_MS : 0));

  const { data: reply } = useAsked({
    question: () => settled.value,
    fetch: async (query, signal) => {
      const next = await fetchReply(routes.search.narrow, { query, signal });
      for (const f of next.facets) for (const v of f.values) names.set(`${f.type}=${v.key}`, v.name);
      return next;
    },
    concerns: (touched, { q }) => concerns(touched, ['source', 'tag', 'collection', ...(q ? ['words' as const] : [])]),
    seen: () => route.name === 'sources' || route.name === 'list',
  });
  /** Told elsewhere: the values of a sheet. */
  const learn = (type: string, values: { key: string; name: string }[]): void =>
    values.forEach((v) => names.set(`${type}=${v.key}`, v.name));
  /** What lines may stand in groups of: years, or a kind of facet. */
  const groupings = computed(() => [{ type: 'year', name: 'Year' }, ...(reply.value?.offered ?? [])]);
  /** What those are grouped by that are shown; empty as long as that is not known. */
  const grouping = computed(() => groupings.value.find((g) => g.type === ask.group)?.name ?? '');
  const nameOf = (type: string, key: string): string | undefined => names.get(`${type}=${key}`);

  return { reply, open, toggle, learn, nameOf, groupings, grouping };
});
