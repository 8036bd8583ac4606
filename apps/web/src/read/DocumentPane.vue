<script setup lang="ts">
/** A document: the page in the middle, gloss in the left margin level with its mark, the source on the right. */
import { computed, nextTick, reactive, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { onPages, parseQuery, printQuery } from '@pandecta/core/query';
import { routes } from '@pandecta/contract';
import { isFiltered, isShown, NO_FILTER, turned, turnRect, type MarkFilter, type Turn } from '@pandecta/core/marks';
import { dateShort, namesShort, withoutMarkup, yearShort } from '@pandecta/core/source';
import { addressOf } from '../api/client.ts';
import { useDeeds, type Deed } from '../act/commands.ts';
import { useCiting } from '../citing/store.ts';
import { useBeside } from '../kit/floating.ts';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import ProgressBar from '../kit/ProgressBar.vue';
import { useSession } from '../session/store.ts';
import { useDocument } from './document.ts';
import FlowPage from './flow/FlowPage.vue';
import CorrectionPanel from './correcting/CorrectionPanel.vue';
import { useMarking } from './marking.ts';
import { useMoving } from './moving.ts';
import { useNoteHere } from './noting.ts';
import type { Heading } from './OutlineTree.vue';
import PageMarks from './PageMarks.vue';
import PageStrip from './PageStrip.vue';
import PasswordForm from './PasswordForm.vue';
import PicturePage from './PicturePage.vue';
import ContactSheet from './sheet/ContactSheet.vue';
import PlainView from './plain/PlainView.vue';
import { usePrinting } from './print.ts';
import ReadBar from './ReadBar.vue';
import SenseChooser from './SenseChooser.vue';
import SourceBeside from './SourceBeside.vue';
import { useTabs } from './tabs.ts';
import type { Arrow } from './viewer/caret.ts';
import type { PlacedPage } from './viewer/pages.ts';
import PdfViewer from './viewer/PdfViewer.vue';
import { useWithin } from './within.ts';

const props = defineProps<{
  source: string;
  file: string;
  /** The page, the mark and the question one comes for. */
  page?: number | undefined;
  mark?: string | undefined;
  question?: string | undefined;
  /** Whether another stands beside it, which leaves less room. */
  narrow?: boolean;
  /** Whether it stands here a second time: the place of the first is kept. */
  again?: boolean;
  /** Whether it is the one keys are for. */
  used: boolean;
}>();
const emit = defineEmits<{ opened: [title: string] }>();
const session = useSession();
const citing = useCiting();
const tabs = useTabs();
const doc = useDocument();
const { info, source: detail, pdf, error, locked, labelOf } = doc;
const within = reactive(useWithin(() => info.value && { source: info.value.sourceId, file: info.value.fileId }));
/** Whichever of them is shown. */
interface Viewer {
  go(page: number, y?: number): void;
  follow?(dest: string | unknown[]): Promise<void>;
  scale: number;
  placed: PlacedPage[];
  element: HTMLElement | undefined;
}
const pdfViewer = useTemplateRef<Viewer>('viewer');
const flow = useTemplateRef<Viewer & { topOf(mark: string): number | undefined }>('flow');
const viewer = computed(() => flow.value ?? pdfViewer.value);
const bar = useTemplateRef<InstanceType<typeof ReadBar>>('bar');
const chooser = ref<HTMLElement>();
const zoom = ref<number | null>(null);
const turn = ref<Turn>(0);
const at = ref(1);
const active = ref<string | null>(null);
const outline = shallowRef<Heading[]>([]);
/** Where one is to begin, until the pages stand there. */
const wanted = ref<number | null>(null);
const plain = ref(false);
const correcting = ref(false);
const sheet = ref(false);
/** The mark one came for. */
let wantedMark = '';
/** In pixels, for the glosses; there is no room for them beside the lines that are corrected. */
const margin = computed(() => (correcting.value ? 24 : props.narrow ? 180 : 250));

/** Pixels a point; the places of a text that flows are pixels. */
const scale = computed(() => (shows.value === 'flow' ? 1 : (viewer.value?.scale ?? 1)));
/** As large as it is shown, which of a text that flows is the size of its letters. */
const magnified = computed(() => (shows.value === 'flow' ? (zoom.value ?? 1) : scale.value));
const sizeOf = (n: number): PlacedPage['size'] => viewer.value?.placed[n - 1]?.size ?? { width: 482, height: 680 };
const pages = computed(() => pdf.value?.numPages ?? 0);
const marking = reactive(
  useMarking(
    doc,
    () => ({
      scale: scale.value,
      turn: turn.value,
      sizeOf,
      element: viewer.value?.element,
      flows: shows.value === 'flow',
      pictured: shows.value === 'picture',
    }),
    active,
    () => props.used,
  ),
);
/** Pages with their words, a text that flows, or a picture. */
const shows = computed(() =>
  /html/.test(info.value?.mediaType ?? '') ? 'flow' : /^image/.test(info.value?.mediaType ?? '') ? 'picture' : 'pages',
);
const senses = computed(() => info.value?.senses ?? []);
/** Which marks are shown, and those that are. */
const filter = ref<MarkFilter>(NO_FILTER);
const shown = computed(() => doc.marks.value.filter((m) => m.id === active.value || isShown(m, filter.value)));
const marksOn = (n: number) => shown.value.filter((m) => m.page === n && !m.unplaced);
/** Author, title and year. */
const titleOf = computed(() => {
  const r = detail.value?.record;
  if (!r) return '';
  const year = r.type === 'personal_communication' ? dateShort(r.issued) : yearShort(r.issued);
  const names = namesShort(r.author ?? r.editor);
  const who = [names, year].filter(Boolean).join(' ');
  const title = withoutMarkup(r.title ?? '');
  return names ? [who, title].filter(Boolean).join(': ') : [title, year].filter(Boolean).join(' ');
});

watch(
  () => [props.source, props.file] as const,
  async ([s, f]) => {
    active.value = null;
    marking.selected = null;
    outline.value = [];
    filter.value = NO_FILTER;
    const known = tabs.placeOf(f);
    wanted.value = props.page || known?.page || 1;
    wantedMark = props.mark ?? '';
    zoom.value = known?.zoom ?? null;
    turn.value = known?.turn ?? 0;
    if (!(await doc.open(s, f))) return;
    const isHere = (): boolean => info.value?.fileId === f;
    emit('opened', titleOf.value);
    marking.sense ||= marking.offered[0]?.id ?? '';
    void pdf.value?.getOutline().then((found) => isHere() && (outline.value = (found ?? []) as Heading[]));
    // A question of the ask line brings its words along.
    within.words = printQuery(onPages(parseQuery(props.question ?? '').tree));
    await nextTick();
    await within.search();
    if (isHere() && wanted.value === null) arrive(props.page || at.value);
  },
  { immediate: true },
);
/** At a hit on the page, where there is one. */
function arrive(number: number): void {
  const hit = within.hits.findIndex((h) => h.page === number);
  if (hit >= 0) toHit(hit);
  else go(number);
}
function ready(): void {
  if (wanted.value === null) return;
  const number = wanted.value;
  wanted.value = null;
  const mark = wantedMark;
  wantedMark = '';
  if (info.value?.marks.some((m) => m.id === mark)) toMark(mark);
  else arrive(number);
}
function onPage(n: number): void {
  at.value = n;
  if (wanted.value === null) keepPlace();
}
function keepPlace(): void {
  const { value: open } = info;
  if (open && !props.again) tabs.keep({ file: open.fileId, page: at.value, zoom: zoom.value, turn: turn.value });
}
// The pages stand anew where the text was shown before.
watch([plain, sheet], ([a, b]) => void (!a && !b && (wanted.value ??= at.value)), { flush: 'sync' });
watch([zoom, turn], keepPlace);

const { go, toPlace, searchNow, step, toHit } = useMoving(within, {
  go: (n, y) => viewer.value?.go(n, y),
  topOf: (n, rect) => turnRect(rect, sizeOf(n), turn.value).y0 * scale.value,
});
function toMark(id: string): void {
  const m = info.value?.marks.find((x) => x.id === id);
  if (!m) return;
  active.value = id;
  // Its gloss stands beside the page.
  if (plain.value) {
    wanted.value = m.page;
    plain.value = false;
    return;
  }
  if (m.unplaced) return;
  if (flow.value) go(1, flow.value.topOf(id));
  else toPlace(m.page, m.rects[0]);
}
/** The mark that is chosen in the list and waits for a place. */
const unplacedChosen = computed(() => doc.marks.value.find((m) => m.id === active.value && m.unplaced));
function copyMark(id: string): void {
  const m = info.value?.marks.find((x) => x.id === id);
  if (m) void citing.copyQuote(m.quote.exact, m.sourceId, m.cited);
}

/** The page one is at stays in sight. */
function show(how: { factor?: number; by?: 90 | -90 }): void {
  const number = at.value;
  if (how.factor) zoom.value = Math.max(0.4, Math.min(4, magnified.value * how.factor));
  if (how.by) turn.value = turned(turn.value, how.by);
  go(number);
}
function fit(): void {
  const number = at.value;
  zoom.value = null;
  go(number);
}
const printing = usePrinting(pdf);

const noteHere = useNoteHere(doc, marking, active, () => at.value, () => viewer.value?.element); // prettier-ignore
const chooseBy: Deed = (event) => (event ? marking.choose(event.key as Arrow, event.shiftKey) : false);
useDeeds(
  {
    word: chooseBy,
    words: chooseBy,
    unchoose: () => marking.unchoose(),
    mark: (event) => {
      const s = marking.offered.find((x) => x.key === Number(event?.key));
      if (s) void marking.mark(s.id);
    },
    note: noteHere,
    'copy-quote': () => (marking.selected ? void marking.copyQuote() : false),
    'search-within': () => bar.value?.focusSearch(),
    'go-to-page': () => bar.value?.focusPage(),
    'next-hit': () => step(1),
    'previous-hit': () => step(-1),
    larger: () => show({ factor: 1.15 }),
    smaller: () => show({ factor: 1 / 1.15 }),
    turn: () => show({ by: 90 }),
    'next-page': () => go(Math.min(pages.value, at.value + 1)),
    'previous-page': () => go(Math.max(1, at.value - 1)),
  },
  () => props.used,
);

const pageMarks = computed(() => ({
  turn: turn.value,
  senses: senses.value,
  currentHit: within.current,
  active: active.value,
  draws: marking.draws,
  margin: margin.value,
  mayMark: session.may('mark'),
}));
const ofMarks = {
  activate: (id: string | null) => (active.value = id),
  gloss: doc.gloss,
  yield: doc.yieldGloss,
  edit: doc.editMark,
  share: doc.shareMark,
  copy: copyMark,
  remove: (id: string) => ((active.value = null), void doc.removeMark(id)),
  draw: marking.draw,
};

/** Under the last word chosen, or over the first where there is no room. */
const words = computed(
  () => marking.selected && { getBoundingClientRect: () => marking.selected?.at ?? new DOMRect() },
);
const chooserAt = useBeside(words, chooser);
</script>

<template>
  <div class="flex h-full flex-col bg-desk">
    <div v-if="error" class="grid flex-1 place-items-center text-center">
      <div>
        <KitNotice tone="bad">{{ error }}</KitNotice>
        <a
          class="mt-3 inline-block text-verdigris underline underline-offset-2"
          :href="addressOf(routes.files.content, { file })"
          download
          >Download the file</a
        >
      </div>
    </div>
    <PasswordForm
      v-else-if="locked"
      :is-wrong="locked.isWrong"
      @open="(password, keep) => locked?.open(password, keep)"
    />
    <template v-else>
      <ReadBar
        ref="bar"
        v-model:sense="marking.sense"
        v-model:shape="marking.shape"
        v-model:personal="marking.personal"
        v-model:words="within.words"
        v-model:plain="plain"
        v-model:correcting="correcting"
        v-model:sheet="sheet"
        v-model:filter="filter"
        :narrow="narrow"
        :shows="shows"
        :document="info"
        :offered="marking.offered"
        :within="within"
        :page="at"
        :pages="pages"
        :numbers="doc.numbers.value"
        :label-of="labelOf"
        :scale="magnified"
        :outline="outline"
        @mark="marking.mark"
        @search="searchNow"
        @step="step"
        @go="go"
        @follow="viewer?.follow?.($event)"
        @number="doc.numberPage(at, $event)"
        @zoom="show({ factor: $event })"
        @fit="fit"
        @turn="show({ by: $event })"
        @print="printing.print"
      />
      <div v-if="printing.of.value" class="flex items-center gap-3 border-b border-line bg-paper px-4 py-1.5 text-fine">
        <span class="whitespace-nowrap" role="status"
          >Preparing page {{ printing.done.value }} of {{ printing.of.value }} for printing</span
        >
        <ProgressBar label="Preparing the pages for printing" :value="printing.done.value" :max="printing.of.value" />
        <KitButton look="quiet" @click="printing.stop">Cancel</KitButton>
      </div>
      <div class="flex min-h-0 flex-1">
        <FlowPage
          v-if="shows === 'flow'"
          ref="flow"
          v-slot="{ page: p, marks: placed }"
          class="min-w-0 flex-1"
          :address="addressOf(routes.files.content, { file: info!.fileId })"
          :name="info!.name"
          :marks="marksOn(1)"
          :words="within.lit"
          :hit-at="within.at"
          :zoom="zoom"
          :margin="margin"
          @ready="ready"
        >
          <PageMarks v-bind="pageMarks" :page="p" :scale="1" :marks="placed" :hits="[]" v-on="ofMarks" />
        </FlowPage>
        <PicturePage
          v-else-if="shows === 'picture'"
          ref="viewer"
          v-slot="{ page: p, scale: s }"
          class="min-w-0 flex-1"
          :address="addressOf(routes.files.content, { file: info!.fileId })"
          :name="info!.name"
          :zoom="zoom"
          :margin="margin"
          @ready="ready"
        >
          <PageMarks v-bind="pageMarks" :page="p" :scale="s" :marks="marksOn(1)" :hits="[]" v-on="ofMarks" />
        </PicturePage>
        <ContactSheet
          v-else-if="sheet && pdf && detail && info"
          class="flex-1"
          :source="detail"
          :file="info.fileId"
          :pdf="pdf"
          :label-of="labelOf"
          :senses="senses"
          @close="sheet = false"
          @open="((wanted = $event), (sheet = false))"
        />
        <PlainView
          v-else-if="plain && info"
          class="min-w-0 flex-1"
          :source="info.sourceId"
          :file="info.fileId"
          :pages="pages"
          :page="at"
          :marks="shown"
          :senses="senses"
          @page="onPage"
          @mark="toMark"
          @selected="marking.choosePlain"
        />
        <PdfViewer
          v-else
          ref="viewer"
          v-slot="{ page: p }"
          class="min-w-0 flex-1"
          :pdf="pdf"
          :zoom="zoom"
          :turn="turn"
          :margin="margin"
          :label-of="labelOf"
          @page="onPage"
          @ready="ready"
        >
          <PageMarks
            v-bind="pageMarks"
            :page="p"
            :scale="scale"
            :marks="marksOn(p.number)"
            :hits="within.hits.filter((h) => h.page === p.number)"
            v-on="ofMarks"
          />
        </PdfViewer>
        <CorrectionPanel
          v-if="correcting && info && shows === 'pages'"
          class="w-1/2 min-w-80"
          :source="info.sourceId"
          :file="info.fileId"
          :page="at"
          :called="labelOf(at)"
          :pdf="pdf"
          :may-edit="session.may('edit')"
          @close="correcting = false"
          @page="go(Math.max(1, Math.min(pages, at + $event)))"
        />
        <SourceBeside
          v-else-if="detail && !sheet && !narrow"
          :source="detail"
          :document="info"
          v-bind="shows === 'pages' ? { page: { at, of: pages, called: labelOf(at) } } : {}"
          :hits="within.hits"
          :hit-at="within.at"
          :marks="shown"
          :filtered="isFiltered(filter)"
          :active="active"
          @hit="toHit"
          @mark="toMark"
          @read-annotations="doc.readAnnotations"
        />
      </div>
      <PageStrip
        v-if="pages"
        :pages="pages"
        :page="at"
        :marks="shown.filter((m) => !m.unplaced)"
        :senses="senses"
        :hits="within.hits"
        :heights="(n) => sizeOf(n).height"
        :label-of="labelOf"
        @go="go"
        @mark="toMark"
      />
    </template>
    <p class="sr-only" role="status">{{ marking.selected ? `Chosen: ${marking.selected.quote.exact}` : '' }}</p>
    <div
      v-if="marking.selected && session.may('own')"
      ref="chooser"
      class="z-40 rounded-md border border-line bg-card p-1 shadow-lg"
      :style="chooserAt"
      role="toolbar"
      aria-label="Mark the selection"
    >
      <SenseChooser :senses="marking.offered" @choose="marking.mark" />
      <KitButton
        v-if="unplacedChosen"
        look="quiet"
        class="text-fine font-semibold"
        @mousedown.prevent
        @click="marking.place(unplacedChosen.id)"
        >Place the mark here</KitButton
      >
      <KitButton look="quiet" class="text-fine" @mousedown.prevent @click="marking.copyQuote"
        >Copy with citation</KitButton
      >
    </div>
  </div>
</template>
