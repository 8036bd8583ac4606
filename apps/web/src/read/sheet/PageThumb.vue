<script setup lang="ts">
/** One page of a document, small; drawn when it comes into sight. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { useIntersectionObserver } from '@vueuse/core';
import { ref } from 'vue';

const props = defineProps<{
  pdf: PDFDocumentProxy;
  /** Counted from 1. */
  page: number;
  called: string;
  chosen: boolean;
  /** The title of the source it was taken as. */
  taken?: string | undefined;
}>();
const emit = defineEmits<{ choose: [extend: boolean] }>();
const box = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const WIDTH = 150;
let isDrawn = false;

async function draw(): Promise<void> {
  if (isDrawn || !canvas.value) return;
  isDrawn = true;
  const leaf = await props.pdf.getPage(props.page);
  const ratio = Math.min(2, devicePixelRatio || 1);
  const viewport = leaf.getViewport({ scale: (WIDTH * ratio) / leaf.getViewport({ scale: 1 }).width });
  canvas.value.width = Math.floor(viewport.width);
  canvas.value.height = Math.floor(viewport.height);
  await leaf.render({ canvas: canvas.value, viewport }).promise;
}
useIntersectionObserver(box, ([entry]) => entry?.isIntersecting && void draw(), { rootMargin: '400px' });
</script>

<template>
  <div
    ref="box"
    class="relative cursor-pointer select-none rounded-[3px] border bg-white"
    :class="chosen ? 'border-verdigris outline-2 outline-verdigris' : 'border-edge'"
    role="option"
    :aria-selected="chosen"
    :aria-label="`Page ${called}${taken ? `, taken as ${taken}` : ''}`"
    :title="taken ? `Taken as “${taken}”` : undefined"
    @click="emit('choose', $event.shiftKey)"
  >
    <canvas ref="canvas" class="block min-h-40 w-full" :class="taken && 'opacity-45'" />
    <span class="absolute bottom-1 left-1 rounded bg-card px-1 font-mono text-label text-ink">{{ called }}</span>
    <span
      v-if="taken"
      class="absolute right-1 top-1 max-w-[90%] truncate rounded bg-mist px-1 text-label text-[#1f262d]"
      >{{ taken }}</span
    >
  </div>
</template>
