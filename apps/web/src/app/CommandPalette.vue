<script setup lang="ts">
/** Ctrl+K: any command, collection or source by name. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/vue';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { SourcePage, SourceRow } from '@pandecta/contract';
import { namesShort, yearShort } from '@pandecta/core/source';
import { api } from '../api/client.ts';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';
import { useChanges } from './changes.ts';

const props = defineProps<{ open: boolean }>();
const emit = defineEmits<{ 'update:open': [boolean] }>();
const router = useRouter();
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
  { key: 'sources', kind: 'Command', name: 'Go to Sources', go: () => router.push('/sources') },
  { key: 'gather', kind: 'Command', name: 'Go to Gather: add sources', go: () => router.push('/gather') },
  { key: 'read', kind: 'Command', name: 'Go to Read', go: () => router.push('/read') },
  {
    key: 'loose',
    kind: 'Command',
    name: 'Show sources in no collection',
    go: () => router.push('/sources?scope=loose'),
  },
  { key: 'bin', kind: 'Command', name: 'Show the bin', go: () => router.push('/sources?scope=bin') },
  { key: 'undo', kind: 'Command', name: 'Undo', go: () => changes.undo() },
  { key: 'redo', kind: 'Command', name: 'Do again', go: () => changes.redo() },
  { key: 'out', kind: 'Command', name: 'Sign out', go: () => session.signOut() },
];

const entries = computed<Entry[]>(() => {
  const wanted = text.value.trim().toLowerCase();
  const fits = (name: string): boolean => name.toLowerCase().includes(wanted);
  return [
    ...commands.filter((c) => fits(c.name)),
    ...(wanted
      ? places.flat
          .filter((c) => fits(c.path))
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
          query: { q: s.record.title ? `title:"${s.record.title.replace(/<[^>]+>|"/g, '')}"` : '', at: s.id },
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
            await api
              .get<SourcePage>('/sources', { q, typing: true, limit: 8 })
              .catch(() => ({ rows: [] as SourceRow[] }))
          ).rows;
  },
  { debounce: 80 },
);
watch(
  () => props.open,
  (open) => open && ((text.value = ''), void places.load()),
);

function choose(entry: Entry | null): void {
  if (!entry) return;
  emit('update:open', false);
  void entry.go();
}
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="emit('update:open', false)">
    <div class="fixed inset-0 flex items-start justify-center bg-black/20 pt-24">
      <DialogPanel class="w-[38rem] rounded-md border border-line bg-card shadow-xl">
        <Combobox :model-value="null" nullable @update:model-value="choose">
          <ComboboxInput
            class="w-full rounded-t-md border-b border-line bg-card px-4 py-2.5 text-[15px]"
            placeholder="A command, a collection or a source"
            aria-label="A command, a collection or a source"
            @change="text = $event.target.value"
          />
          <ComboboxOptions static class="max-h-80 overflow-auto py-1">
            <ComboboxOption v-for="e in entries" :key="e.key" v-slot="{ active }" :value="e" as="template">
              <li class="flex items-baseline gap-3 px-4 py-1.5" :class="active && 'bg-verdtint'">
                <span class="w-20 shrink-0 text-[12px] text-muted">{{ e.kind }}</span><span class="truncate">{{
                  e.name
                }}</span>
              </li>
            </ComboboxOption>
            <li v-if="!entries.length" class="px-4 py-3 text-muted">Nothing of this name.</li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
