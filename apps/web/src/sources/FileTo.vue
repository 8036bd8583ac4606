<script setup lang="ts">
/** `f`: files the chosen sources by typing the name of a collection, or makes one of that name. */
import { computed, ref } from 'vue';
import type { Chosen } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import ChooseBox from '../kit/ChooseBox.vue';
import { usePlaces, type Offer } from '../places/store.ts';

const props = defineProps<{ chosen: Chosen; count: number }>();
const open = defineModel<boolean>('open', { required: true });
const places = usePlaces();
const text = ref('');

/** Of very many that fit, and the new one, which stands last. */
const MOST = 40;
const entries = computed(() => {
  const all = places.offers(text.value);
  return [...all.filter((o) => o.id).slice(0, MOST), ...all.filter((o) => o.make)];
});

async function choose(offer: Offer): Promise<void> {
  const target = await places.take(offer);
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
