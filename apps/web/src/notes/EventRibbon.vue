<script setup lang="ts">
/** The years of the events notes tell of; a bar narrows to its years. */
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { NoteYear } from '@pandecta/contract';
import KitButton from '../kit/KitButton.vue';

const props = defineProps<{ years: NoteYear[]; since?: number | undefined; until?: number | undefined }>();
const emit = defineEmits<{ narrow: [since: number | undefined, until: number | undefined] }>();
const box = ref<HTMLElement>();
const { width } = useElementSize(box);
const HEIGHT = 34;
/** In pixels: what one presses is no smaller (WCAG 2.2, 2.5.8). */
const NARROWEST = 27;
const ends = computed<[number, number]>(() => {
  const all = props.years.map((y) => y.year);
  const [from, to] = [Math.min(...all), Math.max(...all)];
  const missing = Math.max(0, 10 - (to - from));
  return [from - Math.floor(missing / 2), to + Math.ceil(missing / 2)];
});
/** A bar is wide enough to be met: a year, five, a decade, a century. */
const step = computed(() => [1, 5, 10, 50, 100, 500].find((n) => (width.value * n) / (ends.value[1] - ends.value[0] + 1) >= NARROWEST) ?? 1000); // prettier-ignore
const begin = (year: number): number => Math.floor(year / step.value) * step.value;
const bars = computed(() => {
  const counts = new Map<number, number>();
  for (const { year, count } of props.years) counts.set(begin(year), (counts.get(begin(year)) ?? 0) + count);
  const most = Math.max(1, ...counts.values());
  const [first, last] = [begin(ends.value[0]), begin(ends.value[1])];
  const n = (last - first) / step.value + 1;
  return [...counts].map(([year, count]) => ({
    year,
    count,
    name: step.value === 1 ? String(year) : `${year}–${year + step.value - 1}`,
    left: (((year - first) / step.value) * width.value) / n,
    width: Math.max(4, width.value / n - 2),
    height: Math.max(3, (count / most) * HEIGHT),
    isIn:
      (props.since === undefined || year + step.value > props.since) &&
      (props.until === undefined || year <= props.until),
  }));
});
const ticks = computed(() => {
  const [first, last] = [begin(ends.value[0]), begin(ends.value[1])];
  const n = (last - first) / step.value + 1;
  const every = Math.ceil(n / Math.max(1, Math.floor(width.value / 60)));
  return Array.from({ length: Math.ceil(n / every) }, (_, i) => ({
    year: first + i * every * step.value,
    left: (i * every * width.value) / n,
  }));
});
const isNarrowed = computed(() => props.since !== undefined || props.until !== undefined);
</script>

<template>
  <section v-if="years.length" class="border-b border-line px-5 pb-1 pt-2" aria-label="Years of the events">
    <div ref="box" class="relative h-[52px]">
      <KitButton
        v-for="b in bars"
        :key="b.year"
        look="bare"
        class="absolute bottom-[18px] flex items-end hover:opacity-80"
        :style="{ left: `${b.left}px`, width: `${b.width}px`, height: `${HEIGHT}px` }"
        :name="`${b.name}: ${b.count}`"
        @click="emit('narrow', b.year, b.year + step - 1)"
        ><span class="block w-full" :class="b.isIn ? 'bg-verdigris' : 'bg-line'" :style="{ height: `${b.height}px` }"
      /></KitButton>
      <div class="absolute inset-x-0 bottom-[17px] border-b border-line" />
      <span
        v-for="t in ticks"
        :key="t.year"
        class="absolute bottom-0 text-label text-muted"
        :style="{ left: `${t.left}px` }"
        aria-hidden="true"
        >{{ t.year }}</span
      >
    </div>
    <p v-if="isNarrowed" class="text-label text-muted">
      {{ since ?? '…' }} to {{ until ?? '…' }}
      <KitButton look="word" class="ml-1 min-h-6" @click="emit('narrow', undefined, undefined)">all years</KitButton>
    </p>
  </section>
</template>
