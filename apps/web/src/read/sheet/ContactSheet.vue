<script setup lang="ts">
/** All pages of a document as small pictures; those that are chosen become a source of their own, one after another. */
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { computed, reactive, ref, useTemplateRef } from 'vue';
import { routes, type SourceDetail } from '@pandecta/contract';
import type { Sense } from '@pandecta/core/marks';
import { KINDS, partOf, partsOfKind, type Kind, type Variable } from '@pandecta/core/source';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { useSession } from '../../session/store.ts';
import { useTabs } from '../tabs.ts';
import { textToField } from '../../sources/index.ts';
import OneByOne from './OneByOne.vue';
import PageThumb from './PageThumb.vue';
import { useSorting } from './sorting.ts';

const props = defineProps<{
  source: SourceDetail;
  file: string;
  pdf: PDFDocumentProxy;
  labelOf: (page: number) => string;
  senses: Sense[];
}>();
const emit = defineEmits<{ close: []; open: [page: number] }>();
const { change } = useChanges();
const session = useSession();
const list = useTemplateRef<HTMLElement>('list');
const { data, error } = useAsked({
  question: () => ({ source: props.source.id, file: props.file }),
  fetch: async (at, signal) => (await ask(routes.files.takenPages, { ...at, signal })).taken,
  concerns: (touched) => concerns(touched, ['source']),
});
const pages = computed(() =>
  Array.from({ length: props.pdf.numPages }, (_, i) => i + 1).filter((page) => {
    const state = sorting.states.value.get(page);
    if (only.value === 'left') return !sorting.isLooked(page);
    return only.value === 'all' || (only.value === 'used' ? state?.used : state?.check);
  }),
);
const sorting = useSorting(() => ({
  source: props.source.id,
  file: props.file,
  pages: props.pdf.numPages,
  senses: props.senses,
}));
const oneByOne = ref(false);
/** Which pages are shown. */
const only = ref<'all' | 'used' | 'check' | 'left'>('all');
const shows = [
  { value: 'all' as const, name: 'All pages' },
  { value: 'used' as const, name: 'Used' },
  { value: 'check' as const, name: 'To check again' },
  { value: 'left' as const, name: 'Not looked at' },
];
const takenAs = computed(() => new Map((data.value ?? []).flatMap((t) => t.pages.map((page) => [page, t.title]))));
const left = computed(() => props.pdf.numPages - takenAs.value.size);

const chosen = ref(new Set<number>());
const anchor = ref(1);
const at = ref(useTabs().placeOf(props.file)?.page ?? 1);
function choose(page: number, extend: boolean): void {
  at.value = page;
  if (!extend) {
    const now = new Set(chosen.value);
    if (!now.delete(page)) now.add(page);
    chosen.value = now;
    anchor.value = page;
    return;
  }
  const [from, to] = [Math.min(anchor.value, page), Math.max(anchor.value, page)];
  chosen.value = new Set(pages.value.filter((p) => p >= from && p <= to));
}
/** So many stand beside each other. */
function columns(): number {
  const tops = [...(list.value?.children ?? [])].map((el) => (el as HTMLElement).offsetTop);
  return Math.max(1, tops.filter((top) => top === tops[0]).length);
}
function key(event: KeyboardEvent): void {
  const by = {
    ArrowLeft: -1,
    ArrowRight: 1,
    ArrowUp: -columns(),
    ArrowDown: columns(),
    Home: -Infinity,
    End: Infinity,
  }[event.key];
  if (event.key === ' ') choose(at.value, false);
  else if (event.key === 'Enter') emit('open', at.value);
  else if (event.ctrlKey || event.metaKey || event.altKey) return;
  else if (by === undefined) {
    // Of several that are chosen, the key is for each.
    const of = chosen.value.size ? [...chosen.value] : [at.value];
    if (!of.map((page) => sorting.key(page, event.key)).some(Boolean)) return;
  } else {
    const place = Math.max(0, Math.min(pages.value.length - 1, pages.value.indexOf(at.value) + by));
    at.value = pages.value[place] ?? 1;
    if (event.shiftKey) choose(at.value, true);
    list.value?.children[place]?.scrollIntoView({ block: 'nearest' });
  }
  event.preventDefault();
}

const kinds = computed(() => {
  const own: Kind[] = partsOfKind(props.source.record.type);
  const more: Kind[] = ['personal_communication', 'manuscript', 'chapter', 'article-journal', 'report', 'document'];
  return [...new Set([...own, ...more])].map((value) => ({ value, name: KINDS[value].name }));
});
const draft = reactive({ kind: kinds.value[0]!.value, title: '', author: '', recipient: '', issued: '' });
const dateError = ref('');
const inherits = computed(() => {
  const of = partOf(props.source.record, draft.kind);
  return (['archive', 'archive_collection', 'container-title', 'publisher'] as const)
    .flatMap((f) => (of[f] ? [String(of[f])] : []))
    .join(', ');
});
async function take(): Promise<void> {
  const record: Record<string, unknown> = { ...partOf(props.source.record, draft.kind), title: draft.title.trim() };
  const place = props.source.record.archive_location;
  if (place) record.archive_location = place;
  dateError.value = '';
  for (const field of ['author', 'recipient', 'issued'] as const) {
    if (!draft[field].trim()) continue;
    const value = textToField(field as Variable, draft[field]);
    if (value) record[field] = value;
    else if (field === 'issued') return void (dateError.value = `“${draft.issued}” is no date`);
  }
  const body = { pages: [...chosen.value].sort((a, b) => a - b), record: record as unknown as Record<string, unknown> };
  const done = await change(() => ask(routes.files.takePages, { source: props.source.id, file: props.file, body }));
  if (!done) return;
  // The next ones: after those that were taken, with nothing of this letter.
  const last = Math.max(...chosen.value);
  chosen.value = new Set();
  at.value = anchor.value = Math.min(props.pdf.numPages, last + 1);
  Object.assign(draft, { title: '', author: '', recipient: '', issued: '' } satisfies Partial<typeof draft>);
  list.value?.focus();
}
const inWords = computed(() => {
  const all = [...chosen.value].sort((a, b) => a - b);
  if (!all.length) return '';
  const isRow = all.at(-1)! - all[0]! === all.length - 1;
  return isRow && all.length > 1
    ? `pages ${props.labelOf(all[0]!)}–${props.labelOf(all.at(-1)!)}`
    : counted(all.length, 'page');
});
</script>

<template>
  <section class="flex min-h-0 min-w-0" aria-label="Contact sheet">
    <div class="flex min-h-0 min-w-0 flex-1 flex-col" :inert="oneByOne">
      <header class="flex items-center gap-3 border-b border-line bg-paper px-4 py-2">
        <h2 class="font-serif text-read font-medium">{{ source.record.title }}</h2>
        <span class="text-fine text-muted"
          >{{ counted(pdf.numPages, 'page') }}{{ takenAs.size ? ` · ${formatNumber(left)} not taken yet` : '' }}</span
        >
        <span class="text-fine text-muted">{{ formatNumber(sorting.left.value) }} left to look at</span>
        <KitSelect v-model="only" low class="ml-auto w-36" label="Which pages" :options="shows" />
        <KitButton @click="oneByOne = true">Page by page</KitButton>
        <KitButton look="quiet" @click="emit('close')">Close</KitButton>
      </header>
      <KitNotice v-if="error" tone="bad" class="m-4">{{ error }}</KitNotice>
      <div
        ref="list"
        class="grid min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(130px,1fr))] content-start gap-3 overflow-auto p-4"
        role="listbox"
        aria-multiselectable="true"
        aria-label="Pages"
        tabindex="0"
        @keydown="key"
      >
        <PageThumb
          v-for="page in pages"
          :key="page"
          :pdf="pdf"
          :page="page"
          :called="labelOf(page)"
          :chosen="chosen.has(page)"
          :taken="takenAs.get(page)"
          :state="sorting.states.value.get(page)"
          :senses="senses"
          :class="at === page && 'ring-2 ring-verdigris/50'"
          @choose="choose(page, $event)"
          @dblclick="emit('open', page)"
        />
      </div>
    </div>
    <OneByOne
      v-if="oneByOne"
      v-model:at="at"
      :pdf="pdf"
      :senses="senses"
      :sorting="sorting"
      :label-of="labelOf"
      :title="source.record.title ?? ''"
      @close="((oneByOne = false), list?.focus())"
    />
    <form
      v-if="session.may('edit')"
      :inert="oneByOne"
      class="flex w-72 shrink-0 flex-col gap-2 overflow-auto border-l border-line bg-card p-4"
      @submit.prevent="take"
    >
      <h3 class="font-medium">Take pages as a source</h3>
      <p class="text-fine text-muted">
        Choose pages by clicking, or with the arrows and the space bar; Shift extends. The document stays as it is, with
        the new source as its part.
      </p>
      <KitSelect v-model="draft.kind" above label="Kind" :options="kinds" />
      <KitField v-model="draft.title" above label="Title" maxlength="500" />
      <KitField v-model="draft.author" above label="Writer" placeholder="Penhallow, Ada" />
      <KitField v-if="draft.kind === 'personal_communication'" v-model="draft.recipient" above label="Recipient" />
      <KitField v-model="draft.issued" above label="Date" placeholder="18 Feb 1872" :error="dateError" />
      <p v-if="inherits" class="text-fine text-muted">From the whole: {{ inherits }}; its collections.</p>
      <KitButton look="main" type="submit" :disabled="!chosen.size || !draft.title.trim()"
        >Take {{ inWords || 'pages' }} as a source</KitButton
      >
    </form>
  </section>
</template>
