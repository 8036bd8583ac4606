<script setup lang="ts">
/** What is kept of a picture: a rectangle drawn over it, or its edges in percent. */
import { computed, ref } from 'vue';
import type { Crop } from '@pandecta/contract';
import KitButton from '../../../kit/KitButton.vue';
import KitField from '../../../kit/KitField.vue';
import type { PicturePage } from './pages.ts';
import TurnedPicture from './TurnedPicture.vue';

defineProps<{ page: PicturePage }>();
const emit = defineEmits<{ done: [] }>();
const crop = defineModel<Crop | undefined>({ required: true });
const begun = ref<{ x: number; y: number } | null>(null);
const LEAST = 0.02;

function at(event: PointerEvent): { x: number; y: number } {
  const { left, top, width, height } = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const within = (v: number): number => Math.max(0, Math.min(1, v));
  return { x: within((event.clientX - left) / width), y: within((event.clientY - top) / height) };
}
function begin(event: PointerEvent): void {
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  begun.value = at(event);
}
function drag(event: PointerEvent): void {
  if (!begun.value) return;
  const [a, b] = [begun.value, at(event)];
  const [width, height] = [Math.abs(a.x - b.x), Math.abs(a.y - b.y)];
  if (width > LEAST && height > LEAST)
    crop.value = { left: Math.min(a.x, b.x), top: Math.min(a.y, b.y), width, height };
}
const edges = computed(() => {
  const { left, top, width, height } = crop.value ?? { left: 0, top: 0, width: 1, height: 1 };
  return { left, top, right: 1 - left - width, bottom: 1 - top - height };
});
const NAMES = { left: 'Left', top: 'Top', right: 'Right', bottom: 'Bottom' } as const;
const SIDES = Object.keys(NAMES) as (keyof typeof NAMES)[];
function set(side: keyof typeof NAMES, percent: number): void {
  const next = { ...edges.value, [side]: Math.max(0, Math.min(95, percent || 0)) / 100 };
  const [width, height] = [1 - next.left - next.right, 1 - next.top - next.bottom];
  if (width > LEAST && height > LEAST) crop.value = { left: next.left, top: next.top, width, height };
}
const shown = computed(() => ({
  left: `${edges.value.left * 100}%`,
  top: `${edges.value.top * 100}%`,
  right: `${edges.value.right * 100}%`,
  bottom: `${edges.value.bottom * 100}%`,
}));
</script>

<template>
  <div class="grid justify-items-center gap-3">
    <div
      class="relative cursor-crosshair touch-none overflow-hidden"
      role="img"
      aria-label="Drag over what is kept of the picture"
      @pointerdown.left="begin"
      @pointermove="drag"
      @pointerup="begun = null"
      @pointercancel="begun = null"
    >
      <TurnedPicture :file="page.file" :turn="page.turn ?? 0" :size="420" />
      <div
        v-if="crop"
        class="absolute border-2 border-verdigris shadow-[0_0_0_2000px_rgb(0_0_0/0.35)]"
        :style="shown"
      />
    </div>
    <div class="flex flex-wrap items-end gap-2">
      <KitField
        v-for="side in SIDES"
        :key="side"
        class="w-20"
        above
        type="number"
        min="0"
        max="95"
        :label="`${NAMES[side]}, %`"
        :model-value="String(Math.round(edges[side] * 100))"
        @update:model-value="set(side, Number($event))"
      />
      <KitButton :disabled="!crop" @click="crop = undefined">Keep all of it</KitButton>
      <KitButton look="main" @click="emit('done')">Done</KitButton>
    </div>
  </div>
</template>
