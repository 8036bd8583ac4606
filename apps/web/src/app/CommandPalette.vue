<script setup lang="ts">
/** Ctrl+K: any command, collection, saved search or source by name. */
import { watchDebounced } from '@vueuse/core';
import { computed, nextTick, ref } from 'vue';
import { useRouter } from 'vue-router';
import { routes, type SourceRow } from '@pandecta/contract';
import { namesShort, withoutMarkup, yearShort } from '@pandecta/core/source';
import { ask as fetchReply } from '../api/client.ts';
import ChooseBox from '../kit/ChooseBox.vue';
import { hasWords } from '../kit/words.ts';
import { usePlaces } from '../places/store.ts';
import { useAsk, useSaved } from '../sources/index.ts';
import { available, keyInWords } from '../act/commands.ts';

const open = defineModel<boolean>('open', { required: true });
const router = useRouter();
const places = usePlaces();
const saved = useSaved();
const ask = useAsk();
const text = ref('');
const found = ref<SourceRow[]>([]);

interface Entry {
  key: string;
  kind: string;
  name: string;
  keys?: string;
  go: () => unknown;
}

const entries = computed<Entry[]>(() => {
  const wanted = text.value.trim();
  return [
    ...available()
      .filter(({ command }) => hasWords(command.name, wanted))
      .map(({ command, run }): Entry => ({
        key: command.id,
        kind: 'Command',
        name: command.name,
        keys: command.keys?.[0] && keyInWords(command.keys[0]),
        go: run,
      })),
    ...(wanted
      ? places.flat
          .filter((c) => hasWords(c.path, wanted))
          .slice(0, 6)
          .map((c): Entry => ({
            key: `c${c.id}`,
            kind: 'Collection',
            name: c.path,
            go: () => router.push(`/sources?collection=${c.id}`),
          }))
      : []),
    ...(wanted
      ? [...saved.byId.values()]
          .filter((s) => hasWords(s.name, wanted))
          .slice(0, 6)
          .map((s): Entry => ({ key: `q${s.id}`, kind: 'Saved search', name: s.name, go: () => ask.open(s) }))
      : []),
    ...found.value.map((s): Entry => ({
      key: s.id,
      kind: 'Source',
      name: [namesShort(s.record.author ?? s.record.editor), s.record.title, yearShort(s.record.issued)]
        .filter(Boolean)
        .join(' · '),
      go: () =>
        router.push({
          path: '/sources',
          query: { q: s.record.title ? `title:"${withoutMarkup(s.record.title).replaceAll('"', '')}"` : '', at: s.id },
        }),
    })),
  ];
});

watchDebounced(
  text,
  async (q) => {
    found.value =
      q.trim().length < 2
        ? []
        : (
            await fetchReply(routes.search.page, { query: { q, typing: true, count: 8 } }).catch(() => ({
              rows: [] as SourceRow[],
            }))
          ).rows;
  },
  { debounce: 80 },
);
</script>

<template>
  <ChooseBox
    v-model:open="open"
    v-model:text="text"
    title="Go to, or do"
    label="A command, a collection or a source"
    :entries="entries"
    none="Nothing of this name."
    @choose="(entry) => nextTick(() => entry.go())"
  >
    <template #default="{ entry }">
      <span class="w-20 shrink-0 text-fine text-muted">{{ entry.kind }}</span><span class="truncate">{{
        entry.name
      }}</span
      ><span v-if="entry.keys" class="ml-auto shrink-0 font-mono text-fine text-muted">{{ entry.keys }}</span>
    </template>
  </ChooseBox>
</template>
