<script setup lang="ts">
/** Who appears together: names in a line, an arc between two for the sources they share. */
import { useElementSize } from '@vueuse/core';
import { scaleSqrt } from 'd3-scale';
import { computed, ref, toRef } from 'vue';
import type { OverviewReply } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { cellKey, pairPart, type Part } from './parts.ts';
import { useSteps } from './steps.ts';

const props = defineProps<{ reply: OverviewReply; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [Part] }>();
const SIDES = { rows: 'person', columns: 'person' } as const;
const box = ref<HTMLElement>();
const { width } = useElementSize(box);
const ROW = 22;
const NAMES = 230;

/** Those who share sources stand near each other: each next is the one most tied to those that stand already. */
const order = computed(() => {
  const { rows, cells } = props.reply;
  const ties = rows.map(() => new Map<number, number>());
  for (const { row, column, count } of cells) if (row !== column) ties[row]!.set(column, count);
  const left = new Set(rows.map((_, i) => i));
  const line: number[] = [];
  while (left.size) {
    let best = -1;
    let most = -1;
    for (const i of left) {
      const near = line.slice(-6).reduce((sum, j) => sum + (ties[i]!.get(j) ?? 0), 0);
      if (near > most) [most, best] = [near, i];
    }
    line.push(best);
    left.delete(best);
  }
  return line;
});
const place = computed(() => {
  const out: number[] = [];
  order.value.forEach((of, i) => (out[of] = 14 + i * ROW));
  return out;
});
const people = computed(() => {
  const radius = scaleSqrt()
    .domain([0, Math.max(1, ...props.reply.rows.map((r) => r.count))])
    .range([2, 8]);
  return props.reply.rows.map((r, i) => ({
    key: cellKey(i, i),
    x: NAMES,
    y: place.value[i]!,
    r: radius(r.count),
    name: r.name,
    row: i,
    column: i,
    label: `${r.name}: ${countSources(r.count)}`,
  }));
});
const arcs = computed(() => {
  const cells = props.reply.cells.filter((c) => c.row < c.column);
  const most = Math.max(1, ...cells.map((c) => c.count));
  const room = Math.max(60, width.value - NAMES - 30);
  const longest = Math.max(1, ...cells.map((c) => Math.abs(place.value[c.row]! - place.value[c.column]!)));
  return cells.map(({ row, column, count }) => {
    const [a, b] = [place.value[row]!, place.value[column]!].sort((p, q) => p - q) as [number, number];
    const reach = Math.max(24, (room * (b - a)) / longest);
    return {
      key: cellKey(row, column),
      x: NAMES + 12 + reach * 0.75,
      y: (a + b) / 2,
      path: `M${NAMES + 10},${a} C${NAMES + 10 + reach},${a} ${NAMES + 10 + reach},${b} ${NAMES + 10},${b}`,
      width: 0.75 + (3.5 * count) / most,
      strength: 0.15 + (0.6 * count) / most,
      row,
      column,
      label: `${props.reply.rows[row]!.name} with ${props.reply.rows[column]!.name}: ${countSources(count)}`,
    };
  });
});
/** Whoever is looked at: their ties stand out, and those of the others stand back. */
const lit = ref<number>();
const person = computed(() => {
  const [row, column] = (props.chosen ?? '').split(' ').map(Number);
  return lit.value ?? (props.chosen && row === column ? row : undefined);
});
function strengthOf(a: { key: string; row: number; column: number; strength: number }): number {
  if (a.key === props.chosen) return 1;
  if (person.value === undefined) return a.strength;
  return a.row === person.value || a.column === person.value ? Math.max(0.6, a.strength) : 0.06;
}
const shapes = computed(() => [...people.value, ...arcs.value]);
const { at, step } = useSteps(shapes, toRef(props, 'chosen'));
const choose = ({ row, column }: { row: number; column: number }): void =>
  emit('choose', pairPart(props.reply, row, column, SIDES));
</script>

<template>
  <div ref="box" class="h-full overflow-auto">
    <svg
      :width="width"
      :height="reply.rows.length * ROW + 24"
      role="group"
      aria-label="Who appears together"
      @keydown="step"
    >
      <g
        v-for="a in arcs"
        :key="a.key"
        role="button"
        :tabindex="a.key === at ? 0 : -1"
        :data-key="a.key"
        :aria-label="a.label"
        :aria-pressed="a.key === chosen"
        class="cursor-pointer outline-none"
        @click="choose(a)"
        @keydown.enter.space.prevent.stop="choose(a)"
      >
        <title>{{ a.label }}</title>
        <path :d="a.path" fill="none" stroke="transparent" stroke-width="11" />
        <path
          class="line stroke-verdigris"
          :d="a.path"
          fill="none"
          :stroke-width="a.width"
          :stroke-opacity="strengthOf(a)"
        />
      </g>
      <g
        v-for="p in people"
        :key="p.key"
        role="button"
        :tabindex="p.key === at ? 0 : -1"
        :data-key="p.key"
        :aria-label="p.label"
        :aria-pressed="p.key === chosen"
        class="cursor-pointer outline-none"
        @mouseenter="lit = p.row"
        @mouseleave="lit = undefined"
        @focus="lit = p.row"
        @blur="lit = undefined"
        @click="choose(p)"
        @keydown.enter.space.prevent.stop="choose(p)"
      >
        <title>{{ p.label }}</title>
        <text
          :x="NAMES - 14"
          :y="p.y"
          text-anchor="end"
          dominant-baseline="central"
          class="text-fine"
          :class="p.key === chosen ? 'fill-verdigris font-semibold' : 'fill-ink'"
        >
          {{ p.name.length > 34 ? `${p.name.slice(0, 33)}…` : p.name }}
        </text>
        <circle class="line" :cx="p.x" :cy="p.y" :r="p.r" :class="p.key === chosen ? 'fill-verdigris' : 'fill-edge'" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
g:focus-visible .line {
  stroke: var(--color-ink);
}
g:focus-visible text {
  text-decoration: underline;
}
</style>
