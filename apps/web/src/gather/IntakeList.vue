<script setup lang="ts">
/** The intake: what waits, by the gathering it came with, and what may be done with all of it. */
import { computed, onMounted, ref } from 'vue';
import type { IntakeRow as Row } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { formatNumber } from '@pandecta/core/wording';
import { useDeeds } from '../act/commands.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import KitNotice from '../kit/KitNotice.vue';
import TimeText from '../kit/TimeText.vue';
import { keysOf } from '../list/keys.ts';
import ListBox from '../list/ListBox.vue';
import { FileTo, TagInput, useBatch } from '../sources/index.ts';
import IntakeRow from './IntakeRow.vue';
import { useIntake } from './intake.ts';
import ManyOnes from './ManyOnes.vue';

const emit = defineEmits<{ decide: []; mend: [] }>();
const intake = useIntake();
const batch = useBatch();
onMounted(() => intake.begin());

const aside = computed(() => intake.scope === 'aside');
const allSelected = computed(() => intake.total > 0 && intake.count === intake.total);
const isEmpty = computed(() => intake.state === 'ready' && !intake.total);
const byBatch = computed(() => !intake.sort);
const begins = (line: Row, before: Row | undefined): boolean => line.batch !== before?.batch;
const batchOf = (line: Row) => intake.batches.get(line.batch);
const waiting = computed(() => {
  const n = formatNumber(intake.total);
  if (intake.state === 'loading') return 'Looking…';
  return aside.value
    ? `${n} set aside, each kept 30 days`
    : `${n} ${intake.total === 1 ? 'waits' : 'wait'} to be taken in`;
});
const complete = computed(() => intake.figures?.complete ?? 0);
const certain = computed(() => intake.figures?.certain ?? 0);
/** Of many that are decided on together, which are shown. */
const deciding = ref<'complete' | 'certain' | null>(null);
const tagging = ref(false);
const filing = ref(false);

const lacking = computed<MenuEntry[]>(() => [
  { name: 'Anything', checked: !intake.missing, run: () => void (intake.missing = null) },
  ...intake.lacking.map((v) => ({
    name: v.name,
    hint: formatNumber(v.count),
    checked: intake.missing === v.key,
    run: () => void (intake.missing = intake.missing === v.key ? null : v.key),
  })),
]);
const SORTS = [
  ['', 'As they came'],
  ['title', 'Title'],
  ['author', 'Author'],
  ['-year', 'Year'],
  ['kind', 'Kind'],
] as const;
const sorts = computed(() =>
  SORTS.map(([key, name]) => ({ name, checked: intake.sort === key, run: () => void (intake.sort = key) })),
);

useDeeds({
  ...keysOf(intake),
  'take-in': () => (intake.chosen && !aside.value ? void intake.takeIn(intake.chosen) : false),
  decide: () => (intake.cursor && !aside.value ? emit('decide') : false),
  'set-aside': () => (intake.chosen && !aside.value ? void intake.setAside(intake.chosen) : false),
  mend: () => (intake.cursor ? emit('mend') : false),
  file: () => (intake.chosen && !aside.value ? void (filing.value = true) : false),
  tag: () => (intake.chosen && !aside.value ? void (tagging.value = true) : false),
  leave: () => intake.unselect(),
});
</script>

<template>
  <ManyOnes v-if="deciding" :which="deciding" @close="deciding = null" />
  <section v-else class="flex min-h-0 flex-1 flex-col" aria-label="Intake">
    <header class="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 pb-2 pt-3">
      <h1 class="font-serif text-title font-semibold">{{ aside ? 'Set aside' : 'Intake' }}</h1>
      <p class="text-muted" aria-live="polite">{{ waiting }}</p>
      <div class="ml-auto flex gap-2">
        <template v-if="intake.count > 0 && intake.chosen">
          <KitButton v-if="!aside" look="main" title="i" @click="intake.takeIn(intake.chosen)"
            >Take in {{ formatNumber(intake.count) }}</KitButton
          >
          <KitButton
            v-if="!aside"
            title="Look them up in the catalogues and fill missing fields"
            @click="intake.lookUpMany(intake.chosen)"
            >Look up</KitButton
          >
          <KitButton v-if="!aside" title="f" @click="filing = true">File to…</KitButton>
          <KitButton v-if="!aside" title="t" @click="tagging = true">Tag…</KitButton>
          <KitButton @click="intake.setAside(intake.chosen, !aside)">{{
            aside ? `Put ${formatNumber(intake.count)} back` : 'Set aside'
          }}</KitButton>
        </template>
        <template v-else-if="!aside">
          <KitButton
            v-if="certain"
            title="Shows which they are, and to what each is joined"
            @click="deciding = 'certain'"
            >{{
              certain === 1 ? 'Join the certain one…' : `Join the ${formatNumber(certain)} certain ones…`
            }}</KitButton
          >
          <KitButton v-if="complete" look="main" title="Shows which they are" @click="deciding = 'complete'">{{
            complete === 1 ? 'Take in the complete one…' : `Take in the ${formatNumber(complete)} complete ones…`
          }}</KitButton>
        </template>
      </div>
    </header>
    <TagInput
      v-if="tagging && intake.chosen"
      class="mx-4 mb-2 w-64"
      @add="batch.tag(intake.chosen, $event)"
      @done="tagging = false"
    />
    <FileTo v-if="intake.chosen" v-model:open="filing" :chosen="intake.chosen" :count="Math.max(1, intake.count)" />
    <div class="flex min-h-7 items-center gap-2.5 border-b border-line px-4 py-[3px] text-fine text-muted">
      <KitCheck
        :checked="allSelected"
        :some="intake.count > 0 && !allSelected"
        label="Select all that wait"
        @check="allSelected ? intake.unselect() : intake.selectAll()"
      />
      <span v-if="intake.count">{{ countSources(intake.count) }} selected</span>
      <KitMenu :entries="lacking" look="quiet"
        >Missing: {{ intake.lacking.find((v) => v.key === intake.missing)?.name ?? 'anything' }}</KitMenu
      >
      <KitMenu :entries="sorts" look="quiet"
        >Sorted by {{ SORTS.find((s) => s[0] === intake.sort)?.[1].toLowerCase() }}</KitMenu
      >
      <KitButton
        v-if="aside || intake.figures?.aside"
        look="quiet"
        class="ml-auto"
        :aria-pressed="aside"
        @click="intake.scope = aside ? 'intake' : 'aside'"
        >{{ aside ? 'Back to the intake' : `Set aside: ${formatNumber(intake.figures!.aside)}` }}</KitButton
      >
    </div>
    <div v-if="intake.state === 'failed'" class="p-8 text-center">
      <KitNotice tone="bad">{{ intake.error }}</KitNotice>
      <KitButton class="mt-3" @click="intake.load(false)">Try again</KitButton>
    </div>
    <EmptyState v-else-if="isEmpty && intake.missing" title="No waiting record is missing this"
      >Choose another, or look at all.<template #deeds
        ><KitButton @click="intake.missing = null">Show all that wait</KitButton></template
      ></EmptyState
    >
    <EmptyState v-else-if="isEmpty && aside" title="Nothing is set aside"
      >Records you set aside are kept here for 30 days.</EmptyState
    >
    <EmptyState v-else-if="isEmpty" title="Nothing waits"
      >What you bring in waits here for review, with what its citation is missing and whether you have it already. Type
      or paste on the left, or drop files anywhere.</EmptyState
    >
    <ListBox
      v-show="intake.state !== 'failed' && !isEmpty"
      id="intake"
      :list="intake"
      label="What waits"
      :line-height="46"
      :head-height="30"
      v-bind="byBatch ? { begins } : {}"
    >
      <template #head="{ line }">
        <p class="flex h-full items-end gap-2.5 truncate border-b border-line px-4 pb-1">
          <span class="truncate font-serif font-semibold">{{ batchOf(line)?.title }}</span>
          <span v-if="batchOf(line)" class="shrink-0 text-fine text-muted"
            ><TimeText :at="batchOf(line)!.at" /> · {{ batchOf(line)!.by
            }}<template v-if="batchOf(line)!.waiting !== batchOf(line)!.came && !aside">
              · {{ formatNumber(batchOf(line)!.waiting) }} of {{ formatNumber(batchOf(line)!.came) }}</template
            ></span
          >
        </p>
      </template>
      <template #default="{ line, selected, current }">
        <IntakeRow :row="line" :checked="selected" :current="current" @check="intake.toggle(line.id)" />
      </template>
    </ListBox>
  </section>
</template>
