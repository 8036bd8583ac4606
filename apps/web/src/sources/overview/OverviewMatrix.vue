<script setup lang="ts">
/** What goes together: a dot for each pair of values some sources bear both of, as large as they are many. */
import { useElementSize } from '@vueuse/core';
import { scaleSqrt } from 'd3-scale';
import { computed, ref, toRef } from 'vue';
import type { OverviewReply } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { cellKey, pairPart, type Part, type Sides } from './parts.ts';
import { useSteps } from './steps.ts';

const props = defineProps<{ reply: OverviewReply; sides: Sides; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [Part] }>();
const box = ref<HTMLElement>();
const { width } = useElementSize(box);
const ROW = 30;
const HEAD = 92;
const NAMES = 170;
/** The radius of the largest dot, in pixels. */
const LARGEST = 15;

const step = computed(() => {
  const n = Math.max(1, props.reply.columns.length);
  return Math.max(26, Math.min(80, (width.value - NAMES - 40) / n));
});
const size = computed(() => ({
  width: Math.max(width.value, NAMES + step.value * props.reply.columns.length + 40),
  height: HEAD + ROW * props.reply.rows.length + 8,
}));
const alike = computed(() => props.sides.rows === props.sides.columns);
const dots = computed(() => {
  const cells = props.reply.cells.filter((c) => !alike.value || c.column < c.row);
  const radius = scaleSqrt()
    .domain([0, Math.max(1, ...cells.map((c) => c.count))])
    .range([5, LARGEST]);
  return cells.map(({ row, column, count }) => ({
    key: cellKey(row, column),
    x: NAMES + (column + 0.5) * step.value,
    y: HEAD + (row + 0.5) * ROW,
    r: radius(count),
    row,
    column,
    count,
    label: `${props.reply.rows[row]!.name}, ${props.reply.columns[column]!.name}: ${countSources(count)}`,
  }));
});
const { at, step: walk } = useSteps(dots, toRef(props, 'chosen'));
const choose = (dot: { row: number; column: number }): void =>
  emit('choose', pairPart(props.reply, dot.row, dot.column, props.sides));
</script>

<template>
  <div ref="box" class="h-full overflow-auto">
    <svg :width="size.width" :height="size.height" role="group" aria-label="What goes together" @keydown="walk">
      <g v-for="(c, i) in reply.columns" :key="c.key">
        <text class="fill-ink text-fine" :transform="`translate(${NAMES + (i + 0.5) * step} ${HEAD - 8}) rotate(-32)`">
          {{ c.name.length > 16 ? `${c.name.slice(0, 15)}…` : c.name }}
          <title>{{ c.name }}: {{ c.count }}</title>
        </text>
      </g>
      <g v-for="(r, i) in reply.rows" :key="r.key">
        <line
          :x1="NAMES"
          :x2="NAMES + step * reply.columns.length"
          :y1="HEAD + (i + 0.5) * ROW"
          :y2="HEAD + (i + 0.5) * ROW"
          class="stroke-line"
        />
        <text
          class="fill-ink text-fine"
          text-anchor="end"
          dominant-baseline="middle"
          :x="NAMES - 12"
          :y="HEAD + (i + 0.5) * ROW"
        >
          {{ r.name.length > 24 ? `${r.name.slice(0, 23)}…` : r.name }}
          <title>{{ r.name }}: {{ r.count }}</title>
        </text>
      </g>
      <g
        v-for="d in dots"
        :key="d.key"
        role="button"
        :tabindex="d.key === at ? 0 : -1"
        :data-key="d.key"
        :aria-label="d.label"
        :aria-pressed="d.key === chosen"
        class="cursor-pointer outline-none"
        @click="choose(d)"
        @keydown.enter.space.prevent.stop="choose(d)"
      >
        <title>{{ d.label }}</title>
        <circle :cx="d.x" :cy="d.y" :r="Math.max(d.r, 9)" fill="transparent" />
        <circle
          :cx="d.x"
          :cy="d.y"
          :r="d.r"
          class="dot"
          :class="
            d.key === chosen
              ? 'fill-verdigris'
              : 'fill-[color-mix(in_srgb,var(--color-verdigris)_45%,var(--color-paper))]'
          "
        />
        <text
          :x="d.x"
          :y="d.y"
          text-anchor="middle"
          dominant-baseline="central"
          class="pointer-events-none font-mono text-[9.5px]"
          :class="d.key === chosen ? 'fill-onverdigris' : 'fill-ink'"
        >
          {{ d.count }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
g:focus-visible .dot {
  stroke: var(--color-ink);
  stroke-width: 2;
}
</style>
