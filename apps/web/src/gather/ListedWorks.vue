<script setup lang="ts">
/** The works a page lists: one chooses, and they come in beside it. */
import { ref, watch } from 'vue';
import { whenOf, whereOf, whoOf, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import { turned } from '../kit/words.ts';

const props = defineProps<{ id: string; items: SourceRecord[] }>();
const emit = defineEmits<{ bring: [items: number[]] }>();
const chosen = ref(new Set<number>());
watch(
  () => props.id,
  () => (chosen.value = new Set()),
);
const titleOf = (r: SourceRecord): string => withoutMarkup(r.title ?? 'Untitled');
function toggle(i: number): void {
  chosen.value = turned(chosen.value, i);
}
const all = (): void =>
  void (chosen.value = new Set(chosen.value.size === props.items.length ? [] : props.items.map((_, i) => i)));
function bring(): void {
  emit(
    'bring',
    [...chosen.value].sort((a, b) => a - b),
  );
  chosen.value = new Set();
}
</script>

<template>
  <section aria-label="Works the page lists">
    <h2 class="heading mb-1 mt-4 flex items-center gap-2">
      <KitCheck
        :checked="chosen.size === items.length"
        :some="chosen.size > 0 && chosen.size < items.length"
        label="Choose all works the page lists"
        @check="all"
      />It lists {{ counted(items.length, 'work') }}
    </h2>
    <ul class="max-h-72 overflow-auto">
      <li v-for="(item, i) in items" :key="i" class="flex gap-2 py-0.5">
        <KitCheck class="mt-1" :checked="chosen.has(i)" :label="titleOf(item)" @check="toggle(i)" />
        <span class="min-w-0" aria-hidden="true"
          ><span class="line-clamp-2 font-serif leading-tight">{{ titleOf(item) }}</span
          ><span class="block truncate text-fine text-muted">{{
            [whoOf(item), whenOf(item), whereOf(item)].filter(Boolean).join(' · ')
          }}</span></span
        >
      </li>
    </ul>
    <KitButton class="mt-1.5" :disabled="!chosen.size" @click="bring">{{
      chosen.size ? `Bring in ${counted(chosen.size, 'work')}` : 'Choose what to bring in'
    }}</KitButton>
  </section>
</template>
