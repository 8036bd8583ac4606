<script setup lang="ts">
/** Ctrl+K: any command, collection or source by name. */
import { watchDebounced } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { routes, type SourceRow } from '@pandecta/contract';
import { namesShort, withoutMarkup, yearShort } from '@pandecta/core/source';
import { ask as fetchReply } from '../api/client.ts';
import ChooseBox from '../look/ChooseBox.vue';
import { hasWords } from '../look/words.ts';
import { usePlaces } from '../places/store.ts';
import { useAsk } from '../sources/ask.ts';
import { useSession } from '../session/store.ts';
import { useChanges } from './changes.ts';

const open = defineModel<boolean>('open', { required: true });
const router = useRouter();
const ask = useAsk();
const places = usePlaces();
const session = useSession();
const changes = useChanges();
const text = ref('');
const found = ref<SourceRow[]>([]);

interface Entry {
  key: string;
  kind: string;
  name: string;
  go: () => unknown;
}

const commands: Entry[] = [
  { key: 'sources', kind: 'Command', name: 'Go to Sources', go: () => router.push(ask.address) },
  { key: 'gather', kind: 'Command', name: 'Go to Gather: add sources', go: () => router.push('/gather') },
  { key: 'read', kind: 'Command', name: 'Go to Read', go: () => router.push('/read') },
  {
    key: 'loose',
    kind: 'Command',
    name: 'Show sources in no collection',
    go: () => router.push('/sources?scope=loose'),
  },
  {
    key: 'starred',
    kind: 'Command',
    name: 'Show what you starred',
    go: () => router.push('/sources?include=star%3Dyes'),
  },
  { key: 'bin', kind: 'Command', name: 'Show the bin', go: () => router.push('/sources?scope=bin') },
  { key: 'undo', kind: 'Command', name: 'Undo', go: () => changes.undo() },
  { key: 'redo', kind: 'Command', name: 'Do again', go: () => changes.redo() },
  { key: 'out', kind: 'Command', name: 'Sign out', go: () => session.signOut() },
];

const entries = computed<Entry[]>(() => {
  const wanted = text.value.trim();
  return [
    ...commands.filter((c) => hasWords(c.name, wanted)),
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
    @choose="(entry) => void entry.go()"
  >
    <template #default="{ entry }">
      <span class="w-20 shrink-0 text-[12px] text-muted">{{ entry.kind }}</span><span class="truncate">{{
        entry.name
      }}</span>
    </template>
  </ChooseBox>
</template>
