<script setup lang="ts">
/** The pages of a PDF, with what stands on each of them and beside it. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { useElementSize } from '@vueuse/core';
import { computed, ref, toRef, watch } from 'vue';
import type { Turn } from '@pandecta/core/marks';
import { usePages } from './pages.ts';
import { watchEmptySpace } from './empty-space.ts';

const props = defineProps<{
  pdf: PDFDocumentProxy | null;
  /** Pixels a point; null to fit the width. */
  zoom: number | null;
  turn: Turn;
  /** Room at the left of the pages, in pixels. */
  margin: number;
  /** How a page is called. */
  labelOf: (page: number) => string;
}>();
const emit = defineEmits<{ page: [number: number]; ready: [] }>();
const container = ref<HTMLElement>();
const inner = ref<HTMLElement>();
const { width } = useElementSize(container);
const room = computed(() => width.value - props.margin - 20);
const pages = usePages(
  container,
  inner,
  toRef(props, 'pdf'),
  room,
  toRef(props, 'zoom'),
  toRef(props, 'turn'),
  (page) => props.labelOf(page),
);
const { page, near, scale, ready } = pages;
watch(page, (now) => emit('page', now));
watch(ready, (now) => now && emit('ready'));
watchEmptySpace(inner);

defineExpose({
  go: pages.go,
  follow: pages.follow,
  scale,
  placed: pages.placed,
  element: container,
  focus: () => container.value?.focus(),
});
</script>

<template>
  <div class="relative">
    <div
      ref="container"
      class="absolute inset-0 overflow-auto pt-3.5"
      tabindex="0"
      role="document"
      aria-label="Document"
    >
      <div ref="inner" class="pdfViewer" :style="{ marginLeft: `${margin}px` }" />
      <div
        v-for="p in near"
        :key="p.number"
        class="pointer-events-none absolute"
        :style="{ left: `${p.left}px`, top: `${p.top}px`, width: `${p.width}px`, height: `${p.height}px` }"
      >
        <slot :page="p" :scale="scale" />
      </div>
    </div>
    <p v-if="!pdf || !ready" class="absolute inset-x-0 top-10 text-center text-muted" role="status">
      Opening the document…
    </p>
  </div>
</template>

<style>
.pdfViewer .page {
  box-shadow: 0 1px 6px #0002;
  background: white;
}
.pdfViewer .textLayer ::selection {
  background: rgb(23 100 94 / 0.28);
}
</style>
