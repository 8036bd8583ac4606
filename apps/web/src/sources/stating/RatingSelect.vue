<script setup lang="ts">
/** How much a source is worth to the workspace: one to five, or nothing said. */
import { computed } from 'vue';
import type { Chosen } from '@pandecta/contract';
import { HIGHEST_RATING } from '@pandecta/core/changes';
import KitSelect from '../../kit/KitSelect.vue';
import { useStating } from './store.ts';

const props = defineProps<{ chosen: Chosen; rating: number | null; disabled?: boolean }>();
const stating = useStating();
const options = [
  { value: '', name: 'not rated' },
  ...Array.from({ length: HIGHEST_RATING }, (_, i) => ({
    value: String(i + 1),
    name: `${i + 1} of ${HIGHEST_RATING}`,
  })),
];
const value = computed({
  get: () => String(props.rating ?? ''),
  set: (v) => void stating.rate(props.chosen, v ? Number(v) : null),
});
</script>

<template>
  <KitSelect v-model="value" low class="w-28" label="Rating" :options="options" :disabled="disabled" />
</template>
