<script setup lang="ts">
/** The way around the document: a line from the first page to the last, with its marks and hits, and where one is. */
import { computed } from 'vue';
import type { Mark, PageHit } from '@pandecta/contract';
import type { Sense } from '@pandecta/core/marks';
import { FILL } from './colours.ts';

const props = defineProps<{
  pages: number;
  page: number;
  marks: Mark[];
  senses: Sense[];
  hits: PageHit[];
  heights: (page: number) => number;
  labelOf: (page: number) => string;
}>();
const emit = defineEmits<{ go: [page: number]; mark: [id: string] }>();

const at = (page: number, y = 0): number =>
  ((page - 1 + Math.min(0.98, y / (props.heights(page) || 1))) / props.pages) * 100;
const ticks = computed(() =>
  props.marks.map((m) => ({
    id: m.id,
    left: at(m.page, m.rects[0]?.y0),
    sense: props.senses.find((s) => s.id === m.sense),
    text: m.quote.exact,
  })),
);

function key(event: KeyboardEvent): void {
  const to = {
    ArrowLeft: props.page - 1,
    ArrowRight: props.page + 1,
    PageUp: props.page - 10,
    PageDown: props.page + 10,
    Home: 1,
    End: props.pages,
  }[event.key];
  if (to === undefined) return;
  emit('go', Math.max(1, Math.min(props.pages, to)));
  event.preventDefault();
}

function click(event: MouseEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
  emit(
    'go',
    Math.max(1, Math.min(props.pages, Math.floor(((event.clientX - box.left) / box.width) * props.pages) + 1)),
  );
}
</script>

<template>
  <footer class="flex h-9 shrink-0 items-center gap-3.5 border-t border-line bg-card px-4 text-fine text-muted">
    <span>p. {{ labelOf(1) }}</span>
    <div
      class="relative h-6 flex-1 cursor-pointer"
      role="slider"
      tabindex="0"
      aria-label="Page"
      :aria-valuemin="1"
      :aria-valuemax="pages"
      :aria-valuenow="page"
      :aria-valuetext="`Page ${labelOf(page)} (${page} of ${pages})`"
      @click="click"
      @keydown="key"
    >
      <div class="absolute inset-x-0 top-2.5 h-1 rounded bg-line" />
      <div
        v-for="(h, i) in hits"
        :key="`h${i}`"
        class="absolute top-[7px] h-2.5 w-px bg-ochre"
        :style="{ left: `${at(h.page, h.rects[0]?.y0)}%` }"
      />
      <!-- For the pointer; by keyboard the marks are reached on their pages. -->
      <span
        v-for="t in ticks"
        :key="t.id"
        class="absolute top-[3px] h-[18px] w-1.5 rounded-[1.5px] border border-black/15"
        :class="FILL[t.sense?.colour ?? 'straw']"
        :style="{ left: `${t.left}%` }"
        :title="`${t.sense?.name}: ${t.text.slice(0, 80)}`"
        aria-hidden="true"
        @click.stop="emit('mark', t.id)"
      />
      <div
        class="pointer-events-none absolute inset-y-0 border border-ink"
        :style="{ left: `${at(page)}%`, width: `max(6px, ${100 / pages}%)` }"
      />
    </div>
    <span>p. {{ labelOf(pages) }}</span>
  </footer>
</template>
