<script setup lang="ts">
/** The same as numbers, for who cannot see the picture or wants them. */
import { computed } from 'vue';
import type { OverviewReply } from '@pandecta/contract';
import KitTable from '../../kit/KitTable.vue';
import { countsOf } from './parts.ts';

const props = defineProps<{ reply: OverviewReply; label: string; pairs: boolean }>();
const columns = computed(() => [
  { key: 'name', name: 'Name' },
  ...(props.pairs
    ? props.reply.columns.map((c, i) => ({ key: String(i), name: c.name, class: 'text-right count' }))
    : []),
  { key: 'all', name: 'In all', class: 'text-right count' },
]);
const counts = computed(() => countsOf(props.reply));
const rows = computed(() =>
  props.reply.rows.map((r, row) => ({
    name: r.name,
    all: String(r.count),
    ...Object.fromEntries(
      props.pairs ? props.reply.columns.map((_, i) => [i, String(counts.value[row]![i] || '')]) : [],
    ),
  })),
);
const cell = (row: object, key: string): string => (row as Record<string, string>)[key] ?? '';
</script>

<template>
  <div class="h-full overflow-auto px-4">
    <KitTable heads :label="label" :columns="columns" :rows="rows"
      ><template v-for="c in columns" :key="c.key" #[c.key]="{ row }">{{ cell(row, c.key) }}</template></KitTable
    >
  </div>
</template>
