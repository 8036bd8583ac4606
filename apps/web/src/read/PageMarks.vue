<script setup lang="ts">
/** What a page is given: its marks and hits over it, and the glosses beside it, level with their marks. */
import { computed } from 'vue';
import type { PageHit } from '@pandecta/contract';
import { turnRect, type Rect, type Sense, type Shape, type Turn } from '@pandecta/core/marks';
import type { GlossedMark } from './document.ts';
import GlossColumn from './GlossColumn.vue';
import MarkLayer from './viewer/MarkLayer.vue';
import type { PlacedPage } from './viewer/pages.ts';

const props = defineProps<{
  page: PlacedPage;
  scale: number;
  turn: Turn;
  /** Those on the page. */
  marks: GlossedMark[];
  senses: Sense[];
  hits: PageHit[];
  currentHit: PageHit | undefined;
  active: string | null;
  draws: Extract<Shape, 'region' | 'point'> | null;
  /** Room for the glosses at the left, in pixels; too little for any where it is small. */
  margin: number;
  mayMark: boolean;
}>();
const emit = defineEmits<{
  activate: [id: string | null];
  gloss: [id: string, text: string, seen: string];
  yield: [id: string];
  edit: [id: string, to: { sense?: string; shape?: Shape }];
  share: [id: string];
  copy: [id: string];
  remove: [id: string];
  draw: [page: number, place: Rect];
}>();
/** As they stand on the page as it is turned: what is beside it is level with them. */
const upright = computed(() =>
  props.marks.map((m) => ({ ...m, rects: m.rects.map((r) => turnRect(r, props.page.size, props.turn)) })),
);
</script>

<template>
  <GlossColumn
    v-if="margin > 100"
    class="pointer-events-auto !absolute"
    :style="{ left: `${14 - margin}px`, width: `${margin - 28}px` }"
    :marks="upright"
    :senses="senses"
    :scale="scale"
    :page="page.number"
    :active="active"
    :may-mark="mayMark"
    @activate="emit('activate', $event)"
    @gloss="(...all) => emit('gloss', ...all)"
    @yield="emit('yield', $event)"
    @edit="(...all) => emit('edit', ...all)"
    @share="emit('share', $event)"
    @copy="emit('copy', $event)"
    @remove="emit('remove', $event)"
  />
  <MarkLayer
    :scale="scale"
    :size="page.size"
    :turn="turn"
    :marks="marks"
    :senses="senses"
    :hits="hits"
    :current-hit="currentHit"
    :active="active"
    :draws="draws"
    @mark="emit('activate', $event)"
    @draw="emit('draw', page.number, $event)"
  />
</template>
