<script setup lang="ts">
/** The log of searches: what was asked, why, and what came of it; as a table, and as the numbers of a methods section. */
import { computed, ref } from 'vue';
import { routes } from '@pandecta/contract';
import { flowInWords } from '@pandecta/core/catalogues';
import { counted, formatDate, formatNumber } from '@pandecta/core/wording';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { concerns } from '../data/live.ts';
import { useAsked } from '../data/asked.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitTable from '../kit/KitTable.vue';
import { turned } from '../kit/words.ts';
import AskedHere from './AskedHere.vue';
import { byDay } from './days.ts';
import FlowPicture from './FlowPicture.vue';
import { saveLog } from './save-log.ts';
import { useOutside } from './outside.ts';

const outside = useOutside();
const changes = useChanges();
/** Those that are not counted. */
const left = ref(new Set<string>());
const chosen = computed(() => outside.log.filter((s) => !left.value.has(s.id)));
const { data: flow } = useAsked({
  question: () => (outside.log.length ? chosen.value.map((s) => s.id).join(' ') : null),
  fetch: (ids, signal) => ask(routes.outside.flow, { body: { searches: ids ? ids.split(' ') : [] }, signal }),
  concerns: (touched) => concerns(touched, ['outside']) || concerns(touched, ['source']),
});
const { data: here } = useAsked({
  question: () => 'asked here',
  fetch: (_, signal) => ask(routes.saved.asked, { signal }),
  concerns: () => false,
});
const asked = computed(() => (here.value?.asked ?? []).filter((a) => !left.value.has(a.id)));
const days = computed(() => byDay(outside.log));
const words = computed(() => {
  const [last, first] = [chosen.value[0], chosen.value.at(-1)];
  const outsideOf =
    flow.value && first && last
      ? flowInWords(flow.value, chosen.value.length, formatDate(first.at), formatDate(last.at))
      : '';
  const n = asked.value.length;
  const within =
    n &&
    `The collected sources were searched ${n === 1 ? 'once' : `${n} times`}, between ${formatDate(asked.value.at(-1)!.at)} and ${formatDate(asked.value[0]!.at)}.`;
  return [outsideOf, within].filter(Boolean).join(' ');
});
const toggle = (id: string): void => void (left.value = turned(left.value, id));
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(words.value);
  changes.tell('The numbers are copied');
}
const COLUMNS = [
  { key: 'counts', name: 'Counted', class: 'w-16' },
  { key: 'words', name: 'Search' },
  { key: 'asked', name: 'Catalogues', class: 'w-60 text-fine text-muted' },
  { key: 'seen', name: 'Works', class: 'w-16 text-right font-mono text-label' },
  { key: 'fresh', name: 'New', class: 'w-16 text-right font-mono text-label' },
  { key: 'gathered', name: 'Gathered', class: 'w-20 text-right font-mono text-label' },
  { key: 'taken', name: 'Taken in', class: 'w-20 text-right font-mono text-label' },
];
</script>

<template>
  <section class="overflow-auto px-8 py-6" aria-label="Log of searches">
    <KitButton look="quiet" to="/gather">‹ The intake</KitButton>
    <div class="mt-2 flex flex-wrap items-baseline gap-3">
      <h1 class="font-serif text-title font-semibold">Log of searches</h1>
      <span class="text-muted">{{ counted(chosen.length, 'search', 'searches') }} counted</span>
      <div v-if="outside.log.length || here?.asked.length" class="ml-auto flex gap-2">
        <KitButton :disabled="!words" @click="copy">Copy the numbers</KitButton>
        <KitButton @click="saveLog(chosen, asked)">Save as a table</KitButton>
      </div>
    </div>
    <p v-if="words && !outside.log.length" class="mt-3 max-w-3xl font-serif text-read">{{ words }}</p>
    <EmptyState v-if="!outside.log.length" title="No searches yet"
      >Each search of outside catalogues is recorded here with its results.</EmptyState
    >
    <template v-else>
      <FlowPicture v-if="flow" :flow="flow" class="mt-4" />
      <p class="mt-3 max-w-3xl font-serif text-read" aria-live="polite">{{ words }}</p>
      <template v-for="d in days" :key="d.day">
        <h2 class="heading mt-5">{{ d.day }}</h2>
        <KitTable :label="`Searches, ${d.day}`" :heads="d === days[0]" :columns="COLUMNS" :rows="d.searches">
          <template #counts="{ row }"
            ><KitCheck :checked="!left.has(row.id)" :label="`Count “${row.words}”`" @check="toggle(row.id)"
          /></template>
          <template #words="{ row }">
            <RouterLink :to="`/gather/search/${row.id}`" class="font-medium hover:underline">{{
              row.words
            }}</RouterLink>
            <span v-if="row.watch" class="text-fine text-muted"> · a watch</span>
            <span v-if="row.why" class="block text-fine text-muted">{{ row.why }}</span>
          </template>
          <template #asked="{ row }"
            ><span v-for="a in row.asked" :key="a.id" class="block truncate"
              >{{ a.name }} <span v-if="a.state === 'failed'" class="text-madder" :title="a.says">did not answer</span
              ><template v-else>{{ formatNumber(a.total) }}</template></span
            ></template
          >
          <template #seen="{ row }">{{ formatNumber(row.works) }}</template>
          <template #fresh="{ row }"
            ><RouterLink
              v-if="row.fresh"
              :to="`/gather/search/${row.id}?new`"
              class="hover:underline"
              :title="`See only what was new of “${row.words}”`"
              >{{ formatNumber(row.fresh) }}</RouterLink
            ><template v-else>0</template></template
          >
          <template #gathered="{ row }">{{ formatNumber(row.gathered) }}</template>
          <template #taken="{ row }">{{ formatNumber(row.taken) }}</template>
        </KitTable>
      </template>
    </template>
    <AskedHere v-if="here" v-model:left="left" :log="here" @log="here = $event" />
  </section>
</template>
