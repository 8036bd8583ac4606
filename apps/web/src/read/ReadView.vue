<script setup lang="ts">
/** Read: the page in the middle, gloss in the left margin level with its mark, the source on the right. */
import { computed, nextTick, reactive, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { onPages, parseQuery, printQuery } from '@pandecta/core/query';
import { routes } from '@pandecta/contract';
import { turned, turnRect, type Turn } from '@pandecta/core/marks';
import { dateShort, namesShort, withoutMarkup, yearShort } from '@pandecta/core/source';
import { addressOf } from '../api/client.ts';
import { useDeeds, type Deed } from '../act/commands.ts';
import { useCiting } from '../citing/store.ts';
import EmptyState from '../kit/EmptyState.vue';
import { useBeside } from '../kit/floating.ts';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitTabs from '../kit/KitTabs.vue';
import ProgressBar from '../kit/ProgressBar.vue';
import { useSession } from '../session/store.ts';
import { useAsk } from '../sources/index.ts';
import { useDocument } from './document.ts';
import GlossColumn from './GlossColumn.vue';
import CorrectionPanel from './correcting/CorrectionPanel.vue';
import { useMarking } from './marking.ts';
import { useMoving } from './moving.ts';
import type { Heading } from './OutlineTree.vue';
import PageStrip from './PageStrip.vue';
import PicturePage from './PicturePage.vue';
import ContactSheet from './sheet/ContactSheet.vue';
import PlainView from './plain/PlainView.vue';
import { usePrinting } from './print.ts';
import ReadBar from './ReadBar.vue';
import SenseChooser from './SenseChooser.vue';
import SnapshotPage from './SnapshotPage.vue';
import SourceBeside from './SourceBeside.vue';
import { useTabs, type Tab } from './tabs.ts';
import type { Arrow } from './viewer/caret.ts';
import MarkLayer from './viewer/MarkLayer.vue';
import type { PlacedPage } from './viewer/pages.ts';
import PdfViewer from './viewer/PdfViewer.vue';
import { useWithin } from './within.ts';

const route = useRoute();
const router = useRouter();
const session = useSession();
const citing = useCiting();
const tabs = useTabs();
const ask = useAsk();
const doc = useDocument();
const { info, source, pdf, error, labelOf } = doc;
const within = reactive(useWithin(() => info.value && { source: info.value.sourceId, file: info.value.fileId }));
const viewer = useTemplateRef<InstanceType<typeof PdfViewer>>('viewer');
const bar = useTemplateRef<InstanceType<typeof ReadBar>>('bar');
const chooser = ref<HTMLElement>();
const zoom = ref<number | null>(null);
const turn = ref<Turn>(0);
const page = ref(1);
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
const margin = computed(() => (correcting.value ? 24 : 250));

const scale = computed(() => viewer.value?.scale ?? 1);
const sizeOf = (n: number): PlacedPage['size'] => viewer.value?.placed[n - 1]?.size ?? { width: 482, height: 680 };
const pages = computed(() => pdf.value?.numPages ?? 0);
const marking = reactive(
  useMarking(doc, () => ({ scale: scale.value, turn: turn.value, sizeOf, element: viewer.value?.element }), active),
);
/** Pages with their words, a page of the web, or a picture: only the first have marks. */
const shows = computed(() =>
  /html/.test(info.value?.mediaType ?? '')
    ? 'snapshot'
    : /^image/.test(info.value?.mediaType ?? '')
      ? 'picture'
      : 'pages',
);
const senses = computed(() => info.value?.senses ?? []);
const marksOn = (n: number) => doc.marks.value.filter((m) => m.page === n);
/** As they stand on the page as it is turned: what is beside it is level with them. */
const shownMarks = ({ number, size }: PlacedPage) =>
  marksOn(number).map((m) => ({ ...m, rects: m.rects.map((r) => turnRect(r, size, turn.value)) }));
/** Author, title and year. */
const titleOf = computed(() => {
  const r = source.value?.record;
  if (!r) return '';
  const year = r.type === 'personal_communication' ? dateShort(r.issued) : yearShort(r.issued);
  const names = namesShort(r.author ?? r.editor);
  const who = [names, year].filter(Boolean).join(' ');
  const title = withoutMarkup(r.title ?? '');
  return names ? [who, title].filter(Boolean).join(': ') : [title, year].filter(Boolean).join(' ');
});

watch(
  [() => route.params.source, () => route.params.file],
  async ([s, f]) => {
    if (route.name !== 'read') return;
    if (!s || !f) {
      if (tabs.current) await router.replace(`/read/${tabs.current.source}/${tabs.current.file}`);
      return;
    }
    active.value = null;
    marking.selected = null;
    outline.value = [];
    const known = tabs.open.find((t) => t.file === f);
    wanted.value = Number(route.query.page) || known?.page || 1;
    wantedMark = String(route.query.mark ?? '');
    zoom.value = known?.zoom ?? null;
    turn.value = known?.turn ?? 0;
    if (!(await doc.open(String(s), String(f)))) return;
    const isHere = (): boolean => info.value?.fileId === f;
    tabs.show({ source: String(s), file: String(f), title: titleOf.value });
    marking.sense ||= marking.offered[0]?.id ?? '';
    void pdf.value?.getOutline().then((found) => isHere() && (outline.value = (found ?? []) as Heading[]));
    // A question of the ask line brings its words along.
    within.words = printQuery(onPages(parseQuery(String(route.query.q ?? '')).tree));
    await nextTick();
    await within.search();
    if (isHere() && wanted.value === null) arrive(Number(route.query.page) || page.value);
  },
  { immediate: true },
);
/** At a hit on the page, where there is one. */
function arrive(at: number): void {
  const hit = within.hits.findIndex((h) => h.page === at);
  if (hit >= 0) toHit(hit);
  else go(at);
}
function ready(): void {
  if (wanted.value === null) return;
  const at = wanted.value;
  wanted.value = null;
  const mark = wantedMark;
  wantedMark = '';
  if (info.value?.marks.some((m) => m.id === mark)) toMark(mark);
  else arrive(at);
}
function onPage(n: number): void {
  page.value = n;
  const tab = tabs.open.find((t) => t.file === info.value?.fileId);
  if (tab && wanted.value === null) tab.page = n;
}
// The pages stand anew where the text was shown before.
watch([plain, sheet], ([a, b]) => void (!a && !b && (wanted.value ??= page.value)), { flush: 'sync' });
watch([zoom, turn], () => {
  const tab = tabs.open.find((t) => t.file === info.value?.fileId);
  if (tab) Object.assign(tab, { zoom: zoom.value, turn: turn.value });
});

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
  toPlace(m.page, m.rects[0]);
}
function copyMark(id: string): void {
  const m = info.value?.marks.find((x) => x.id === id);
  if (m) void citing.copyQuote(m.quote.exact, m.sourceId, m.cited);
}

const tabEntries = computed(() =>
  tabs.open.map((tab) => ({
    key: tab.file,
    name: tab.title || 'Document',
    to: `/read/${tab.source}/${tab.file}`,
    tab,
  })),
);
async function closeTab(tab: Tab): Promise<void> {
  const next = tabs.close(tab.file);
  if (tab.file === info.value?.fileId || !next)
    await router.push(next ? `/read/${next.source}/${next.file}` : ask.address);
}
/** The page one is at stays in sight. */
function show(how: { factor?: number; by?: 90 | -90 }): void {
  const at = page.value;
  if (how.factor) zoom.value = Math.max(0.4, Math.min(4, scale.value * how.factor));
  if (how.by) turn.value = turned(turn.value, how.by);
  go(at);
}
function fit(): void {
  const at = page.value;
  zoom.value = null;
  go(at);
}
const printing = usePrinting(pdf);

const chooseBy: Deed = (event) => (event ? marking.choose(event.key as Arrow, event.shiftKey) : false);
useDeeds({
  word: chooseBy,
  words: chooseBy,
  unchoose: () => marking.unchoose(),
  mark: (event) => {
    const s = marking.offered.find((x) => x.key === Number(event?.key));
    if (s) void marking.mark(s.id);
  },
  'copy-quote': () => (marking.selected ? void marking.copyQuote() : false),
  'search-within': () => bar.value?.focusSearch(),
  'go-to-page': () => bar.value?.focusPage(),
  'next-hit': () => step(1),
  'previous-hit': () => step(-1),
  larger: () => show({ factor: 1.15 }),
  smaller: () => show({ factor: 1 / 1.15 }),
  turn: () => show({ by: 90 }),
  'next-page': () => go(Math.min(pages.value, page.value + 1)),
  'previous-page': () => go(Math.max(1, page.value - 1)),
});

/** Under the last word chosen, or over the first where there is no room. */
const words = computed(
  () => marking.selected && { getBoundingClientRect: () => marking.selected?.at ?? new DOMRect() },
);
const chooserAt = useBeside(words, chooser);
</script>

<template>
  <div class="flex h-full flex-col bg-desk">
    <h1 class="sr-only">Read</h1>
    <KitTabs
      v-if="tabs.open.length"
      label="Open documents"
      :tabs="tabEntries"
      :current="info?.fileId"
      @close="closeTab($event.tab)"
    />
    <div v-if="!route.params.file && !tabs.open.length" class="grid flex-1 place-items-center">
      <EmptyState title="No document is open"
        >Choose a source with a file and press Enter, or “Read” on its slip.<template #deeds
          ><KitButton to="/sources?include=file%3Dtext">Sources with full text</KitButton
          ><KitButton to="/read/marks">Marks across sources</KitButton></template
        ></EmptyState
      >
    </div>
    <div v-else-if="error" class="grid flex-1 place-items-center text-center">
      <div>
        <KitNotice tone="bad">{{ error }}</KitNotice>
        <a
          v-if="route.params.file"
          class="mt-3 inline-block text-verdigris underline underline-offset-2"
          :href="addressOf(routes.files.content, { file: String(route.params.file) })"
          download
          >Download the file</a
        >
      </div>
    </div>
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
        :shows="shows"
        :document="info"
        :offered="marking.offered"
        :within="within"
        :page="page"
        :pages="pages"
        :numbers="doc.numbers.value"
        :label-of="labelOf"
        :scale="scale"
        :outline="outline"
        @mark="marking.mark"
        @search="searchNow"
        @step="step"
        @go="go"
        @follow="viewer?.follow($event)"
        @number="doc.numberPage(page, $event)"
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
        <SnapshotPage
          v-if="shows === 'snapshot'"
          class="min-w-0 flex-1"
          :address="addressOf(routes.files.content, { file: info!.fileId })"
          :name="info!.name"
          :words="within.lit"
          :hit-at="within.at"
        />
        <PicturePage
          v-else-if="shows === 'picture'"
          class="min-w-0 flex-1"
          :address="addressOf(routes.files.content, { file: info!.fileId })"
          :name="info!.name"
        />
        <ContactSheet
          v-else-if="sheet && pdf && source && info"
          class="flex-1"
          :source="source"
          :file="info.fileId"
          :pdf="pdf"
          :label-of="labelOf"
          @close="sheet = false"
          @open="((wanted = $event), (sheet = false))"
        />
        <PlainView
          v-else-if="plain && info"
          class="min-w-0 flex-1"
          :source="info.sourceId"
          :file="info.fileId"
          :pages="pages"
          :page="page"
          :marks="doc.marks.value"
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
          <GlossColumn
            v-if="!correcting"
            class="pointer-events-auto !absolute"
            :style="{ left: `${14 - margin}px`, width: `${margin - 28}px` }"
            :marks="shownMarks(p)"
            :senses="senses"
            :scale="scale"
            :page="p.number"
            :active="active"
            :may-mark="session.may('mark')"
            @activate="active = $event"
            @gloss="doc.gloss"
            @yield="doc.yieldGloss"
            @edit="doc.editMark"
            @share="doc.shareMark"
            @copy="copyMark"
            @remove="((active = null), doc.removeMark($event))"
          />
          <MarkLayer
            :scale="scale"
            :size="p.size"
            :turn="turn"
            :marks="marksOn(p.number)"
            :senses="senses"
            :hits="within.hits.filter((h) => h.page === p.number)"
            :current-hit="within.current"
            :active="active"
            :draws="marking.draws"
            @mark="active = $event"
            @draw="marking.draw(p.number, $event)"
          />
        </PdfViewer>
        <CorrectionPanel
          v-if="correcting && info && shows === 'pages'"
          class="w-1/2 min-w-80"
          :source="info.sourceId"
          :file="info.fileId"
          :page="page"
          :called="labelOf(page)"
          :pdf="pdf"
          :may-edit="session.may('edit')"
          @close="correcting = false"
          @page="go(Math.max(1, Math.min(pages, page + $event)))"
        />
        <SourceBeside
          v-else-if="source && !sheet"
          :source="source"
          :document="info"
          v-bind="shows === 'pages' ? { page: { at: page, of: pages, called: labelOf(page) } } : {}"
          :hits="within.hits"
          :hit-at="within.at"
          @hit="toHit"
        />
      </div>
      <PageStrip
        v-if="pages"
        :pages="pages"
        :page="page"
        :marks="info?.marks ?? []"
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
      <KitButton look="quiet" class="text-fine" @mousedown.prevent @click="marking.copyQuote"
        >Copy with citation</KitButton
      >
    </div>
  </div>
</template>
