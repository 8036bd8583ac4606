<script setup lang="ts">
/** The text of a page corrected line by line, each beside its picture; Tab goes from one unsure word to the next. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { routes, type LineOfPage } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitNotice from '../../kit/KitNotice.vue';

const props = defineProps<{
  source: string;
  file: string;
  page: number;
  /** How the page is called. */
  called: string;
  pdf: PDFDocumentProxy | null;
  mayEdit: boolean;
}>();
const emit = defineEmits<{ close: []; page: [by: 1 | -1] }>();
const { change } = useChanges();
const { data, error, isLoading } = useAsked({
  question: () => ({ source: props.source, file: props.file, page: props.page }),
  fetch: ({ source, file, page }, signal) => ask(routes.files.lines, { source, file, query: { page }, signal }),
  concerns: (touched, { source }) => concerns(touched, ['source'], source),
});
const fields = ref<InstanceType<typeof KitField>[]>([]);
const drafts = ref<Record<number, string>>({});
const picture = shallowRef<HTMLCanvasElement | null>(null);
const state = ref('');
watch(
  () => [props.file, props.page],
  () => {
    drafts.value = {};
    state.value = '';
  },
);
/** Dots a point: sharp on most screens. */
const SCALE = 2;
watch(
  [() => props.pdf, () => props.page],
  async ([pdf, page]) => {
    picture.value = null;
    if (!pdf) return;
    const leaf = await pdf.getPage(page);
    const viewport = leaf.getViewport({ scale: SCALE });
    const canvas = document.createElement('canvas');
    canvas.width = Math.floor(viewport.width);
    canvas.height = Math.floor(viewport.height);
    await leaf.render({ canvas, viewport }).promise;
    if (page === props.page) picture.value = canvas;
  },
  { immediate: true },
);
/** The strip of the page in which the line stands, with a little around it. */
function drawLine(el: unknown, { box }: LineOfPage): void {
  const [canvas, from] = [el as HTMLCanvasElement | null, picture.value];
  if (!canvas || !from) return;
  const [x, y] = [Math.max(0, box.x0 - 6), Math.max(0, box.y0 - 3)];
  const [width, height] = [box.x1 - box.x0 + 12, box.y1 - box.y0 + 6];
  canvas.width = Math.ceil(width * SCALE);
  canvas.height = Math.ceil(height * SCALE);
  canvas.getContext('2d')!.drawImage(from, x * SCALE, y * SCALE, width * SCALE, height * SCALE, 0, 0, canvas.width, canvas.height); // prettier-ignore
}

const unsure = computed(() => data.value?.lines.reduce((n, l) => n + l.unsure.length, 0) ?? 0);
const textOf = (line: LineOfPage): string => drafts.value[line.line] ?? line.text;
async function save(line: LineOfPage): Promise<void> {
  const text = drafts.value[line.line];
  if (text === undefined || text.trim() === line.text) return;
  state.value = 'Saving…';
  const { source, file, page } = props;
  const body = { page, line: line.line, text, seen: line.text };
  const done = await change(() => ask(routes.files.correct, { source, file, body }));
  // What was refused stays in its field.
  if (done && page === props.page) delete drafts.value[line.line];
  state.value = done ? 'Saved' : 'Not saved: the line was changed by another, or could not be saved';
}
async function putBack(line: LineOfPage): Promise<void> {
  const { source, file, page } = props;
  delete drafts.value[line.line];
  await change(() => ask(routes.files.correct, { source, file, body: { page, line: line.line, seen: line.text } }));
}

/** The unsure words in their order, each by its line. */
const stops = computed(() => (data.value?.lines ?? []).flatMap((line, i) => line.unsure.map((word) => ({ i, word }))));
/** What may stand in place of the unsure word at the caret. */
function proposalAt(line: LineOfPage, caret: number): LineOfPage['unsure'][number] | undefined {
  // Once a line is being written, its words are no longer where they were.
  if (drafts.value[line.line] !== undefined && drafts.value[line.line] !== line.text) return undefined;
  return line.unsure.find(({ proposal, start, end }) => proposal && start <= caret && caret <= end);
}
async function take(event: KeyboardEvent, line: LineOfPage, i: number): Promise<void> {
  const word = proposalAt(line, (event.target as HTMLInputElement).selectionStart ?? 0);
  if (word) await takeProposal(line, i, word);
}
async function takeProposal(
  line: LineOfPage,
  i: number,
  { start, end, proposal }: LineOfPage['unsure'][number],
): Promise<void> {
  // prettier-ignore
  drafts.value[line.line] = line.text.slice(0, start) + proposal! + line.text.slice(end);
  await nextTick();
  fields.value[i]?.focus();
  fields.value[i]?.select(start, start + proposal!.length);
  await save(line);
}
async function toUnsure(event: KeyboardEvent, i: number): Promise<void> {
  const caret = (event.target as HTMLInputElement).selectionEnd ?? 0;
  const after = ({ i: at, word }: (typeof stops.value)[number]): boolean => at > i || (at === i && word.start >= caret && caret > 0); // prettier-ignore
  const before = ({ i: at, word }: (typeof stops.value)[number]): boolean => at < i || (at === i && word.end < caret);
  const next = event.shiftKey ? stops.value.findLast(before) : stops.value.find(after);
  if (!next) return;
  event.preventDefault();
  await nextTick();
  const field = fields.value[next.i];
  field?.focus();
  field?.select(next.word.start, next.word.end);
}
</script>

<template>
  <section class="flex min-h-0 flex-col border-l border-line bg-card" aria-label="Correct the text">
    <header class="flex flex-wrap items-center gap-x-3 border-b border-line px-4 py-2">
      <h2 class="font-serif text-read font-medium">Page {{ called }}, line by line</h2>
      <span v-if="data" class="text-fine text-muted">{{
        unsure
          ? `${counted(unsure, 'word')} unsure · Tab goes to the next, ↓ takes what is proposed`
          : 'no unsure words'
      }}</span>
      <span class="ml-auto flex gap-1"
        ><KitButton look="quiet" @click="emit('page', -1)">Previous page</KitButton
        ><KitButton look="quiet" @click="emit('page', 1)">Next page</KitButton
        ><KitButton look="quiet" @click="emit('close')">Close</KitButton></span
      >
    </header>
    <KitNotice v-if="error" tone="bad" class="m-4">{{ error }}</KitNotice>
    <p v-else-if="!data" class="p-4 text-muted" role="status">{{ isLoading ? 'Loading the lines…' : '' }}</p>
    <p v-else-if="!data.lines.length" class="p-4 text-muted">No text was recognised on this page.</p>
    <ol v-else class="min-h-0 flex-1 overflow-auto px-4">
      <li v-for="(line, i) in data.lines" :key="line.line" class="border-b border-line py-2">
        <div class="overflow-hidden bg-white" aria-hidden="true">
          <canvas v-if="picture" :ref="(el) => drawLine(el, line)" class="max-h-14 max-w-full" />
        </div>
        <KitField
          v-if="mayEdit"
          ref="fields"
          class="mt-1 font-serif text-read"
          :model-value="textOf(line)"
          :label="`Line ${i + 1}: ${line.recognised.slice(0, 40)}`"
          maxlength="2000"
          @update:model-value="drafts[line.line] = String($event ?? '')"
          @blur="save(line)"
          @keydown.enter.prevent="save(line)"
          @keydown.tab="toUnsure($event, i)"
          @keydown.down.prevent="take($event, line, i)"
        />
        <p v-else class="mt-1 font-serif text-read">{{ line.text }}</p>
        <p v-if="line.unsure.length" class="text-label text-ochre">
          Unsure:
          <template v-for="(w, k) in line.unsure" :key="w.start"
            >{{ k ? ', ' : '' }}{{ line.text.slice(w.start, w.end) }}
            <KitButton
              v-if="w.proposal && mayEdit"
              look="word"
              :title="`Take “${w.proposal}”: arrow down while the word is selected`"
              @click="takeProposal(line, i, w)"
              >→ {{ w.proposal }}</KitButton
            ></template
          >
        </p>
        <p v-if="line.text !== line.recognised" class="flex gap-2 text-label text-muted">
          Recognised as “{{ line.recognised }}”<KitButton v-if="mayEdit" look="word" @click="putBack(line)"
            >Put back</KitButton
          >
        </p>
      </li>
    </ol>
    <footer class="flex border-t border-line px-4 py-2 text-fine text-muted">
      What is corrected is what is searched and quoted; what was recognised is kept.<span
        class="ml-auto"
        role="status"
        >{{ state }}</span
      >
    </footer>
  </section>
</template>
