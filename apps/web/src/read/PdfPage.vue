<script setup lang="ts">
/** One page: its picture, the layer of text one selects, its marks, and the words that were searched for. */
import type { PDFDocumentProxy, RenderTask } from 'pdfjs-dist';
import { useIntersectionObserver } from '@vueuse/core';
import { onBeforeUnmount, ref, watch } from 'vue';
import type { Mark, PageHit } from '@pandecta/contract';
import type { Rect, Sense } from '@pandecta/core/marks';
import KitButton from '../kit/KitButton.vue';
import { FILL } from './colours.ts';
import { watchEmptySpace } from './empty-space.ts';
import { pdfjs } from './pdf.ts';

const props = defineProps<{
  doc: PDFDocumentProxy;
  number: number;
  scale: number;
  size: { width: number; height: number };
  marks: Mark[];
  senses: Sense[];
  hits: PageHit[];
  currentHit: PageHit | undefined;
  active: string | null;
}>();
const emit = defineEmits<{ sized: [{ width: number; height: number }]; mark: [id: string] }>();
const box = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const text = ref<HTMLElement>();
const near = ref(false);
const drawn = ref(false);
let task: RenderTask | undefined;
let turn = 0;
let letGo: (() => void) | undefined;

useIntersectionObserver(box, ([entry]) => (near.value = entry?.isIntersecting ?? false), { rootMargin: '900px 0px' });

async function draw(): Promise<void> {
  const mine = ++turn;
  task?.cancel();
  if (!near.value || !canvas.value || !text.value) {
    drawn.value = false;
    if (canvas.value) canvas.value.width = 0;
    text.value?.replaceChildren();
    return;
  }
  const lib = await pdfjs();
  const page = await props.doc.getPage(props.number);
  const viewport = page.getViewport({ scale: props.scale });
  if (mine !== turn) return;
  emit('sized', { width: viewport.width / props.scale, height: viewport.height / props.scale });
  const ratio = Math.min(2.5, devicePixelRatio || 1);
  canvas.value.width = Math.floor(viewport.width * ratio);
  canvas.value.height = Math.floor(viewport.height * ratio);
  task = page.render({
    canvas: canvas.value,
    viewport,
    transform: ratio === 1 ? undefined : [ratio, 0, 0, ratio, 0, 0],
  });
  try {
    await task.promise;
    if (mine !== turn) return;
    text.value.replaceChildren();
    await new lib.TextLayer({ textContentSource: page.streamTextContent(), container: text.value, viewport }).render();
    letGo?.();
    letGo = watchEmptySpace(text.value);
    drawn.value = true;
  } catch (error) {
    if ((error as Error).name !== 'RenderingCancelledException') throw error;
  }
}
watch([near, () => props.scale, () => props.doc], draw, { flush: 'post' });
onBeforeUnmount(() => {
  turn += 1;
  task?.cancel();
  letGo?.();
});

const place = (r: Rect): Record<string, string> => ({
  left: `${r.x0 * props.scale}px`,
  top: `${r.y0 * props.scale}px`,
  width: `${(r.x1 - r.x0) * props.scale}px`,
  height: `${(r.y1 - r.y0) * props.scale}px`,
});
const sense = (m: Mark): Sense | undefined => props.senses.find((s) => s.id === m.sense);
</script>

<template>
  <div
    ref="box"
    :data-page="number"
    role="region"
    :aria-label="`Page ${number}`"
    class="relative bg-white shadow-[0_1px_6px_#0002]"
    :style="{
      width: `${size.width * scale}px`,
      height: `${size.height * scale}px`,
      '--total-scale-factor': scale,
      '--scale-round-x': '1px',
      '--scale-round-y': '1px',
    }"
  >
    <canvas ref="canvas" class="absolute inset-0 h-full w-full" aria-hidden="true" />
    <div class="absolute inset-0 mix-blend-multiply" aria-hidden="true">
      <template v-for="m in marks" :key="m.id">
        <div
          v-for="(r, i) in m.rects"
          :key="i"
          class="absolute"
          :class="[FILL[sense(m)?.colour ?? 'straw'], active === m.id && 'outline-2 outline-verdigris']"
          :style="place(r)"
        />
      </template>
      <template v-for="(h, i) in hits" :key="`h${i}`">
        <div
          v-for="(r, k) in h.rects"
          :key="k"
          class="absolute rounded-[2px]"
          :class="h === currentHit ? 'bg-[#f2b84b] outline-2 outline-[#8a570b]' : 'bg-[#f3e2a9]'"
          :style="place(r)"
        />
      </template>
    </div>
    <div ref="text" class="textLayer" />
    <KitButton
      v-for="m in marks"
      :key="m.id"
      look="bare"
      class="absolute z-[2] -translate-x-full rounded-l-[3px] px-1 font-mono text-label font-semibold text-[#1f262d]"
      :class="FILL[sense(m)?.colour ?? 'straw']"
      :style="{ left: `${(m.rects[0]?.x0 ?? 0) * scale - 1}px`, top: `${(m.rects[0]?.y0 ?? 0) * scale}px` }"
      :aria-label="`${sense(m)?.key} ${sense(m)?.name}: ${m.quote.exact.slice(0, 60)}`"
      @click="emit('mark', m.id)"
    >
      {{ sense(m)?.key }}
    </KitButton>
    <p v-if="!drawn && near" class="absolute inset-x-0 top-1/3 text-center text-[#686d73]">Page {{ number }}</p>
  </div>
</template>

<style>
.textLayer {
  position: absolute;
  inset: 0;
  overflow: clip;
  line-height: 1;
  text-align: initial;
  text-size-adjust: none;
  forced-color-adjust: none;
  transform-origin: 0 0;
  z-index: 1;
  --min-font-size: 1;
  --text-scale-factor: calc(var(--total-scale-factor) * var(--min-font-size));
  --min-font-size-inv: calc(1 / var(--min-font-size));
}
.textLayer :is(span, br) {
  color: transparent;
  position: absolute;
  white-space: pre;
  cursor: text;
  transform-origin: 0% 0%;
}
.textLayer > :not(.markedContent),
.textLayer .markedContent span:not(.markedContent) {
  --font-height: 0;
  --scale-x: 1;
  --rotate: 0deg;
  z-index: 1;
  font-size: calc(var(--text-scale-factor) * var(--font-height));
  transform: rotate(var(--rotate)) scaleX(var(--scale-x)) scale(var(--min-font-size-inv));
}
.textLayer .markedContent {
  display: contents;
}
.textLayer .emptySpace {
  position: absolute;
  inset: 100% 0 0;
  z-index: 0;
  cursor: default;
  user-select: none;
}
.textLayer.selecting .emptySpace {
  top: 0;
  user-select: text;
}
.textLayer ::selection {
  background: rgb(23 100 94 / 0.28);
}
.textLayer br::selection {
  background: transparent;
}
</style>
