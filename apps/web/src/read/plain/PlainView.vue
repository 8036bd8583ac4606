<script setup lang="ts">
/** The text of a document set anew for reading: in a face, size and tint of one's own, with its marks; read aloud too. */
import '@fontsource/atkinson-hyperlegible/400.css';
import '@fontsource/atkinson-hyperlegible/700.css';
import { Volume2, VolumeX } from '@lucide/vue';
import { useDebounceFn, useEventListener, useIntersectionObserver } from '@vueuse/core';
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { MOST_PLAIN_PAGES, routes, type Mark, type PlainPage } from '@pandecta/contract';
import { quoteAt, type Quote, type Sense } from '@pandecta/core/marks';
import { placeWritten } from '@pandecta/core/page-numbers';
import { ask } from '../../api/client.ts';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { FILL } from '../colours.ts';
import { useAloud } from './aloud.ts';
import { partsOf, type Part } from './parts.ts';
import { FACES, TINTS, useSetting } from './setting.ts';

const props = defineProps<{
  source: string;
  file: string;
  pages: number;
  /** Where one begins. */
  page: number;
  marks: Mark[];
  senses: Sense[];
}>();
const emit = defineEmits<{
  page: [page: number];
  mark: [id: string];
  selected: [what: { page: number; quote: Quote; at: DOMRect } | null];
}>();
const setting = useSetting();
const aloud = useAloud();
const { canSpeak, spoken } = aloud;
const shown = shallowRef<PlainPage[]>([]);
const error = ref('');
const isLoading = ref(false);
const area = ref<HTMLElement>();
const tail = ref<HTMLElement>();
/** Of all paragraphs in a row, the one that is read, where they come one at a time. */
const at = ref(0);

interface Shown {
  key: string;
  page: number;
  cited: string;
  kind: string;
  text: string;
  isFirst: boolean;
}
const paragraphs = computed(() =>
  shown.value.flatMap(({ page, cited, paragraphs: of }) =>
    of.map((p, i): Shown => ({ ...p, key: `${page} ${i}`, page, cited, isFirst: i === 0 })),
  ),
);
const visible = computed(() =>
  setting.value.single ? paragraphs.value.slice(at.value, at.value + 1) : paragraphs.value,
);
const last = computed(() => shown.value.at(-1)?.page ?? props.page - 1);

let turn = 0;
async function load(from: number): Promise<void> {
  if (isLoading.value || from > props.pages) return;
  const mine = turn;
  isLoading.value = true;
  try {
    const count = Math.min(MOST_PLAIN_PAGES, props.pages - from + 1);
    const { pages } = await ask(routes.files.plain, { source: props.source, file: props.file, query: { from, count } });
    if (mine === turn) shown.value = [...shown.value, ...pages];
  } catch (cause) {
    if (mine === turn) error.value = (cause as Error).message;
  } finally {
    if (mine === turn) isLoading.value = false;
  }
}
async function begin(from: number): Promise<void> {
  turn += 1;
  isLoading.value = false;
  shown.value = [];
  error.value = '';
  at.value = 0;
  aloud.stop();
  await load(from);
  area.value?.scrollTo({ top: 0 });
}
watch([() => props.file, () => props.pages], () => void begin(props.page), { immediate: true });
useIntersectionObserver(
  tail,
  ([entry]) => entry?.isIntersecting && !error.value && shown.value.length && void load(last.value + 1),
  {
    root: area,
    rootMargin: '600px',
  },
);

function step(by: 1 | -1): void {
  const next = at.value + by;
  if (next >= 0 && next < paragraphs.value.length) at.value = next;
  if (next > paragraphs.value.length - 5) void load(last.value + 1);
  const now = paragraphs.value[at.value];
  if (now) emit('page', now.page);
}
function* from(first: number): Generator<{ key: string; text: string }> {
  for (let i = first; i < paragraphs.value.length; i += 1) {
    if (i > paragraphs.value.length - 5) void load(last.value + 1);
    if (setting.value.single) at.value = i;
    yield paragraphs.value[i]!;
  }
}
function read(): void {
  if (spoken.value) return aloud.stop();
  const top = area.value?.getBoundingClientRect().top ?? 0;
  const seen = [...(area.value?.querySelectorAll<HTMLElement>('[data-paragraph]') ?? [])];
  const first = seen.find((el) => el.getBoundingClientRect().bottom > top + 4)?.dataset.paragraph;
  const begun = paragraphs.value.findIndex((p) => p.key === first);
  aloud.speak(from(setting.value.single ? at.value : Math.max(0, begun)));
}
watch(spoken, async (now) => {
  await nextTick();
  if (now) area.value?.querySelector(`[data-paragraph="${now.key}"]`)?.scrollIntoView({ block: 'nearest' });
});

/** The page at the top of what is seen. */
function follow(): void {
  const top = area.value?.getBoundingClientRect().top ?? 0;
  const seen = [...(area.value?.querySelectorAll<HTMLElement>('[data-paragraph]') ?? [])];
  const first = seen.find((el) => el.getBoundingClientRect().bottom > top + 40);
  if (first) emit('page', Number(first.dataset.paragraph!.split(' ')[0]));
}

/** What is selected within one paragraph. */
function look(): void {
  const selection = getSelection();
  const range = selection && !selection.isCollapsed && selection.rangeCount ? selection.getRangeAt(0) : undefined;
  const node = range?.startContainer;
  const around = node instanceof HTMLElement ? node : node?.parentElement;
  const element = around?.closest<HTMLElement>('[data-paragraph]');
  const paragraph = paragraphs.value.find((p) => p.key === element?.dataset.paragraph);
  if (!range || !element || !paragraph || !area.value?.contains(element)) return emit('selected', null);
  const before = range.cloneRange();
  before.setStart(element, 0);
  before.setEnd(range.startContainer, range.startOffset);
  const cut = range.cloneRange();
  if (!element.contains(range.endContainer)) cut.setEnd(element, element.childNodes.length);
  const start = before.toString().length;
  const end = start + cut.toString().length;
  if (paragraph.text.slice(start, end).trim())
    emit('selected', {
      page: paragraph.page,
      quote: quoteAt(paragraph.text, start, end),
      at: range.getBoundingClientRect(),
    });
}
useEventListener(document, 'selectionchange', useDebounceFn(look, 120));

const guide = ref(0);
const moveGuide = (event: PointerEvent): void =>
  void (guide.value = event.clientY - (area.value?.getBoundingClientRect().top ?? 0));
const style = computed(() => ({
  fontFamily: FACES[setting.value.face].family,
  fontSize: `${setting.value.size}px`,
  lineHeight: String(setting.value.leading),
  letterSpacing: `${setting.value.spacing / 100}em`,
  wordSpacing: `${setting.value.spacing / 40}em`,
  maxWidth: `${setting.value.width}ch`,
}));
const faces = Object.entries(FACES).map(([value, { name }]) => ({ value: value as keyof typeof FACES, name }));
const tints = Object.keys(TINTS).map((value) => ({ value: value as keyof typeof TINTS, name: value }));
const numbers = (values: number[], unit: string) => values.map((n) => ({ value: String(n), name: `${n}${unit}` }));
const as = (field: 'size' | 'leading' | 'spacing' | 'width') =>
  computed({ get: () => String(setting.value[field]), set: (v) => (setting.value[field] = Number(v)) });
const [size, leading, spacing, width] = [as('size'), as('leading'), as('spacing'), as('width')];
const marksOn = computed(() => {
  const out = new Map<number, Mark[]>();
  for (const mark of props.marks) out.set(mark.page, [...(out.get(mark.page) ?? []), mark]);
  return out;
});
const partsIn = (p: Shown): Part[] =>
  partsOf(p.text, marksOn.value.get(p.page) ?? [], spoken.value?.key === p.key ? spoken.value : undefined);
const fillOf = (mark: Mark): string => FILL[props.senses.find((s) => s.id === mark.sense)?.colour ?? 'straw'];
</script>

<template>
  <div class="flex min-h-0 flex-col">
    <div
      class="flex flex-wrap items-end gap-2 border-b border-line bg-paper px-4 py-2 text-fine"
      role="group"
      aria-label="How the text is set"
    >
      <KitSelect v-model="setting.face" above class="w-44" label="Face" :options="faces" />
      <KitSelect
        v-model="size"
        above
        class="w-20"
        label="Size"
        :options="numbers([15, 17, 19, 21, 24, 28, 34], ' px')"
      />
      <KitSelect
        v-model="leading"
        above
        class="w-20"
        label="Lines"
        :options="numbers([1.3, 1.45, 1.6, 1.8, 2.1], '')"
      />
      <KitSelect v-model="spacing" above class="w-20" label="Letters" :options="numbers([0, 2, 5, 8, 12], ' %')" />
      <KitSelect
        v-model="width"
        above
        class="w-28"
        label="Width"
        :options="numbers([40, 52, 64, 76, 90], ' letters')"
      />
      <KitSelect v-model="setting.tint" above class="w-24" label="Tint" :options="tints" />
      <label class="flex items-center gap-1.5 pb-1.5"
        ><KitCheck :checked="setting.guide" label="Line guide" @check="setting.guide = !setting.guide" />Line
        guide</label
      >
      <label class="flex items-center gap-1.5 pb-1.5"
        ><KitCheck
          :checked="setting.single"
          label="One paragraph at a time"
          @check="((setting.single = !setting.single), (at = 0))"
        />One paragraph at a time</label
      >
      <KitButton v-if="canSpeak" :name="spoken ? 'Stop reading aloud' : 'Read aloud'" @click="read"
        ><component :is="spoken ? VolumeX : Volume2" :size="15"
      /></KitButton>
    </div>
    <div
      ref="area"
      class="relative min-h-0 flex-1 overflow-auto text-[#1f262d]"
      :style="{ background: TINTS[setting.tint] }"
      tabindex="0"
      role="document"
      aria-label="Text of the document"
      @scroll.passive="follow"
      @pointermove="setting.guide && moveGuide($event)"
    >
      <div v-if="setting.guide" class="pointer-events-none sticky top-0 z-[1] h-0" aria-hidden="true">
        <div
          class="absolute inset-x-0 bg-[#17645e]/10"
          :style="{
            top: `${guide - (setting.size * setting.leading) / 2}px`,
            height: `${setting.size * setting.leading}px`,
          }"
        />
      </div>
      <article class="mx-auto px-6 py-8" :style="style">
        <KitButton
          v-if="shown.length && shown[0]!.page > 1 && !setting.single"
          class="mb-6 font-sans"
          @click="begin(Math.max(1, shown[0]!.page - 10))"
          >Earlier pages</KitButton
        >
        <template v-for="p in visible" :key="p.key">
          <p v-if="p.isFirst || setting.single" class="mb-2 select-none font-mono text-label text-[#5d646b]">
            {{ placeWritten(p.cited) }}
          </p>
          <component
            :is="p.kind === 'heading' ? 'h2' : 'p'"
            class="mb-[1em]"
            :class="p.kind === 'heading' ? 'font-bold' : p.kind === 'note' && 'text-[0.85em]'"
            :data-paragraph="p.key"
            ><component
              :is="part.mark ? 'mark' : 'span'"
              v-for="part in partsIn(p)"
              :key="part.at"
              :class="[
                part.mark && ['cursor-pointer text-inherit', fillOf(part.mark)],
                part.isSpoken && '!bg-[#17645e] !text-white',
              ]"
              @click="part.mark && emit('mark', part.mark.id)"
              >{{ part.text }}</component
            ></component
          >
        </template>
        <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
        <p v-else-if="isLoading" class="font-sans text-body" role="status">Loading the text…</p>
        <p v-else-if="!paragraphs.length" class="font-sans text-body">
          There is no text on these pages. Text of scans is recognised when they are added.
        </p>
        <p v-if="setting.single && paragraphs.length" class="mt-8 flex items-center gap-3 font-sans text-body">
          <KitButton :disabled="at === 0" @click="step(-1)">Previous paragraph</KitButton>
          <KitButton :disabled="at >= paragraphs.length - 1" @click="step(1)">Next paragraph</KitButton>
        </p>
        <div ref="tail" class="h-px" />
      </article>
    </div>
  </div>
</template>
