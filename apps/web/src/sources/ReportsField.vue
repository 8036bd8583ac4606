<script setup lang="ts">
/** The other reports of a case, a row each; together they are the text the record holds. */
import { nextTick, ref, useTemplateRef, watch } from 'vue';
import { Plus, X } from '@lucide/vue';
import { readReports, reportsToText, type Report } from '@pandecta/core/law';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';

const { id } = defineProps<{
  /** The id of the first control, which the label belongs to. */
  id: string;
}>();
const text = defineModel<string>({ required: true });
const emit = defineEmits<{
  /** Focus has left the whole field. */
  leave: [];
}>();

/** In the order they are printed; `wide` has the room of two. */
const PARTS: { part: keyof Report; name: string; wide?: true }[] = [
  { part: 'year', name: 'Year' },
  { part: 'volume', name: 'Volume' },
  { part: 'container-title', name: 'Report', wide: true },
  { part: 'page', name: 'First page' },
  { part: 'locator', name: 'Pinpoint' },
  { part: 'authority', name: 'Court', wide: true },
];
const rows = ref<Report[]>([]);
const whole = useTemplateRef<HTMLElement>('whole');
watch(
  text,
  (now) => {
    if (now !== reportsToText(rows.value)) rows.value = readReports(now);
  },
  { immediate: true },
);

function write(row: Report, part: keyof Report, value: string): void {
  // What parts two reports in the text cannot stand in one.
  const clean = value.replace(/[;\n]/g, ' ');
  if (clean.trim()) row[part] = clean;
  else delete row[part];
  text.value = reportsToText(rows.value);
}

async function add(): Promise<void> {
  rows.value.push({});
  await nextTick();
  whole.value?.querySelector<HTMLInputElement>('fieldset:last-of-type input')?.focus();
}

function remove(at: number): void {
  rows.value.splice(at, 1);
  text.value = reportsToText(rows.value);
  emit('leave');
}

function left({ relatedTarget }: FocusEvent): void {
  if (!whole.value?.contains(relatedTarget as Node | null)) emit('leave');
}
</script>

<template>
  <div ref="whole" class="space-y-1.5" @focusout="left" @keydown.ctrl.enter="emit('leave')">
    <fieldset v-for="(row, i) in rows" :key="i" class="flex items-start gap-1">
      <legend class="sr-only">Report {{ i + 1 }}</legend>
      <div class="grid min-w-0 flex-1 grid-cols-4 gap-1">
        <KitField
          v-for="p in PARTS"
          :id="i === 0 && p.part === 'year' ? id : undefined"
          :key="p.part"
          :class="p.wide && 'col-span-2'"
          :label="`${p.name} of report ${i + 1}`"
          :placeholder="p.name"
          :title="p.name"
          :model-value="row[p.part] ?? ''"
          spellcheck="false"
          data-work
          @update:model-value="write(row, p.part, String($event))"
        />
      </div>
      <KitButton look="icon" :name="`Remove report ${i + 1}`" @click="remove(i)"><X class="size-4" /></KitButton>
    </fieldset>
    <KitButton :id="rows.length ? undefined : id" look="quiet" @click="add">
      <Plus class="inline size-3.5" aria-hidden="true" /> Add a report
    </KitButton>
  </div>
</template>
