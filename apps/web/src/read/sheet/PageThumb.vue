<script setup lang="ts">
/** One page of a document, small; drawn when it comes into sight. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { useIntersectionObserver } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { SortedPage } from '@pandecta/contract';
import type { Sense } from '@pandecta/core/marks';
import PageState from './PageState.vue';

const props = defineProps<{
  pdf: PDFDocumentProxy;
  /** Counted from 1. */
  page: number;
  called: string;
  chosen: boolean;
  /** The title of the source it was taken as. */
  taken?: string | undefined;
  state?: SortedPage | undefined;
  senses: Sense[];
}>();
const emit = defineEmits<{ choose: [extend: boolean] }>();
const box = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const WIDTH = 150;
let isDrawn = false;
/** With all that was said of it. */
const summary = computed(() => {
  const { state } = props;
  const sense = props.senses.find((s) => s.id === state?.sense)?.name;
  const said = [state?.used && 'used', state?.check && 'to check again', sense, ...(state?.tags ?? [])];
  return [`Page ${props.called}`, ...said.filter(Boolean), props.taken && `taken as ${props.taken}`]
    .filter(Boolean)
    .join(', ');
});

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
    :aria-label="summary"
    :title="taken ? `Taken as “${taken}”` : undefined"
    @click="emit('choose', $event.shiftKey)"
  >
    <canvas ref="canvas" class="block min-h-40 w-full" :class="taken && 'opacity-45'" />
    <span class="absolute bottom-1 left-1 rounded bg-card px-1 font-mono text-label text-ink">{{ called }}</span>
    <PageState v-if="state" class="absolute right-1 bottom-1 max-w-[75%]" :state="state" :senses="senses" />
    <span
      v-if="taken"
      class="absolute right-1 top-1 max-w-[90%] truncate rounded bg-mist px-1 text-label text-[#1f262d]"
      >{{ taken }}</span
    >
  </div>
</template>
