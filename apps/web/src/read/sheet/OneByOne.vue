<script setup lang="ts">
/** Page after page and nothing else: the arrows turn them, a key says what a page is. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { useElementSize, useLocalStorage } from '@vueuse/core';
import { computed, nextTick, onBeforeUnmount, onMounted, reactive, ref, useTemplateRef, watch } from 'vue';
import { offeredSenses, type Sense } from '@pandecta/core/marks';
import { formatNumber } from '@pandecta/core/wording';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitField from '../../kit/KitField.vue';
import KitPopover from '../../kit/KitPopover.vue';
import PageState from './PageState.vue';
import { TAKEN_LETTERS, type useSorting } from './sorting.ts';

const props = defineProps<{
  pdf: PDFDocumentProxy;
  senses: Sense[];
  sorting: ReturnType<typeof useSorting>;
  labelOf: (page: number) => string;
  title: string;
}>();
const at = defineModel<number>('at', { required: true });
const emit = defineEmits<{ close: [] }>();
const stage = useTemplateRef<HTMLElement>('stage');
const { width, height } = useElementSize(stage);
/** After a page was said to be something, the next is shown. */
const goesOn = useLocalStorage('goes on by itself', false);
const state = computed(() => props.sorting.states.value.get(at.value));

/** Pages that are drawn or being drawn: the one that is shown, and those around it, so that the next is there at once. */
const AHEAD = 3;
const drawn = new Map<string, HTMLCanvasElement>();
const keyOf = (page: number): string => `${page} ${Math.round(width.value)} ${Math.round(height.value)}`;
async function draw(page: number): Promise<HTMLCanvasElement | undefined> {
  if (page < 1 || page > props.pdf.numPages || !width.value) return undefined;
  const key = keyOf(page);
  const known = drawn.get(key);
  if (known) return known;
  const canvas = document.createElement('canvas');
  drawn.set(key, canvas);
  const leaf = await props.pdf.getPage(page);
  const size = leaf.getViewport({ scale: 1 });
  const scale = Math.min(width.value / size.width, height.value / size.height);
  const ratio = Math.min(2, devicePixelRatio || 1);
  const viewport = leaf.getViewport({ scale: scale * ratio });
  canvas.width = Math.floor(viewport.width);
  canvas.height = Math.floor(viewport.height);
  canvas.style.width = `${viewport.width / ratio}px`;
  canvas.style.height = `${viewport.height / ratio}px`;
  canvas.style.background = 'white';
  await leaf.render({ canvas, viewport }).promise;
  return canvas;
}
async function show(): Promise<void> {
  const page = at.value;
  const canvas = await draw(page);
  if (canvas && page === at.value) stage.value?.replaceChildren(canvas);
  for (let by = 1; by <= AHEAD && page === at.value; by += 1) await draw(page + by);
  if (page === at.value) await draw(page - 1);
  for (const key of drawn.keys()) if (Math.abs(Number(key.split(' ')[0]) - at.value) > AHEAD + 1) drawn.delete(key);
}
watch([at, width, height], () => void show(), { flush: 'post' });

function turn(by: number): void {
  // The one that is left was looked at.
  props.sorting.look(at.value);
  at.value = Math.max(1, Math.min(props.pdf.numPages, at.value + by));
}
function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if ((event.target as HTMLElement).closest('input, textarea, [role=dialog]')) return;
  const by = { ArrowRight: 1, ArrowDown: 1, PageDown: 1, ArrowLeft: -1, ArrowUp: -1, PageUp: -1 }[event.key];
  if (event.key === 'Escape') emit('close');
  else if (by) turn(by);
  else if (props.sorting.key(at.value, event.key)) {
    if (goesOn.value) turn(1);
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
onMounted(async () => {
  addEventListener('keydown', key, true);
  await nextTick();
  stage.value?.focus();
});
onBeforeUnmount(() => removeEventListener('keydown', key, true));

const draft = reactive({ letter: '', tag: '' });
const letterError = ref('');
function give(): void {
  const letter = draft.letter.trim().toLowerCase();
  letterError.value = !/^\p{L}$/u.test(letter)
    ? 'Write one letter'
    : TAKEN_LETTERS.includes(letter)
      ? `“${letter}” is for something else`
      : '';
  if (letterError.value || !draft.tag.trim()) return;
  props.sorting.give(letter, draft.tag.trim());
  Object.assign(draft, { letter: '', tag: '' });
}
</script>

<template>
  <section class="fixed inset-0 z-40 flex flex-col bg-desk" role="region" aria-label="Page by page">
    <div
      ref="stage"
      class="m-3 grid min-h-0 flex-1 place-items-center overflow-hidden outline-none"
      tabindex="0"
      role="img"
      :aria-label="`Page ${labelOf(at)}`"
    />
    <footer class="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line bg-paper px-4 py-2 text-fine">
      <span class="max-w-72 truncate font-serif text-body">{{ title }}</span>
      <span role="status"
        >Page {{ labelOf(at) === String(at) ? '' : `${labelOf(at)}, ` }}{{ formatNumber(at) }} of
        {{ formatNumber(pdf.numPages) }} · {{ formatNumber(sorting.left.value) }} left</span
      >
      <PageState v-if="state" :state="state" :senses="senses" />
      <span class="ml-auto flex flex-wrap items-center gap-1.5">
        <KitButton
          v-for="s in offeredSenses(senses).filter((x) => x.key)"
          :key="s.id"
          :aria-pressed="state?.sense === s.id"
          @click="sorting.key(at, String(s.key))"
          ><kbd class="font-mono">{{ s.key }}</kbd
          >{{ s.name }}</KitButton
        >
        <KitButton :aria-pressed="state?.used ?? false" @click="sorting.key(at, 'u')"
          ><kbd class="font-mono">u</kbd>used</KitButton
        >
        <KitButton :aria-pressed="state?.check ?? false" @click="sorting.key(at, 'g')"
          ><kbd class="font-mono">g</kbd>check again</KitButton
        >
        <KitButton
          v-for="(tag, letter) in sorting.letters.value"
          :key="letter"
          :aria-pressed="state?.tags.includes(tag) ?? false"
          @click="sorting.key(at, String(letter))"
          ><kbd class="font-mono">{{ letter }}</kbd
          >{{ tag }}</KitButton
        >
        <KitPopover name="Letters for tags" look="quiet" at="bottom-end"
          ><template #button>Letters…</template>
          <form class="flex w-72 flex-col gap-2 p-3" @submit.prevent="give">
            <p class="text-fine text-muted">
              A letter gives a page a tag of your choice; pressed again it takes it back.
            </p>
            <div class="flex gap-2">
              <KitField v-model="draft.letter" class="w-16" above label="Letter" maxlength="1" :error="letterError" />
              <KitField v-model="draft.tag" class="flex-1" above label="Tag" maxlength="200" />
            </div>
            <KitButton type="submit" :disabled="!draft.letter || !draft.tag.trim()">Add</KitButton>
            <p v-for="(tag, letter) in sorting.letters.value" :key="letter" class="flex items-center gap-2">
              <kbd class="font-mono">{{ letter }}</kbd><span class="min-w-0 flex-1 truncate">{{ tag }}</span
              ><KitButton look="warn" @click="sorting.forget(String(letter))"
                >Remove<span class="sr-only"> {{ letter }}</span></KitButton
              >
            </p>
          </form>
        </KitPopover>
        <label class="flex items-center gap-1.5"
          ><KitCheck :checked="goesOn" label="Next page after each key" @check="goesOn = !goesOn" />Next page after each
          key</label
        >
        <KitButton look="quiet" @click="emit('close')">Close</KitButton>
      </span>
    </footer>
  </section>
</template>
