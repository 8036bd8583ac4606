<script setup lang="ts">
/** The years of the sources that match; a stretch dragged over them, or walked with the keys, narrows to it. */
import { max } from 'd3-array';
import { brushX, type D3BrushEvent } from 'd3-brush';
import { scaleLinear } from 'd3-scale';
import { select } from 'd3-selection';
import { useElementSize } from '@vueuse/core';
import { computed, ref, watchEffect } from 'vue';
import { formatNumber } from '@pandecta/core/wording';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import { useAsk } from '../ask.ts';
import { useNarrow } from '../narrow.ts';

const ask = useAsk();
const narrow = useNarrow();
const box = ref<HTMLElement>();
const layer = ref<SVGGElement>();
const { width } = useElementSize(box);
const HEIGHT = 36;
const FEWEST_YEARS = 30;
/** So wide is what stands at its lower right. */
const WRITTEN = 270;

const years = computed(() => narrow.reply?.years ?? []);
/** Without a date; once that is asked for they are all, and no more to be told. */
const undated = computed(() => (/-has:date/.test(ask.text) ? 0 : (narrow.reply?.undated ?? 0)));
/** The first and the last year there is a source of; what lies far off would press the others together. */
const ends = computed<[number, number]>(() => {
  const all = years.value.map((y) => y.year).filter((y) => y > 1000 && y < 2100);
  return all.length ? [Math.min(...all), Math.max(...all)] : [2000, 2026];
});
/** The years between the ends, or more where they lie close together. */
const room = computed<[number, number]>(() => {
  const [from, to] = [ends.value[0], ends.value[1] + 1];
  const missing = Math.max(0, FEWEST_YEARS - (to - from));
  return [from - Math.floor(missing / 2), to + Math.ceil(missing / 2)];
});
/** A bar is wide enough to be seen and met: a year, five, a decade, a century, each beginning where one counts from. */
const NARROWEST_BAR = 3.5;
const step = computed(() => {
  const ofYear = width.value / (room.value[1] - room.value[0]);
  return [1, 5, 10, 50].find((years) => years * ofYear >= NARROWEST_BAR) ?? 100;
});
const begin = (year: number): number => Math.floor(year / step.value) * step.value;
const stretchInWords = (from: number): string => (step.value === 1 ? String(from) : `${from}–${from + step.value - 1}`);
/** What is drawn: whole bars. */
const span = computed<[number, number]>(() => [begin(room.value[0]), begin(room.value[1] - 1) + step.value]);
const x = computed(() =>
  scaleLinear()
    .domain(span.value)
    .range([0, Math.max(1, width.value)]),
);
const bars = computed(() => {
  const counts = new Map<number, number>();
  for (const { year, count: n } of years.value) {
    const at = begin(year);
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
      name: stretchInWords(year),
      left,
      width: Math.max(1, x.value(year + step.value) - left - 1.2),
      height: Math.max(1.5, y(n)),
      inside: (from === undefined || year + step.value > from) && (to === undefined || year <= to),
    };
  });
});
const ticks = computed(() =>
  // Where the years are written, none stands behind them.
  x.value
    .ticks(Math.max(2, Math.round(width.value / 170)))
    .filter((t) => Number.isInteger(t) && x.value(t) < width.value - WRITTEN),
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

/** The bar the keys are at, and the one a stretch was begun from. */
const at = ref<number | null>(null);
const since = ref<number | null>(null);
const told = computed(() => {
  if (at.value === null) return '';
  const n = bars.value.find((b) => b.year === at.value)?.n ?? 0;
  return `${stretchInWords(at.value)}: ${formatNumber(n)}`;
});
/** Arrows go from bar to bar, with Shift a stretch grows; Enter narrows to it, Escape lets the stretch go. */
function walk(event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  const [first, last] = [begin(span.value[0]), begin(span.value[1] - 1)];
  if (by) {
    const from = at.value ?? begin(ask.years[0] ?? (by > 0 ? first - step.value : last + step.value));
    at.value = Math.max(first, Math.min(last, from + by * step.value));
    if (!event.shiftKey) since.value = at.value;
    else since.value ??= from;
  } else if (event.key === 'Home' || event.key === 'End') since.value = at.value = event.key === 'Home' ? first : last;
  else if ((event.key === 'Enter' || event.key === ' ') && at.value !== null) {
    const ends = [at.value, since.value ?? at.value];
    ask.setYears(Math.min(...ends), Math.max(...ends) + step.value - 1);
  } else if (event.key === 'Escape') {
    if (at.value === null) return;
    at.value = since.value = null;
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
const walked = computed(() => {
  if (at.value === null) return null;
  const ends = [at.value, since.value ?? at.value];
  const left = x.value(Math.min(...ends));
  return { left, width: Math.max(2, x.value(Math.max(...ends) + step.value) - left) };
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
    <div
      ref="box"
      tabindex="0"
      role="group"
      :aria-label="`Sources by year, ${ends[0]} to ${ends[1]}: arrows walk, Shift widens, Enter narrows`"
      @keydown="walk"
      @blur="at = since = null"
    >
      <span class="sr-only" aria-live="polite">{{ told }}</span>
      <svg :width="width" height="52" aria-hidden="true">
        <rect
          v-for="b in bars"
          :key="b.year"
          :x="b.left"
          :y="HEIGHT - b.height"
          :width="b.width"
          :height="b.height"
          :class="b.inside ? (label ? 'fill-verdigris' : 'fill-verdigris opacity-55') : 'fill-line'"
        >
          <title>{{ b.name }}: {{ b.n }}</title>
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
        <g v-if="walked" class="pointer-events-none">
          <rect :x="walked.left" y="0" :width="walked.width" :height="HEIGHT" class="fill-none stroke-ink" />
          <text
            :x="walked.left"
            y="10"
            :dx="walked.left > width / 2 ? -4 : walked.width + 4"
            :text-anchor="walked.left > width / 2 ? 'end' : 'start'"
            class="fill-ink text-label"
          >
            {{ told }}
          </text>
        </g>
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
      <KitButton v-if="undated" look="word" title="Those without a date" @click="ask.setText(`${ask.text} -has:date`)"
        >{{ formatNumber(undated) }} undated</KitButton
      >
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
