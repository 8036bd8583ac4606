<script setup lang="ts">
/** All saved searches in one list: found by words, maker and time, and moved, copied or removed many at once. */
import { computed, ref, watch } from 'vue';
import { TO_MANY, type ManySearches, type SavedSearch } from '@pandecta/contract';
import { counted, formatNumber } from '@pandecta/core/wording';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitField from '../../kit/KitField.vue';
import KitSelect from '../../kit/KitSelect.vue';
import KitTable from '../../kit/KitTable.vue';
import { turned } from '../../kit/words.ts';
import { addressOfAsk } from '../ask.ts';
import { useWords } from '../asking/words.ts';
import { dayInWords } from '../values.ts';
import { useSaved } from './store.ts';

const saved = useSaved();
const inWords = useWords();
const typed = ref('');
const keyword = ref('');
const maker = ref('');
const from = ref('');
const until = ref('');
const selected = ref(new Set<string>());

const all = computed(() => saved.list?.searches ?? []);
const offered = (values: string[], none: string) => [
  { value: '', name: none },
  ...[...new Set(values)].sort((a, b) => a.localeCompare(b, 'en')).map((value) => ({ value, name: value })),
];
const keywords = computed(() =>
  offered(
    all.value.flatMap((s) => s.keywords),
    'Any keyword',
  ),
);
const makers = computed(() =>
  offered(
    all.value.map((s) => s.madeBy),
    'Anyone’s',
  ),
);
const has = (s: SavedSearch, words: string): boolean =>
  [s.name, s.describes, s.ask.q ?? ''].some((t) => t.toLowerCase().includes(words));
const rows = computed(() => {
  const words = typed.value.trim().toLowerCase();
  const day = (s: SavedSearch): string => s.madeAt.slice(0, 10);
  return all.value.filter(
    (s) =>
      (!words || has(s, words)) &&
      (!keyword.value || s.keywords.includes(keyword.value)) &&
      (!maker.value || s.madeBy === maker.value) &&
      (!from.value || day(s) >= from.value) &&
      (!until.value || day(s) <= until.value),
  );
});
// What is narrowed away, or gone, is selected no more.
watch(rows, (now) => (selected.value = new Set(now.flatMap(({ id }) => (selected.value.has(id) ? [id] : [])))));
const allSelected = computed(() => rows.value.length > 0 && selected.value.size === rows.value.length);
const selectAll = (): void => void (selected.value = new Set(allSelected.value ? [] : rows.value.map((s) => s.id)));

const pathOf = (id: string | null): string => {
  const folder = saved.folders.find((f) => f.id === id);
  return folder ? [pathOf(folder.parent), folder.name].filter(Boolean).join(' › ') : '';
};
const folders = computed(() => [
  { value: '', name: 'In no folder' },
  ...saved.folders.map((f) => ({ value: f.id, name: pathOf(f.id) })),
]);
const folder = ref('');
async function deed(to: ManySearches['to']): Promise<void> {
  const ids = [...selected.value];
  if (await saved.many({ ids, to, ...(to !== 'remove' && { folder: folder.value || null }) }))
    selected.value = new Set();
}
const DEEDS = { move: 'Move there', copy: 'Copy there', remove: 'Remove' };
const columns = [
  { key: 'check', name: 'Select', class: 'w-16' },
  { key: 'name', name: 'Name' },
  { key: 'asks', name: 'What it asks' },
  { key: 'folder', name: 'Folder', class: 'w-40 text-fine' },
  { key: 'made', name: 'Made', class: 'w-44 text-fine' },
  { key: 'count', name: 'Finds', class: 'w-16 text-right' },
];
</script>

<template>
  <div class="h-full overflow-auto">
    <div class="mx-auto max-w-[72rem] px-6 py-5">
      <div class="flex flex-wrap items-center gap-3">
        <h1 class="font-serif text-title font-semibold">Saved searches</h1>
        <KitButton look="quiet" class="ml-auto" to="/sources">Back to the sources</KitButton>
      </div>
      <div class="mt-3 flex flex-wrap items-end gap-2">
        <KitField v-model="typed" class="w-56" label="Words of its name, purpose or question" placeholder="Find" />
        <KitSelect v-model="keyword" class="w-40" label="Keyword" :options="keywords" />
        <KitSelect v-model="maker" class="w-40" label="Made by" :options="makers" />
        <label class="flex items-center gap-1.5 text-fine text-muted"
          >made from <KitField v-model="from" type="date" label="Made from" class="w-36" /></label
        ><label class="flex items-center gap-1.5 text-fine text-muted"
          >until <KitField v-model="until" type="date" label="Made until" class="w-36"
        /></label>
      </div>
      <div class="mt-3 flex min-h-9 flex-wrap items-center gap-2 border-y border-line py-1.5">
        <KitCheck
          :checked="allSelected"
          :some="selected.size > 0 && !allSelected"
          label="Select all that are listed"
          @check="selectAll"
        />
        <span aria-live="polite">{{
          selected.size ? `${selected.size} of ${rows.length} selected` : counted(rows.length, 'search', 'searches')
        }}</span>
        <template v-if="selected.size">
          <KitSelect v-model="folder" class="ml-auto w-56" label="Folder to move or copy them to" :options="folders" />
          <KitButton v-for="to in TO_MANY" :key="to" :look="to === 'remove' ? 'warn' : 'plain'" @click="deed(to)">{{
            DEEDS[to]
          }}</KitButton>
        </template>
      </div>
      <EmptyState v-if="saved.list && !rows.length" title="No saved searches match">{{
        all.length ? 'Remove some of the filters.' : 'Ask something in Sources, then “Keep this search”.'
      }}</EmptyState>
      <KitTable v-else label="Saved searches" :columns="columns" :rows="rows" heads>
        <template #check="{ row }"
          ><KitCheck
            :checked="selected.has(row.id)"
            :label="`Select ${row.name}`"
            @check="selected = turned(selected, row.id)"
        /></template>
        <template #name="{ row }"
          ><RouterLink
            class="font-medium hover:underline"
            :to="{ path: '/sources', query: addressOfAsk(row.ask, { saved: row.id }) }"
            >{{ row.name }}</RouterLink
          ><span v-if="!row.shared" class="text-fine text-muted"> · yours alone</span
          ><span v-if="row.describes" class="block text-fine text-muted">{{ row.describes }}</span
          ><span v-if="row.keywords.length" class="block text-fine">{{ row.keywords.join(', ') }}</span></template
        >
        <template #asks="{ row }"
          ><span class="break-words font-mono text-label">{{ inWords(row.ask) || 'all sources' }}</span></template
        >
        <template #folder="{ row }">{{ pathOf(row.folder) }}</template>
        <template #made="{ row }">{{ dayInWords(row.madeAt) }}, {{ row.madeBy }}</template>
        <template #count="{ row }"
          ><span class="count">{{ formatNumber(saved.counts.get(row.id)) }}</span
          ><span v-if="row.watch && saved.fresh.get(row.id)" class="block text-fine text-verdigris"
            >{{ saved.fresh.get(row.id) }} new</span
          ></template
        >
      </KitTable>
    </div>
  </div>
</template>
