<script setup lang="ts">
/** Ask, look, place. */
import { PanelLeft, PanelRight } from '@lucide/vue';
import { useElementSize, useLocalStorage, useMediaQuery } from '@vueuse/core';
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { Chosen } from '@pandecta/contract';
import { useDeeds, type Deed } from '../act/commands.ts';
import { useNoting } from '../act/noting.ts';
import { useChanges } from '../act/changes.ts';
import CiteForm from './CiteForm.vue';
import { useCiting } from '../citing/store.ts';
import KitButton from '../kit/KitButton.vue';
import SplitHandle from '../kit/SplitHandle.vue';
import PlacesPane from './collections/PlacesPane.vue';
import { keysOf } from '../list/keys.ts';
import AskLine from './asking/AskLine.vue';
import { useAskedLog } from './asking/log.ts';
import QuestionBuilder from './asking/QuestionBuilder.vue';
import { useAsk } from './ask.ts';
import { useBatch } from './batch.ts';
import BatchEdit from './BatchEdit.vue';
import BatchSlip from './BatchSlip.vue';
import FileTo, { type Filing } from './collections/FileTo.vue';
import { useSession } from '../session/store.ts';
import { useLedger } from './ledger/store.ts';
import LedgerList from './ledger/LedgerList.vue';
import NarrowPane from './NarrowPane.vue';
import TitleCases from './TitleCases.vue';
import FoldedSlip from './one/FoldedSlip.vue';
import SourceSlip from './one/SourceSlip.vue';
import YearRibbon from './ledger/YearRibbon.vue';

const ledger = useLedger();
const ask = useAsk();
const batch = useBatch();
const citing = useCiting();
const changes = useChanges();
const router = useRouter();
const session = useSession();
const wide = useMediaQuery('(min-width: 1024px)');
const left = useLocalStorage('narrow width', 206);
const right = useLocalStorage('places width', 226);
/** In pixels: what fits its buttons and two lines. */
const MIN_SLIP = 150;
const slip = useLocalStorage('slip height', 244);
const showLeft = useLocalStorage('narrow shown', true);
const showRight = useLocalStorage('places shown', true);
/** Where there is no room beside the list, a pane lies over it when it is asked for; what one set for more room stays set. */
const over = ref<'left' | 'right' | null>(null);
const isLeft = computed(() => (wide.value ? showLeft.value : over.value === 'left'));
const isRight = computed(() => (wide.value ? showRight.value : over.value === 'right'));
function togglePane(side: 'left' | 'right'): void {
  if (!wide.value) over.value = over.value === side ? null : side;
  else if (side === 'left') showLeft.value = !showLeft.value;
  else showRight.value = !showRight.value;
}
/** So much of the height the list keeps: its head and five lines. */
const LIST_KEEPS = 320;
const FOLDED = 40;
const column = useTemplateRef<HTMLElement>('column');
const { height: columnHeight } = useElementSize(column);
const unfolded = ref(false);
/** In little room the slip is one line, until one asks for it. */
const isTight = computed(() => columnHeight.value > 0 && columnHeight.value < LIST_KEEPS + MIN_SLIP);
const isFolded = computed(() => isTight.value && !unfolded.value && mode.value === 'card');
const mode = ref<'card' | 'edit' | 'history'>('card');
const building = ref(false);
const filing = ref(false);
const casing = ref(false);
const altering = ref(false);
const citingWith = ref(false);
const slipCard = ref<{ startTagging(): void }>();
const single = computed(() => ledger.single);
/** What the keys that turn something look at: the line one is at. */
const line = computed(() => (ledger.cursor ? ledger.lineOf(ledger.cursor) : undefined));
const slipHeight = computed(() => {
  if (isFolded.value) return FOLDED;
  const wanted = mode.value === 'card' ? slip.value : Math.max(slip.value, 380);
  const room = columnHeight.value - (isTight.value ? FOLDED : LIST_KEEPS);
  return columnHeight.value
    ? Math.max(MIN_SLIP, Math.min(wanted, Math.max(room, mode.value === 'card' ? 0 : 240)))
    : wanted;
});

useAskedLog();
onMounted(() => {
  ledger.begin();
});
watch([mode, single], () => (ledger.held = mode.value === 'edit' ? single.value : null));
watch(mode, (now) => now !== 'edit' && ask.endEditing());
watch(single, () => mode.value === 'history' && (mode.value = 'card'));
// An address may lead to a record to be filled in.
watch(
  () => ask.editing && ask.at,
  (id) => id && session.may('edit') && (mode.value = 'edit'),
  { immediate: true },
);

async function open(id: string, page?: number, file?: string): Promise<void> {
  const row = ledger.lineOf(id);
  const hit = row?.hits.find((h) => h.fileId);
  const fileId = file ?? (page ? undefined : hit?.fileId) ?? row?.fileId;
  const at = page ?? (fileId && fileId === hit?.fileId ? hit.page : undefined);
  if (!fileId) {
    changes.tell('This source has no document to open');
    return;
  }
  await router.push({
    path: `/read/${id}/${fileId}`,
    query: { ...(at ? { page: String(at) } : {}), ...(ask.text ? { q: ask.text } : {}) },
  });
}

const noting = useNoting();
const filingHow = ref<Filing>('file');
function file(how: Filing): void {
  filingHow.value = how;
  filing.value = true;
}

/** A deed that needs something chosen to do it to. */
const withChosen =
  (deed: (chosen: Chosen) => unknown): Deed =>
  () =>
    ledger.chosen ? void deed(ledger.chosen) : false;
useDeeds({
  ...keysOf(ledger),
  open: () => void (ledger.cursor && open(ledger.cursor)),
  'cite-with': withChosen(() => (citingWith.value = true)),
  cite: withChosen((chosen) => citing.copyCited(chosen, 'bibliography')),
  reading: withChosen((chosen) => batch.reading(chosen, batch.nextState(line.value?.reading))),
  star: withChosen((chosen) => batch.star(chosen, !line.value?.starred)),
  file: withChosen(() => file('file')),
  move: withChosen(() => file('move')),
  'take-out': withChosen(() => file('take out')),
  'title-case': withChosen(() => (casing.value = true)),
  fields: withChosen(() => (altering.value = true)),
  tag: withChosen(async () => {
    unfolded.value = true;
    await nextTick();
    slipCard.value?.startTagging();
  }),
  edit: withChosen(() => (mode.value = 'edit')),
  note: () => void noting.begin({ from: (ledger.chosen?.ids ?? []).slice(0, 100).map((source) => ({ source, file: null, page: null, cited: '', mark: null })) }), // prettier-ignore
  'to-bin': withChosen((chosen) => ask.scope !== 'bin' && batch.toBin(chosen)),
  unselect: () => (ledger.count ? ledger.unselect() : false),
  // Only what is open: the question, what is selected and the line one is at stay.
  leave: () => {
    if (building.value) building.value = false;
    else if (mode.value !== 'card') mode.value = 'card';
    else return false;
    return undefined;
  },
});
</script>

<template>
  <div class="flex h-full flex-col">
    <h1 class="sr-only">Sources</h1>
    <AskLine v-model:building="building" />
    <div class="relative flex min-h-0 flex-1">
      <QuestionBuilder v-if="building" @done="building = false" />
      <template v-if="isLeft">
        <NarrowPane :class="!wide && 'absolute inset-y-0 left-0 z-20 shadow-xl'" :style="{ width: `${left}px` }" />
        <SplitHandle v-model="left" :min="150" :max="360" side="left" label="Width of Narrow" />
      </template>
      <div ref="column" class="flex min-w-0 flex-1 flex-col">
        <div class="flex items-stretch">
          <KitButton
            look="icon"
            class="px-1.5"
            :aria-pressed="isLeft"
            :name="isLeft ? 'Close Narrow' : 'Show Narrow'"
            @click="togglePane('left')"
            ><PanelLeft :size="14"
          /></KitButton>
          <YearRibbon class="min-w-0 flex-1" />
          <KitButton
            look="icon"
            class="px-1.5"
            :aria-pressed="isRight"
            :name="isRight ? 'Close Places' : 'Show Places'"
            @click="togglePane('right')"
            ><PanelRight :size="14"
          /></KitButton>
        </div>
        <LedgerList @open="open" />
        <template v-if="ledger.chosen && !ask.picture">
          <SplitHandle v-if="!isFolded" v-model="slip" :min="90" :max="560" side="top" label="Height of the slip" />
          <div class="shrink-0" :style="{ height: `${slipHeight}px` }">
            <FoldedSlip
              v-if="isFolded"
              :id="ledger.count > 1 ? null : single"
              :count="ledger.chosenCount"
              @unfold="unfolded = true"
            />
            <BatchSlip
              v-else-if="ledger.count > 1"
              ref="slipCard"
              :chosen="ledger.chosen"
              :count="ledger.count"
              :folds="isTight"
              @fold="unfolded = false"
              @file="file('file')"
              @cite="citingWith = true"
              @casing="casing = true"
              @altering="altering = true"
            />
            <SourceSlip
              v-else-if="single"
              :folds="isTight"
              @fold="unfolded = false"
              :id="single"
              ref="slipCard"
              v-model:mode="mode"
              @open="(page, file) => open(single!, page, file)"
              @file="file('file')"
              @cite="citingWith = true"
            />
          </div>
        </template>
      </div>
      <template v-if="isRight">
        <SplitHandle v-model="right" :min="160" :max="400" side="right" label="Width of Places" />
        <PlacesPane :class="!wide && 'absolute inset-y-0 right-0 z-20 shadow-xl'" :style="{ width: `${right}px` }" />
      </template>
    </div>
    <FileTo
      v-if="ledger.chosen"
      v-model:open="filing"
      v-model:how="filingHow"
      :chosen="ledger.chosen"
      :count="ledger.chosenCount"
    />
    <BatchEdit v-if="ledger.chosen" v-model:open="altering" :chosen="ledger.chosen" :count="ledger.chosenCount" />
    <CiteForm v-if="ledger.chosen" v-model:open="citingWith" :chosen="ledger.chosen" :count="ledger.chosenCount" />
    <TitleCases v-if="ledger.chosen" v-model:open="casing" :chosen="ledger.chosen" :count="ledger.chosenCount" />
  </div>
</template>
