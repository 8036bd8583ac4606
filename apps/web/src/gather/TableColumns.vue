<script setup lang="ts">
/** What the columns of a table hold: guessed by their headings, said by whoever brings it, with how its first rows then read. */
import { computedAsync } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { whenOf, whereOf, whoOf, withoutMarkup } from '@pandecta/core/source';
import type { ColumnField, Columns } from '@pandecta/core/formats';
import KitButton from '../kit/KitButton.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitSelect from '../kit/KitSelect.vue';
import KitTable from '../kit/KitTable.vue';
import StampMark from '../kit/StampMark.vue';
import { asked } from './tables.ts';

const columns = ref<Columns>({});
watch(asked, (now) => now && (columns.value = now.columns), { immediate: true });
const open = computed({
  get: () => asked.value !== null,
  set: (now) => !now && asked.value?.answer(null),
});
const fields = computedAsync(async () => {
  const { COLUMN_FIELDS } = await import('@pandecta/core/formats/table');
  return [
    { value: '' as ColumnField, name: 'Keep as extra data' },
    ...COLUMN_FIELDS.map(({ field, label }) => ({ value: field as ColumnField, name: label })),
  ];
}, []);
const rows = computed(() =>
  (asked.value?.headings ?? []).map((heading, i) => ({
    heading,
    values: (asked.value?.rows ?? []).flatMap((r) => (r[i] ? [r[i]] : [])).slice(0, 2),
  })),
);
/** The first rows as records, as they would come in. */
const reads = computedAsync(async () => {
  // What it depends on is read before anything is waited for.
  const [text, said] = [asked.value?.text, { ...columns.value }];
  const { eachRow } = await import('@pandecta/core/formats/table');
  return text ? [...eachRow(text, said)].flatMap((r) => r.source ?? []).slice(0, 3) : [];
}, []);
const titled = computed(() => Object.values(columns.value).some((f) => f === 'title' || f === 'DOI'));
</script>

<template>
  <KitDialog v-model:open="open" title="What the columns hold">
    <form v-if="asked" class="px-4 pb-4" @submit.prevent="asked.answer(columns)">
      <p class="mb-2 truncate text-muted">{{ asked.name }}</p>
      <div class="max-h-[42vh] overflow-auto">
        <KitTable
          label="Columns of the table"
          heads
          :columns="[
            { key: 'heading', name: 'Column', class: 'w-32 font-semibold' },
            { key: 'values', name: 'Holds', class: 'text-fine text-muted' },
            { key: 'field', name: 'Is', class: 'w-44' },
          ]"
          :rows="rows"
        >
          <template #heading="{ row }"
            ><span class="block break-words">{{ row.heading }}</span></template
          >
          <template #values="{ row }"
            ><span v-for="v in row.values" :key="v" class="line-clamp-1">{{ v }}</span></template
          >
          <template #field="{ row }"
            ><KitSelect v-model="columns[row.heading]" low :label="`What “${row.heading}” is`" :options="fields"
          /></template>
        </KitTable>
      </div>
      <h3 class="heading mb-1 mt-3">The first rows then read</h3>
      <ul class="min-h-24" aria-live="polite">
        <li v-for="(s, i) in reads" :key="i" class="mt-1 grid grid-cols-[26px_minmax(0,1fr)] gap-2">
          <StampMark :kind="s.record.type" />
          <div class="min-w-0">
            <p class="truncate font-serif text-read">{{ withoutMarkup(s.record.title ?? 'No title') }}</p>
            <p class="truncate text-fine text-muted">
              {{ [whoOf(s.record), whenOf(s.record), whereOf(s.record)].filter(Boolean).join(' · ') || 'Nothing else' }}
            </p>
          </div>
        </li>
      </ul>
      <p v-if="!titled" class="text-fine text-ochre">No column is the title: say which one is.</p>
      <div class="mt-3 flex gap-2">
        <KitButton look="main" type="submit">Bring in</KitButton>
        <KitButton @click="asked.answer(null)">Not now</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
