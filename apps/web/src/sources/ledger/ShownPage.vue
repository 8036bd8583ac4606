<script setup lang="ts">
/** The answer as the ledger shows it, on a page: to be printed, or kept as a table or in a format of citations. */
import { useTitle } from '@vueuse/core';
import { computed, onUnmounted, ref, shallowRef, watch } from 'vue';
import type { SourceRow } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { EXPORT_FORMATS, EXPORT_INFO } from '@pandecta/core/formats';
import { withoutMarkup } from '@pandecta/core/source';
import { formatDate, formatNumber } from '@pandecta/core/wording';
import { isAbort } from '../../api/client.ts';
import KitButton from '../../kit/KitButton.vue';
import KitMenu from '../../kit/KitMenu.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitTable from '../../kit/KitTable.vue';
import ProgressBar from '../../kit/ProgressBar.vue';
import { save } from '../../kit/save.ts';
import { usePlaces } from '../../places/store.ts';
import { useAsk } from '../ask.ts';
import { useWords } from '../asking/words.ts';
import { useBatch } from '../batch.ts';
import { useNarrow } from '../narrow.ts';
import { cellText, titleOf } from './cells.ts';
import { sortInWords, useLook } from './columns.ts';
import { eachStretch, tableOfShown } from './whole.ts';

/** More lines than are drawn at once on a page; a table to keep has all. */
const MOST_DRAWN = 2000;

const ask = useAsk();
const look = useLook();
const places = usePlaces();
const narrow = useNarrow();
const batch = useBatch();
const inWords = useWords();
/** All lines, and those of them that are drawn: these are let be while the others come. */
let rows: SourceRow[] = [];
const drawn = shallowRef<SourceRow[]>([]);
const fetched = ref(0);
const total = ref(0);
const state = ref<'fetching' | 'stopped' | 'done' | 'failed'>('fetching');
const error = ref('');
let stop = new AbortController();

async function fetchAll(): Promise<void> {
  stop.abort();
  stop = new AbortController();
  const { signal } = stop;
  state.value = 'fetching';
  rows = [];
  drawn.value = [];
  fetched.value = 0;
  try {
    for await (const stretch of eachStretch(ask.params, signal)) {
      total.value = stretch.total;
      rows.push(...stretch.rows);
      fetched.value = rows.length;
      if (drawn.value.length < MOST_DRAWN) drawn.value = rows.slice(0, MOST_DRAWN);
    }
    if (!signal.aborted) state.value = 'done';
  } catch (cause) {
    if (isAbort(cause)) return;
    state.value = 'failed';
    error.value = (cause as Error).message;
  }
}
watch(() => JSON.stringify(ask.params), fetchAll, { immediate: true });
onUnmounted(() => stop.abort());
function cancel(): void {
  stop.abort();
  state.value = 'stopped';
}

const question = computed(() => inWords(ask.params));
const collection = computed(() => (ask.collection ? places.pathOf(ask.collection) : ''));
const heading = computed(() => collection.value || (ask.scope === 'bin' ? 'In the bin' : 'Sources'));
useTitle(() => heading.value);
const today = formatDate(Date.now());

/** The lines that are drawn, in their groups; one group where there are none. */
const groups = computed(() => {
  const out: { key: string; name: string; count: number; rows: SourceRow[] }[] = [];
  for (const row of drawn.value) {
    const { key, name, count } = row.group ?? { key: '', name: '', count: 0 };
    if (out.at(-1)?.key !== key) out.push({ key, name, count, rows: [] });
    out.at(-1)!.rows.push(row);
  }
  return out;
});
const heads = computed(() => [
  { key: 'title', name: 'Title', class: 'font-serif w-[38%]' },
  ...look.columns.map((c) => ({ key: c.id, name: c.name, class: 'text-fine' })),
]);

const print = (): void => window.print();
const savings = computed(() => [
  { name: 'CSV, as shown here', run: saveShown },
  ...EXPORT_FORMATS.map((f) => ({
    name: `${EXPORT_INFO[f].name}${f === 'csv' ? ', whole records' : ''}`,
    run: () => batch.exportAs({ matching: ask.body }, total.value, f),
  })),
]);
async function saveShown(): Promise<void> {
  const group = ask.group ? narrow.grouping || 'Group' : '';
  save('sources.csv', await tableOfShown(rows, look.columns, group, places.pathOf), 'text/csv');
}
</script>

<template>
  <div class="h-full overflow-auto bg-card print:h-auto print:overflow-visible">
    <article class="mx-auto max-w-[72rem] px-8 py-6 print:max-w-none print:px-0">
      <div class="mb-4 flex flex-wrap items-center gap-1.5 print:hidden">
        <KitButton :to="ask.address">Back to the sources</KitButton>
        <KitButton look="main" :disabled="state === 'fetching'" @click="print">Print</KitButton>
        <KitMenu v-if="state !== 'fetching' && fetched" :entries="savings">Save as</KitMenu>
      </div>
      <h1 class="font-serif text-display font-semibold">{{ heading }}</h1>
      <p v-if="question" class="mt-1 font-mono text-label">{{ question }}</p>
      <KitNotice v-if="state === 'failed'" tone="bad" class="mt-2"
        >{{ error }} {{ fetched ? `The first ${formatNumber(fetched)} are below.` : '' }}
        <KitButton look="word" @click="fetchAll">Try again</KitButton></KitNotice
      >
      <div v-if="state === 'fetching'" class="mt-3 flex max-w-md items-center gap-3 print:hidden" role="status">
        <ProgressBar label="Fetching the lines" :value="fetched" :max="total" />
        <span class="whitespace-nowrap text-fine">{{ formatNumber(fetched) }} of {{ formatNumber(total) }}</span>
        <KitButton look="word" @click="cancel">Stop</KitButton>
      </div>
      <p v-else class="mt-1 text-fine text-muted">
        {{ countSources(total) }}, sorted by {{ sortInWords(ask.sort, ask.ranked && !ask.group) }}, {{ today
        }}<template v-if="fetched < total">. Only the first {{ formatNumber(fetched) }} were fetched</template
        ><template v-if="fetched > MOST_DRAWN"
          >. The first {{ formatNumber(MOST_DRAWN) }} are shown here; the saved file has all</template
        >.
      </p>
      <section v-for="g in groups" :key="g.key" class="mt-4">
        <h2 v-if="ask.group" class="flex items-baseline gap-2 border-b border-edge pb-0.5 font-medium">
          {{ g.name || `No ${narrow.grouping.toLowerCase()}` }}
          <span class="count">{{ formatNumber(g.count) }}</span>
        </h2>
        <KitTable :label="g.name || 'Sources'" :columns="heads" :rows="g.rows" heads even>
          <template #title="{ row }">{{ withoutMarkup(titleOf(row)) }}</template>
          <template v-for="c in look.columns" :key="c.id" #[c.id]="{ row }">{{
            cellText(row, c.id, { placeOf: places.pathOf })
          }}</template>
        </KitTable>
      </section>
    </article>
  </div>
</template>
