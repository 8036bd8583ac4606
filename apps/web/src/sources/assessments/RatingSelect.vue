<script setup lang="ts">
/** How much a source is worth to the workspace: one to five, or nothing said. */
import { computed } from 'vue';
import type { Chosen } from '@pandecta/contract';
import KitSelect from '../../kit/KitSelect.vue';
import { NOT_RATED, RATINGS } from './ratings.ts';
import { useAssessments } from './store.ts';

const props = defineProps<{ chosen: Chosen; rating: number | null; disabled?: boolean }>();
const assessments = useAssessments();
const options = [
  { value: '', name: NOT_RATED },
  ...RATINGS.map(({ rating, name }) => ({ value: String(rating), name })),
];
const value = computed({
  get: () => String(props.rating ?? ''),
  set: (v) => void assessments.rate(props.chosen, v ? Number(v) : null),
});
</script>

<template>
  <KitSelect v-model="value" low class="w-28" label="Rating" :options="options" :disabled="disabled" />
</template>
