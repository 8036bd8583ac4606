/** What the answer may be narrowed by, with counts; and the years. */
import { defineStore } from 'pinia';
import { ref, watch } from 'vue';
import type { NarrowReply } from '@pandecta/contract';
import { api, isAbort } from '../api/client.ts';
import { useChanges } from '../app/changes.ts';
import { useAsk } from './ask.ts';

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
      const next = await api.get<NarrowReply>(
        '/narrow',
        { ...params, ...(ask.text ? { typing: true } : {}) },
        stop.signal,
      );
      for (const f of next.facets) for (const v of f.values) names.set(`${f.type}=${v.key}`, v.name);
      reply.value = next;
    } catch (error) {
      if (!isAbort(error)) reply.value = null;
    }
  }

  watch([() => ask.params, () => changes.version], load, { deep: true });
  const nameOf = (type: string, key: string): string | undefined => names.get(`${type}=${key}`);

  return { reply, load, nameOf };
});
