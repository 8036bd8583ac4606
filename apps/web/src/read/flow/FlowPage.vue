<script setup lang="ts">
/** A text without pages of its own (a page of the web, a document of a word processor, plain text), cleaned and set here. */
import DOMPurify from 'dompurify';
import { useElementSize, useResizeObserver } from '@vueuse/core';
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import type { Mark } from '@pandecta/contract';
import type { Rect } from '@pandecta/core/marks';
import KitNotice from '../../kit/KitNotice.vue';
import type { PlacedPage } from '../viewer/pages.ts';
import { lightWords, showHit } from './light.ts';
import { linesOf, rangesOf } from './place.ts';

const props = defineProps<{
  address: string;
  name: string;
  marks: Mark[];
  words: string[];
  hitAt: number;
  /** As large as it is set at 1. */
  zoom: number | null;
  /** Room at its left, in pixels. */
  margin: number;
}>();
const emit = defineEmits<{ ready: []; page: [number: number] }>();
const container = useTemplateRef<HTMLElement>('container');
const sheet = useTemplateRef<HTMLElement>('sheet');
const text = useTemplateRef<HTMLElement>('text');
const error = ref('');
const content = shallowRef<DocumentFragment>();
/** The lines of each mark as the text is set now. */
const lines = shallowRef(new Map<string, Rect[]>());
const { width, height } = useElementSize(sheet);
const { width: room } = useElementSize(container);
const measure = computed(() => Math.max(280, Math.min(720 * (props.zoom ?? 1), room.value - props.margin - 28)));

watch(
  () => props.address,
  async (address) => {
    content.value = undefined;
    error.value = '';
    const reply = await fetch(address).catch(() => undefined);
    const html = reply?.ok ? await reply.text() : undefined;
    if (address !== props.address) return;
    if (html === undefined) error.value = 'The text could not be fetched; open it again to try once more.';
    else content.value = DOMPurify.sanitize(html, { RETURN_DOM_FRAGMENT: true, FORBID_TAGS: ['style', 'form'], FORBID_ATTR: ['style', 'id', 'class'], ADD_ATTR: ['target'] }); // prettier-ignore
  },
  { immediate: true },
);

async function set(): Promise<void> {
  if (!text.value) return;
  text.value.replaceChildren(...(content.value ? [content.value.cloneNode(true)] : []));
  for (const link of text.value.querySelectorAll('a[href]')) {
    link.setAttribute('target', '_blank');
    link.setAttribute('rel', 'noopener noreferrer');
  }
  // Where it was seen stands above the text: it came with its class, which is none of the page's.
  const [first] = text.value.querySelectorAll('p');
  if (first && /^(?:Seen at|Made from) /.test(first.textContent ?? '')) first.className = 'from';
  light();
  await nextTick();
  emit('ready');
}
onMounted(set);
watch(content, () => void set(), { flush: 'post' });

function light(): void {
  if (!text.value) return;
  lightWords(text.value, props.words);
  showHit(text.value, props.hitAt);
  place();
}
watch(() => props.words, light, { flush: 'post' });
watch(
  () => props.hitAt,
  (at) => text.value && showHit(text.value, at),
);

function place(): void {
  const { value: root } = text;
  const { value: box } = sheet;
  if (!root || !box) return;
  const ranges = rangesOf(
    root,
    props.marks.map((m) => m.quote),
  );
  lines.value = new Map(props.marks.flatMap((m, i) => (ranges[i] ? [[m.id, linesOf(ranges[i], box)] as const] : [])));
}
watch(() => props.marks, place, { flush: 'post' });
useResizeObserver(sheet, place);

const page = computed((): PlacedPage => ({
  number: 1,
  left: sheet.value?.offsetLeft ?? 0,
  top: sheet.value?.offsetTop ?? 0,
  width: width.value,
  height: height.value,
  size: { width: width.value, height: height.value },
}));
const placed = computed(() =>
  props.marks.map((m) => ({ ...m, rects: lines.value.get(m.id) ?? [] })).filter((m) => m.rects.length),
);

defineExpose({
  go: (_: number, y = 0) => container.value?.scrollTo({ top: Math.max(0, page.value.top + y - 120) }),
  topOf: (mark: string) => lines.value.get(mark)?.[0]?.y0,
  scale: 1,
  placed: computed(() => [page.value]),
  element: container,
});
</script>

<template>
  <div ref="container" class="relative overflow-auto py-3.5" tabindex="0" role="document" :aria-label="name">
    <KitNotice v-if="error" tone="bad" class="m-6">{{ error }}</KitNotice>
    <p v-else-if="!content" class="mt-6 text-center text-muted" role="status">Opening the document…</p>
    <div
      ref="sheet"
      class="relative bg-[#fdfcf8] text-[#1f262d] shadow"
      :style="{ marginLeft: `${margin}px`, width: `${measure}px`, fontSize: `${17 * (zoom ?? 1)}px` }"
      data-page="1"
    >
      <div ref="text" class="textLayer flow px-10 py-8" lang="" />
      <div class="pointer-events-none absolute inset-0">
        <slot :page="page" :scale="1" :marks="placed" />
      </div>
    </div>
  </div>
</template>

<style>
/* pdf.js lays its own layers of text over its pages; this one is the text. */
.flow.textLayer {
  position: static;
  overflow: visible;
  opacity: 1;
  text-align: left;
  line-height: 1.55;
  font-family: var(--font-serif);
  overflow-wrap: anywhere;
}
.flow.textLayer :is(span, br) {
  position: static;
  color: inherit;
  cursor: text;
}
.flow :is(h1, h2, h3, h4) {
  font-weight: 600;
  line-height: 1.25;
  margin: 1.4em 0 0.5em;
}
.flow h1 {
  font-size: 1.5em;
}
.flow h2 {
  font-size: 1.2em;
}
.flow :is(p, ul, ol, blockquote, table, figure, pre) {
  margin: 0 0 0.8em;
}
.flow :is(ul, ol) {
  padding-left: 1.6em;
}
.flow ul {
  list-style: disc;
}
.flow ol {
  list-style: decimal;
}
.flow blockquote {
  border-left: 3px solid #bbb;
  padding-left: 1em;
}
.flow :is(td, th) {
  border: 1px solid #bbb;
  padding: 0.2em 0.5em;
}
.flow img {
  max-width: 100%;
  height: auto;
}
.flow a {
  color: #1a655e;
  text-decoration: underline;
}
.flow :is(.from, figcaption) {
  font: 14px/1.4 var(--font-sans);
  color: #555;
}
</style>
