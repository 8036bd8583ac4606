<script setup lang="ts">
/** Kinds by year: columns of years, in which each kind has its part. */
import { useElementSize } from '@vueuse/core';
import { scaleLinear } from 'd3-scale';
import { stack } from 'd3-shape';
import { computed, ref, toRef } from 'vue';
import type { OverviewReply } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { cellKey, countsOf, yearPart, type Part } from './parts.ts';
import { useSteps } from './steps.ts';

const props = defineProps<{ reply: OverviewReply; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [Part] }>();
const box = ref<HTMLElement>();
const { width, height } = useElementSize(box);
const FOOT = 22;
const LEGEND = 150;
const LEFT = 34;
/** Kinds drawn apart; the rest is one. */
const MOST = 6;
const FILLS = [
  'var(--color-verdigris)',
  'var(--color-plum)',
  'var(--color-ochre)',
  'var(--color-madder)',
  '#5b7c99',
  '#7c8f4e',
];

const kinds = computed(() => props.reply.rows.slice(0, MOST));
const scaleX = computed(() =>
  scaleLinear()
    .domain([0, Math.max(1, props.reply.columns.length)])
    .range([LEFT, Math.max(LEFT + 1, width.value - LEGEND)]),
);
const stacked = computed(() => {
  const counts = countsOf(props.reply);
  const columns = props.reply.columns.map((_, i) => i);
  return stack<number, number>()
    .keys(kinds.value.map((_, k) => k))
    .value((column, kind) => counts[kind]![column]!)(columns);
});
const top = computed(() => Math.max(1, ...stacked.value.flatMap((s) => s.map((d) => d[1]))));
const scaleY = computed(() =>
  scaleLinear()
    .domain([0, top.value])
    .nice()
    .range([Math.max(60, height.value) - FOOT, 10]),
);
const bars = computed(() =>
  stacked.value.flatMap((series) =>
    series.flatMap(([from, to], column) => {
      if (to <= from) return [];
      const kind = series.key;
      const x = scaleX.value(column);
      const [y, foot] = [scaleY.value(to), scaleY.value(from)];
      return {
        key: cellKey(kind, column),
        x: x + (scaleX.value(column + 1) - x) / 2,
        y: (y + foot) / 2,
        left: x,
        top: y,
        width: Math.max(1, scaleX.value(column + 1) - x - 1),
        height: Math.max(1, foot - y - 0.5),
        fill: FILLS[kind]!,
        kind,
        column,
        label: `${props.reply.rows[kind]!.name}, ${props.reply.columns[column]!.name}: ${countSources(to - from)}`,
      };
    }),
  ),
);
const ticks = computed(() => {
  const n = props.reply.columns.length;
  const every = Math.max(1, Math.ceil(n / Math.max(2, Math.floor((width.value - LEGEND) / 90))));
  return props.reply.columns.flatMap((c, i) => (i % every ? [] : [{ x: scaleX.value(i), name: c.key }]));
});
const { at, step } = useSteps(bars, toRef(props, 'chosen'));
const choose = (b: { kind: number; column: number }): void =>
  emit('choose', yearPart(props.reply, b.kind, b.column, 'kind'));
</script>

<template>
  <div ref="box" class="h-full overflow-hidden">
    <svg :width="width" :height="Math.max(60, height - 4)" role="group" aria-label="Kinds by year" @keydown="step">
      <g v-for="t in scaleY.ticks(4)" :key="t">
        <line :x1="LEFT" :x2="width - LEGEND" :y1="scaleY(t)" :y2="scaleY(t)" class="stroke-line" />
        <text
          :x="LEFT - 6"
          :y="scaleY(t)"
          text-anchor="end"
          dominant-baseline="central"
          class="fill-muted font-mono text-label"
        >
          {{ t }}
        </text>
      </g>
      <text v-for="t in ticks" :key="t.name" :x="t.x" :y="Math.max(60, height) - 8" class="fill-muted text-label">
        {{ t.name }}
      </text>
      <g
        v-for="b in bars"
        :key="b.key"
        role="button"
        :tabindex="b.key === at ? 0 : -1"
        :data-key="b.key"
        :aria-label="b.label"
        :aria-pressed="b.key === chosen"
        class="cursor-pointer outline-none"
        @click="choose(b)"
        @keydown.enter.space.prevent.stop="choose(b)"
      >
        <title>{{ b.label }}</title>
        <rect
          class="bar"
          :x="b.left"
          :y="b.top"
          :width="b.width"
          :height="b.height"
          :fill="b.fill"
          :opacity="!chosen || b.key === chosen ? 1 : 0.55"
        />
      </g>
      <g v-for="(k, i) in kinds" :key="k.key" :transform="`translate(${width - LEGEND + 16} ${16 + i * 20})`">
        <rect width="11" height="11" :fill="FILLS[i]" />
        <text x="18" y="6" dominant-baseline="central" class="fill-ink text-fine">{{ k.name }}</text>
      </g>
      <text
        v-if="reply.rowsInAll > kinds.length"
        :x="width - LEGEND + 16"
        :y="26 + kinds.length * 20"
        class="fill-muted text-label"
      >
        {{ reply.rowsInAll - kinds.length }} rarer kinds: in the table
      </text>
    </svg>
  </div>
</template>

<style scoped>
g:focus-visible .bar {
  stroke: var(--color-ink);
  stroke-width: 2;
}
</style>
