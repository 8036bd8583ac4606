<script setup lang="ts">
/** `f`: files the chosen sources by typing the name of a collection, or makes one of that name. */
import { computed, ref } from 'vue';
import type { Chosen } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import ChooseBox from '../kit/ChooseBox.vue';
import { hasWords } from '../kit/words.ts';
import { usePlaces } from '../places/store.ts';

const props = defineProps<{ chosen: Chosen; count: number }>();
const open = defineModel<boolean>('open', { required: true });
const places = usePlaces();
const text = ref('');

interface Entry {
  key: string;
  name: string;
  count?: number;
  id?: string;
}

const entries = computed<Entry[]>(() => {
  const name = text.value.trim();
  const known = places.flat.some((c) => c.name.toLowerCase() === name.toLowerCase());
  const found = places.flat.filter((c) => hasWords(c.path, name)).slice(0, 40);
  return [
    ...found.map((c) => ({ key: c.path, name: c.path, count: c.count, id: c.id })),
    ...(name && !known ? [{ key: 'new', name: `New collection “${name}”` }] : []),
  ];
});

async function choose({ id }: Entry): Promise<void> {
  const target = id ?? (await places.make(text.value.trim()))?.id;
  if (target) await places.file(props.chosen, target);
}
</script>

<template>
  <ChooseBox
    v-model:open="open"
    v-model:text="text"
    :title="`File ${countSources(count)} in`"
    label="Name of a collection"
    :entries="entries"
    @choose="choose"
  >
    <template #default="{ entry }">
      <span class="min-w-0 flex-1 truncate">{{ entry.name }}</span><span class="count">{{ entry.count }}</span>
    </template>
  </ChooseBox>
</template>
