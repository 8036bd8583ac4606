<script setup lang="ts">
/** Events of notes on a line of time: a day is a point, an uncertain date a span; chosen headings have a lane each. */
import { scaleLinear } from 'd3-scale';
import { brushX, type D3BrushEvent } from 'd3-brush';
import { select } from 'd3-selection';
import { useElementSize } from '@vueuse/core';
import { computed, ref, watchEffect } from 'vue';
import { routes, type NotesAsked, type TimedNote } from '@pandecta/contract';
import { yearOfDay } from '@pandecta/core/notes';
import { counted } from '@pandecta/core/wording';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitNotice from '../../kit/KitNotice.vue';

const props = defineProps<{ asked: NotesAsked; lanes: { id: string; name: string }[]; open: string | undefined }>();
const emit = defineEmits<{ open: [id: string]; narrow: [since: number | undefined, until: number | undefined] }>();
const { data, error, isLoading } = useAsked({
  question: () => props.asked,
  fetch: (body, signal) => ask(routes.notes.timeline, { body, signal }),
  concerns: (touched) => concerns(touched, ['note', 'heading', 'source']),
});
const box = ref<HTMLElement>();
const brushed = ref<SVGGElement>();
const { width } = useElementSize(box);
const ROW = 25;
const AXIS = 26;
const LABEL = 150;
const YEAR = 365.25;
const DAY_MS = 86_400_000;

/** A stretch the picture is narrowed to, in days. */
const domain = computed<[number, number]>(() => {
  const all = data.value?.notes ?? [];
  const [from, to] = [Math.min(...all.map((n) => n.from)), Math.max(...all.map((n) => n.to))];
  const spare = Math.max(30, (to - from) * 0.04);
  return [from - spare, to + spare];
});
const x = computed(() =>
  scaleLinear()
    .domain(domain.value)
    .range([8, Math.max(60, width.value - 24)]),
);
const ofLanes = computed(() => {
  const all = data.value?.notes ?? [];
  const lanes = props.lanes.map((lane) => ({ ...lane, notes: all.filter((n) => n.about.includes(lane.id)) }));
  const rest = lanes.length ? all.filter((n) => !props.lanes.some((l) => n.about.includes(l.id))) : all;
  return rest.length ? [...lanes, { id: 'rest', name: lanes.length ? 'Other notes' : '', notes: rest }] : lanes;
});
interface Placed {
  note: TimedNote;
  left: number;
  width: number;
  top: number;
}
/** Each note on the first row of its lane where there is room for it and its title. */
const placedLanes = computed(() => {
  let top = AXIS;
  return ofLanes.value.map((lane) => {
    const ends: number[] = [];
    const start = top + (lane.name ? 18 : 4);
    const placed = lane.notes.map((note): Placed => {
      const left = x.value(note.from);
      const wide = Math.max(7, x.value(note.to + 1) - left);
      const full = left + Math.max(wide, 10) + Math.min(LABEL, 6 + note.title.length * 6.2);
      let row = ends.findIndex((end) => end < left);
      if (row < 0) row = ends.length;
      ends[row] = full + 8;
      return { note, left, width: wide, top: start + row * ROW };
    });
    const height = (lane.name ? 18 : 4) + Math.max(1, ends.length) * ROW + 6;
    const at = top;
    top += height;
    return { id: lane.id, name: lane.name, placed, top: at, height };
  });
});
const height = computed(() => (placedLanes.value.at(-1)?.top ?? AXIS) + (placedLanes.value.at(-1)?.height ?? 0));
const dayAt = (year: number): number => Math.round(new Date(Date.UTC(2000, 0, 1)).setUTCFullYear(year) / DAY_MS);
const ticks = computed(() => {
  const [from, to] = domain.value.map(yearOfDay) as [number, number];
  const years = (domain.value[1] - domain.value[0]) / YEAR;
  const every =
    [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((n) => years / n <= Math.max(2, width.value / 90)) ?? 5000;
  const out = [];
  for (let year = Math.ceil(from / every) * every; year <= to; year += every)
    out.push({ year, at: x.value(dayAt(year)) });
  return out.filter((t) => t.at > 0 && t.at < width.value - 20);
});

// Dragged over the years, a stretch narrows to them.
watchEffect((cleanup) => {
  if (!brushed.value || !width.value || !data.value?.notes.length) return;
  const g = select(brushed.value);
  const brush = brushX<unknown>()
    .extent([
      [0, 0],
      [width.value, AXIS - 6],
    ]) // prettier-ignore
    .on('end', (event: D3BrushEvent<unknown>) => {
      if (!event.sourceEvent || !event.selection) return;
      const [a, b] = (event.selection as [number, number]).map((at) => yearOfDay(Math.round(x.value.invert(at))));
      emit('narrow', a, b);
    });
  g.call(brush as never);
  g.call(brush.move as never, null);
  cleanup(() => void g.on('.brush', null));
});
function walk(event: KeyboardEvent): void {
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
  if (!by) return;
  const all = [...(box.value?.querySelectorAll<HTMLElement>('[data-event]') ?? [])];
  const at = all.indexOf(document.activeElement as HTMLElement);
  all[Math.max(0, Math.min(all.length - 1, at + by))]?.focus();
  event.preventDefault();
  event.stopPropagation();
}
const isNarrowed = computed(() => props.asked.yearFrom !== undefined || props.asked.yearTo !== undefined);
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <KitNotice v-if="error" tone="bad" class="m-4">{{ error }}</KitNotice>
    <p v-else-if="!data" class="p-6 text-muted" role="status">{{ isLoading ? 'Loading…' : '' }}</p>
    <EmptyState v-else-if="!data.notes.length" title="No note here has a date"
      >A note with the date of an event, as “18 Feb 1872” or “spring 1872”, stands here in its place.</EmptyState
    >
    <template v-else>
      <p class="flex gap-3 px-5 py-1 text-fine text-muted">
        <span
          >{{ counted(data.notes.length, 'note') }}{{ data.undated ? `, ${data.undated} more without a date` : ''
          }}{{ data.more ? ', the first of them' : '' }}</span
        >
        <KitButton v-if="isNarrowed" look="word" @click="emit('narrow', undefined, undefined)">all years</KitButton>
        <span v-else>drag over the years to narrow</span>
      </p>
      <div class="min-h-0 flex-1 overflow-auto px-3">
        <div
          ref="box"
          class="relative"
          :style="{ height: `${height}px` }"
          role="group"
          aria-label="Timeline: arrows go from note to note"
          @keydown="walk"
        >
          <svg class="absolute inset-0" :width="width" :height="height" aria-hidden="true">
            <g v-for="t in ticks" :key="t.year">
              <line :x1="t.at" :x2="t.at" :y1="AXIS - 6" :y2="height" class="stroke-line" />
              <text :x="t.at + 3" y="13" class="fill-muted text-label">{{ t.year }}</text>
            </g>
            <line x1="0" :x2="width" :y1="AXIS - 6" :y2="AXIS - 6" class="stroke-line" />
            <g ref="brushed" class="ribbon" />
          </svg>
          <template v-for="lane in placedLanes" :key="lane.id">
            <h3 v-if="lane.name" class="heading absolute left-1" :style="{ top: `${lane.top}px` }">{{ lane.name }}</h3>
            <KitButton
              v-for="p in lane.placed"
              :key="`${lane.id} ${p.note.id}`"
              look="bare"
              data-event
              class="absolute flex items-center gap-1.5 whitespace-nowrap rounded text-left text-fine"
              :class="p.note.id === open ? 'bg-verdtint font-semibold' : 'hover:bg-panel'"
              :style="{ left: `${p.left}px`, top: `${p.top}px`, height: `${ROW - 1}px` }"
              :title="`${p.note.event}: ${p.note.title}`"
              @click="emit('open', p.note.id)"
              ><span
                class="block h-[7px] shrink-0 rounded-full"
                :class="p.width > 8 ? 'bg-mist outline outline-1 outline-verdigris' : 'bg-verdigris'"
                :style="{ width: `${p.width}px` }"
              /><span class="max-w-[150px] truncate"
                ><span class="sr-only">{{ p.note.event }}: </span>{{ p.note.title || 'Untitled note' }}</span
              ></KitButton
            >
          </template>
        </div>
      </div>
    </template>
  </div>
</template>
