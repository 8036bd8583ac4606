<script setup lang="ts">
/** Read: the page in the middle, gloss in the left margin level with its mark, the source on the right. */
import { Minus, Plus } from '@lucide/vue';
import { useDebounceFn, useElementSize, useEventListener } from '@vueuse/core';
import { computed, nextTick, reactive, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { onPages, parseQuery, printQuery } from '@pandecta/core/query';
import { dateShort, namesShort, yearShort } from '@pandecta/core/source';
import { routes } from '@pandecta/contract';
import { addressOf } from '../api/client.ts';
import { useDeeds, type Deed } from '../act/commands.ts';
import EmptyState from '../kit/EmptyState.vue';
import { useBeside } from '../kit/floating.ts';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitTabs from '../kit/KitTabs.vue';
import { useSession } from '../session/store.ts';
import { useAsk } from '../sources/index.ts';
import { chooseWord, type Arrow } from './caret.ts';
import { FILL } from './colours.ts';
import { useDocument } from './document.ts';
import GlossColumn from './GlossColumn.vue';
import PageStrip from './PageStrip.vue';
import PdfPage from './PdfPage.vue';
import PicturePage from './PicturePage.vue';
import SnapshotPage from './SnapshotPage.vue';
import SourceBeside from './SourceBeside.vue';
import { readSelection, type Selected } from './selection.ts';
import { useTabs, type Tab } from './tabs.ts';
import { useWithin } from './within.ts';
import WithinBar from './WithinBar.vue';

const route = useRoute();
const router = useRouter();
const session = useSession();
const tabs = useTabs();
const ask = useAsk();
const doc = useDocument();
const { info, source, pdf, error } = doc;
const within = reactive(useWithin(() => info.value && { source: info.value.sourceId, file: info.value.fileId }));
const desk = ref<HTMLElement>();
const chooser = ref<HTMLElement>();
const withinBar = useTemplateRef<{ focus(): void }>('withinBar');
const { width: deskWidth } = useElementSize(desk);
const zoom = ref<number | null>(null);
const page = ref(1);
const active = ref<string | null>(null);
const chosen = ref<string>('');
const selected = ref<Selected | null>(null);
const sizes = reactive(new Map<number, { width: number; height: number }>());
const MARGIN = 250;

const firstSize = ref({ width: 482, height: 680 });
const sizeOf = (n: number): { width: number; height: number } => sizes.get(n) ?? firstSize.value;
const fit = computed(() => Math.max(0.4, Math.min(2, (deskWidth.value - MARGIN - 48) / firstSize.value.width)));
const scale = computed(() => zoom.value ?? Math.min(fit.value, 1.37));
const pages = computed(() => pdf.value?.numPages ?? 0);
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
const titleOf = computed(() => {
  const r = source.value?.record;
  return r
    ? [
        namesShort(r.author ?? r.editor) || r.title,
        r.type === 'personal_communication' ? dateShort(r.issued) : yearShort(r.issued),
      ]
        .filter(Boolean)
        .join(' ')
    : '';
});

watch(
  [() => route.params.source, () => route.params.file],
  async ([s, f]) => {
    if (route.name !== 'read') return;
    if (!s || !f) {
      if (tabs.current) await router.replace(`/read/${tabs.current.source}/${tabs.current.file}`);
      return;
    }
    sizes.clear();
    active.value = null;
    selected.value = null;
    if (!(await doc.open(String(s), String(f)))) return;
    const isHere = (): boolean => info.value?.fileId === f;
    const first = (await pdf.value?.getPage(1))?.getViewport({ scale: 1 });
    if (!isHere()) return;
    if (first) firstSize.value = { width: first.width, height: first.height };
    const tab = tabs.show({ source: String(s), file: String(f), title: titleOf.value });
    chosen.value ||= senses.value[0]?.id ?? '';
    // A question of the ask line brings its words along.
    within.words = printQuery(onPages(parseQuery(String(route.query.q ?? '')).tree));
    await nextTick();
    await within.search();
    if (!isHere()) return;
    const wanted = Number(route.query.page) || tab.page;
    const hit = within.hits.findIndex((h) => h.page === wanted);
    if (hit >= 0) toHit(hit);
    else go(wanted);
  },
  { immediate: true },
);

function go(n: number, y = 0): void {
  void nextTick(() => {
    const el = desk.value?.querySelector<HTMLElement>(`[data-page="${n}"]`);
    if (el && desk.value)
      desk.value.scrollTo({ top: el.parentElement!.offsetTop + Math.max(0, y * scale.value - (y ? 120 : 14)) });
  });
}
const onScroll = useDebounceFn(() => {
  if (!desk.value) return;
  const middle = desk.value.scrollTop + desk.value.clientHeight * 0.4;
  const found = [...desk.value.querySelectorAll<HTMLElement>('[data-page]')].findLast(
    (el) => el.parentElement!.offsetTop <= middle,
  );
  page.value = Number(found?.dataset.page ?? 1);
  const tab = tabs.open.find((t) => t.file === info.value?.fileId);
  if (tab) tab.page = page.value;
}, 60);

const toCurrent = (): void => void (within.current && go(within.current.page, within.current.rects[0]?.y0));
const searchNow = useDebounceFn(async () => {
  await within.search();
  toCurrent();
}, 120);
function step(by: number): void {
  within.step(by);
  toCurrent();
}
function toHit(at: number): void {
  within.at = at;
  toCurrent();
}

const look = (): void => void (selected.value = session.may('mark') ? (readSelection(scale.value) ?? null) : null);
useEventListener('mouseup', () => setTimeout(look));
async function mark(sense: string): Promise<void> {
  const what = selected.value ?? readSelection(scale.value);
  chosen.value = sense;
  if (!what) return;
  selected.value = null;
  const done = await doc.addMark(what, sense);
  getSelection()?.removeAllRanges();
  await doc.reload();
  if (done?.id) active.value = done.id;
}
function toMark(id: string): void {
  const m = info.value?.marks.find((x) => x.id === id);
  if (!m) return;
  active.value = id;
  go(m.page, m.rects[0]?.y0);
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
function setZoom(factor: number): void {
  const keep = page.value;
  zoom.value = Math.max(0.4, Math.min(4, scale.value * factor));
  go(keep);
}

/** Arrows to the side choose words; up and down go by lines once one is chosen, and scroll before. */
function choose(arrow: Arrow, extend: boolean): boolean {
  const upright = arrow === 'ArrowUp' || arrow === 'ArrowDown';
  if (!desk.value || (upright && !extend && getSelection()?.isCollapsed !== false)) return false;
  const word = chooseWord(desk.value, arrow, extend);
  word?.scrollIntoView({ block: 'nearest' });
  look();
  return Boolean(word);
}
function unchoose(): void {
  getSelection()?.removeAllRanges();
  selected.value = null;
}

const chooseBy: Deed = (event) => (event ? choose(event.key as Arrow, event.shiftKey) : false);
useDeeds({
  word: chooseBy,
  words: chooseBy,
  unchoose: () => unchoose(),
  mark: (event) => {
    const s = senses.value.find((x) => x.key === Number(event?.key));
    if (s) void mark(s.id);
  },
  'search-within': () => withinBar.value?.focus(),
  'next-hit': () => step(1),
  'previous-hit': () => step(-1),
  larger: () => setZoom(1.15),
  smaller: () => setZoom(1 / 1.15),
  'next-page': () => go(Math.min(pages.value, page.value + 1)),
  'previous-page': () => go(Math.max(1, page.value - 1)),
});

/** Under the last word chosen, or over the first where there is no room. */
const words = computed(() => selected.value && { getBoundingClientRect: () => selected.value?.at ?? new DOMRect() });
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
          ><KitButton to="/sources?include=file%3Dtext">Sources with full text</KitButton></template
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
      <div class="flex shrink-0 items-center gap-2 border-b border-line bg-paper px-4 py-[7px] text-body">
        <span v-if="shows !== 'pages'" class="text-muted">{{
          shows === 'snapshot' ? 'A saved web page' : 'A picture'
        }}</span>
        <template v-else-if="session.may('mark')">
          <span class="text-muted">Mark as</span>
          <KitButton
            v-for="s in senses"
            :key="s.id"
            class="!py-[3px]"
            :aria-pressed="chosen === s.id"
            :class="chosen === s.id && 'outline-2 outline-verdigris'"
            @mousedown.prevent
            @click="mark(s.id)"
          >
            <span
              class="inline-block h-[15px] w-[15px] rounded-[3px] text-center font-mono text-label font-semibold leading-[15px] text-[#1f262d]"
              :class="FILL[s.colour]"
              >{{ s.key }}</span>{{ s.name }}
          </KitButton>
        </template>
        <span v-if="info?.state === 'image only'" class="text-ochre"
          >These pages are pictures; their words cannot be selected or found.</span
        >
        <div v-if="shows !== 'picture'" class="ml-auto flex items-center gap-1.5">
          <WithinBar
            ref="withinBar"
            v-model="within.words"
            :found="within.hits.length"
            :total="within.total"
            :at="within.at"
            :error="within.error"
            @search="searchNow"
            @step="step"
          />
          <span v-if="shows === 'pages'" class="flex items-center gap-1.5">
            <span class="mx-1 h-5 border-l border-line" />
            <KitButton class="!px-1.5" name="Smaller" @click="setZoom(1 / 1.15)"><Minus :size="14" /></KitButton>
            <KitButton
              look="bare"
              class="w-12 text-center font-mono text-fine"
              title="Fit to the width"
              :aria-label="`Zoom ${Math.round(scale * 100)} %: fit to the width`"
              @click="zoom = null"
              >{{ Math.round(scale * 100) }} %</KitButton
            >
            <KitButton class="!px-1.5" name="Larger" @click="setZoom(1.15)"><Plus :size="14" /></KitButton>
          </span>
        </div>
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
        <div
          v-else
          ref="desk"
          class="relative min-w-0 flex-1 overflow-auto"
          tabindex="0"
          aria-label="Document"
          role="document"
          @scroll="onScroll"
        >
          <p v-if="!pdf" class="p-10 text-center text-muted" role="status">Opening the document…</p>
          <div
            v-for="n in pages"
            :key="`${info?.fileId} ${n}`"
            class="grid gap-3 px-3.5 pb-3.5 first:pt-3.5"
            :style="{ gridTemplateColumns: `${MARGIN - 28}px max-content` }"
          >
            <GlossColumn
              :marks="marksOn(n)"
              :senses="senses"
              :scale="scale"
              :page="n"
              :active="active"
              :may-mark="session.may('mark')"
              @activate="active = $event"
              @gloss="doc.gloss"
              @yield="doc.yieldGloss"
              @sense="doc.setSense"
              @remove="((active = null), doc.removeMark($event))"
            />
            <PdfPage
              :doc="pdf!"
              :number="n"
              :scale="scale"
              :size="sizeOf(n)"
              :marks="marksOn(n)"
              :senses="senses"
              :hits="within.hits.filter((h) => h.page === n)"
              :current-hit="within.current"
              :active="active"
              @sized="sizes.set(n, $event)"
              @mark="active = $event"
            />
          </div>
        </div>
        <SourceBeside
          v-if="source"
          :source="source"
          :document="info"
          v-bind="shows === 'pages' ? { page: { at: page, of: pages } } : {}"
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
        @go="go"
        @mark="toMark"
      />
    </template>
    <p class="sr-only" role="status">{{ selected ? `Chosen: ${selected.quote.exact}` : '' }}</p>
    <div
      v-if="selected"
      ref="chooser"
      class="z-40 flex gap-1 rounded-md border border-line bg-card p-1 shadow-lg"
      :style="chooserAt"
      role="toolbar"
      aria-label="Mark the selection"
    >
      <KitButton
        v-for="s in senses"
        :key="s.id"
        look="bare"
        class="rounded px-2 py-0.5 text-fine text-[#1f262d]"
        :class="FILL[s.colour]"
        @mousedown.prevent
        @click="mark(s.id)"
      >
        {{ s.key }} {{ s.name }}
      </KitButton>
    </div>
  </div>
</template>
