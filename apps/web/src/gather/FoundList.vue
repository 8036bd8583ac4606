<script setup lang="ts">
/** What a search outside found: one list over all its catalogues, as they answer. */
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useDeeds } from '../act/commands.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitField from '../kit/KitField.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import KitNotice from '../kit/KitNotice.vue';
import { keysOf } from '../list/keys.ts';
import ListBox from '../list/ListBox.vue';
import FoundRow from './FoundRow.vue';
import { useOutside } from './outside.ts';
import WatchBox from './WatchBox.vue';

const outside = useOutside();
const route = useRoute();
onMounted(() => {
  if ('new' in route.query) outside.fresh = true;
  outside.begin();
});
const why = ref('');
/** Whether what stands there is being written: an answer that was asked for before must not take it away. */
const writing = ref(false);
watch(
  [() => outside.about?.id, () => outside.about?.why],
  ([id], [before]) => {
    if (id !== before) writing.value = false;
    if (!writing.value) why.value = outside.about?.why ?? '';
  },
  { immediate: true },
);
async function describe(): Promise<void> {
  if (!writing.value) return;
  await outside.describe(why.value);
  writing.value = false;
}
const about = computed(() => (outside.about?.id === outside.openId ? outside.about : null));
const asking = computed(() => about.value?.asked.some((a) => a.state === 'asking') ?? false);
const hasMore = computed(() => about.value?.asked.some((a) => a.state === 'done' && a.fetched < a.total) ?? false);
const allSelected = computed(() => outside.total > 0 && outside.count === outside.total);
const n = computed(() => outside.count || (outside.cursor ? 1 : 0));
const SORTS = [
  ['found', 'As found'],
  ['title', 'Title'],
  ['author', 'Author'],
  ['-year', 'Year, newest first'],
  ['year', 'Year, oldest first'],
] as const;
const sorts = computed<MenuEntry[]>(() =>
  SORTS.map(([key, name]) => ({ name, checked: outside.sort === key, run: () => void (outside.sort = key) })),
);
const watching = ref(false);
const toWatch = computed(
  () =>
    about.value && {
      words: about.value.words,
      question: about.value.question,
      catalogues: about.value.asked.map((a) => a.id),
    },
);
const isEmpty = computed(() => outside.state === 'ready' && !outside.total && !asking.value);

useDeeds({
  ...keysOf(outside),
  'take-in': () => (n.value ? void outside.gather() : false),
  leave: () => outside.unselect(),
});
</script>

<template>
  <section class="flex min-h-0 flex-1 flex-col" aria-label="Found outside">
    <header class="px-4 pb-2 pt-3">
      <div class="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <KitButton look="quiet" to="/gather">‹ The intake</KitButton>
        <h1 class="min-w-0 truncate font-serif text-title font-semibold">{{ about?.words ?? 'Searching…' }}</h1>
        <div class="ml-auto flex gap-2">
          <KitButton v-if="about" @click="outside.search(about)">Run again</KitButton>
          <KitButton v-if="about && !about.watch" @click="watching = true">Watch…</KitButton>
          <WatchBox v-if="toWatch" v-model:open="watching" :search="toWatch" />
          <KitButton look="main" :disabled="!n" title="i" @click="outside.gather()">{{
            n > 1 ? `Gather ${formatNumber(n)}` : 'Gather it'
          }}</KitButton>
        </div>
      </div>
      <ul v-if="about" class="mt-1 flex flex-wrap gap-x-4 text-fine" aria-label="Catalogues" aria-live="polite">
        <li v-for="a in about.asked" :key="a.id">
          {{ a.name }}:
          <span v-if="a.state === 'asking'" class="text-muted">asking…</span>
          <span v-else-if="a.state === 'failed'" class="text-madder">{{ a.says }}</span>
          <b v-else class="font-mono text-label font-medium">{{ formatNumber(a.total) }}</b>
        </li>
      </ul>
      <form v-if="about" class="mt-1.5" @submit.prevent="describe">
        <KitField
          v-model="why"
          label="Why this search was made"
          placeholder="Why this search was made, for the methods section"
          @input="writing = true"
          @blur="describe"
        />
      </form>
    </header>
    <div class="flex min-h-7 items-center gap-2.5 border-b border-line px-4 py-[3px] text-fine text-muted">
      <KitCheck
        :checked="allSelected"
        :some="outside.count > 0 && !allSelected"
        label="Select all that were found"
        @check="allSelected ? outside.unselect() : outside.selectAll()"
      />
      <b class="text-ink">{{ counted(outside.total, 'work') }}</b>
      <span v-if="outside.count">{{ formatNumber(outside.count) }} selected</span>
      <KitMenu :entries="sorts" look="quiet"
        >Sorted: {{ SORTS.find((s) => s[0] === outside.sort)?.[1].toLowerCase() }}</KitMenu
      >
      <KitButton look="quiet" :aria-pressed="outside.fresh" @click="outside.fresh = !outside.fresh">{{
        outside.fresh ? 'Only new ones: show all' : 'Only new ones'
      }}</KitButton>
      <KitButton look="quiet" :aria-pressed="outside.absent" @click="outside.absent = !outside.absent">{{
        outside.absent ? 'Only works you do not have: show all' : 'Only works you do not have'
      }}</KitButton>
      <KitButton v-if="hasMore" look="quiet" class="ml-auto" @click="outside.more()">Fetch more</KitButton>
    </div>
    <KitNotice v-if="outside.state === 'failed'" tone="bad" class="m-6">{{ outside.error }}</KitNotice>
    <EmptyState v-else-if="isEmpty" title="Nothing found"
      >Try other words, or other catalogues; the search stays in the log.</EmptyState
    >
    <ListBox
      v-show="outside.state !== 'failed' && !isEmpty"
      id="found"
      v-slot="{ line, selected, current }"
      :list="outside"
      label="Works found"
      :line-height="46"
    >
      <FoundRow :row="line" :checked="selected" :current="current" @check="outside.toggle(line.id)" />
    </ListBox>
  </section>
</template>
