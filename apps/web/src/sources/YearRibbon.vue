<script setup lang="ts">
/** The years of the sources that match; a stretch dragged over them narrows to it. */
import { max } from 'd3-array';
import { brushX, type D3BrushEvent } from 'd3-brush';
import { scaleLinear } from 'd3-scale';
import { select } from 'd3-selection';
import { useElementSize } from '@vueuse/core';
import { computed, ref, watchEffect } from 'vue';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import { useAsk } from './ask.ts';
import { useNarrow } from './narrow.ts';

const ask = useAsk();
const narrow = useNarrow();
const box = ref<HTMLElement>();
const layer = ref<SVGGElement>();
const { width } = useElementSize(box);
const HEIGHT = 36;
const FEWEST_YEARS = 30;

const years = computed(() => narrow.reply?.years ?? []);
/** The first and the last year there is a source of; what lies far off would press the others together. */
const ends = computed<[number, number]>(() => {
  const all = years.value.map((y) => y.year).filter((y) => y > 1000 && y < 2100);
  return all.length ? [Math.min(...all), Math.max(...all)] : [2000, 2026];
});
/** What is drawn: the ends, or more where they lie close together. */
const span = computed<[number, number]>(() => {
  const [from, to] = [ends.value[0], ends.value[1] + 1];
  const missing = Math.max(0, FEWEST_YEARS - (to - from));
  return [from - Math.floor(missing / 2), to + Math.ceil(missing / 2)];
});
const x = computed(() =>
  scaleLinear()
    .domain(span.value)
    .range([0, Math.max(1, width.value)]),
);
const step = computed(() => Math.max(1, Math.ceil((span.value[1] - span.value[0]) / 110)));
const bars = computed(() => {
  const counts = new Map<number, number>();
  for (const { year, count: n } of years.value) {
    const at = span.value[0] + Math.floor((year - span.value[0]) / step.value) * step.value;
    counts.set(at, (counts.get(at) ?? 0) + n);
  }
  const y = scaleLinear()
    .domain([0, max([...counts.values()]) ?? 1])
    .range([0, HEIGHT - 2]);
  const [from, to] = ask.years;
  return [...counts].map(([year, n]) => {
    const left = x.value(year);
    return {
      year,
      n,
      left,
      width: Math.max(1, x.value(year + step.value) - left - 1.2),
      height: Math.max(1.5, y(n)),
      inside: (from === undefined || year + step.value > from) && (to === undefined || year <= to),
    };
  });
});
const ticks = computed(() =>
  x.value.ticks(Math.max(2, Math.round(width.value / 170))).filter((t) => Number.isInteger(t)),
);
const label = computed(() => {
  const [from, to] = ask.years;
  return from === undefined && to === undefined ? '' : `${from ?? ends.value[0]}–${to ?? ends.value[1]}`;
});

watchEffect((cleanup) => {
  if (!layer.value || !width.value) return;
  const g = select(layer.value);
  const brush = brushX<unknown>()
    .extent([
      [0, 0],
      [width.value, HEIGHT],
    ])
    .on('end', (event: D3BrushEvent<unknown>) => {
      if (!event.sourceEvent) return;
      if (!event.selection) return ask.setYears(undefined, undefined);
      const [a, b] = event.selection as [number, number];
      const from = Math.floor(x.value.invert(a));
      ask.setYears(from, Math.max(from, Math.ceil(x.value.invert(b)) - 1));
    });
  g.call(brush as never);
  const [from, to] = ask.years;
  const chosen =
    from === undefined && to === undefined
      ? null
      : [x.value(from ?? span.value[0]), x.value((to ?? span.value[1] - 1) + 1)];
  g.call(brush.move as never, chosen);
  cleanup(() => void g.on('.brush', null));
});

function typeYears(which: 0 | 1, event: Event): void {
  const value = (event.target as HTMLInputElement).value;
  const next: [number | undefined, number | undefined] = [...ask.years];
  next[which] = /^\d{1,4}$/.test(value) ? Number(value) : undefined;
  ask.setYears(...next);
}
</script>

<template>
  <section v-show="years.length" class="relative border-b border-line px-4 pb-0.5 pt-1.5" aria-label="Years">
    <div ref="box">
      <svg :width="width" height="52" role="img" :aria-label="`Sources by year, ${ends[0]} to ${ends[1]}`">
        <rect
          v-for="b in bars"
          :key="b.year"
          :x="b.left"
          :y="HEIGHT - b.height"
          :width="b.width"
          :height="b.height"
          :class="b.inside ? (label ? 'fill-verdigris' : 'fill-verdigris opacity-55') : 'fill-line'"
        >
          <title>{{ b.year }}: {{ b.n }}</title>
        </rect>
        <line x1="0" :x2="width" :y1="HEIGHT + 0.5" :y2="HEIGHT + 0.5" class="stroke-line" />
        <text
          v-for="t in ticks"
          :key="t"
          :x="x(t)"
          y="49"
          class="fill-muted text-label"
          :text-anchor="x(t) < 14 ? 'start' : x(t) > width - 14 ? 'end' : 'middle'"
        >
          {{ t }}
        </text>
        <g ref="layer" class="ribbon" />
      </svg>
    </div>
    <div class="absolute bottom-0 right-4 flex items-center gap-1 bg-paper pl-2 text-label text-muted">
      <KitField
        look="bare"
        class="text-right w-11 rounded border border-transparent font-mono hover:border-line focus-within:border-edge"
        label="From year"
        :model-value="ask.years[0] ?? ''"
        :placeholder="String(ends[0])"
        inputmode="numeric"
        @change="typeYears(0, $event)"
      />
      –
      <KitField
        look="bare"
        class="w-11 rounded border border-transparent font-mono hover:border-line focus-within:border-edge"
        label="To year"
        :model-value="ask.years[1] ?? ''"
        :placeholder="String(ends[1])"
        inputmode="numeric"
        @change="typeYears(1, $event)"
      />
      <KitButton v-if="label" look="word" @click="ask.setYears(undefined, undefined)">all years</KitButton>
      <span v-else>drag to narrow</span>
    </div>
  </section>
</template>

<style>
.ribbon .selection {
  fill: none;
  stroke: var(--color-verdigris);
  stroke-dasharray: 3 3;
}
</style>
