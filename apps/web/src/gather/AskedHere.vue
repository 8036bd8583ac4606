<script setup lang="ts">
/** What was asked of the sources here, by those who log it; and whether one logs what one asks oneself. */
import { computed } from 'vue';
import { routes, type AskedLog } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import KitCheck from '../kit/KitCheck.vue';
import KitTable from '../kit/KitTable.vue';
import { turned } from '../kit/words.ts';
import { addressOfAsk } from '../sources/index.ts';
import { byDay } from './days.ts';

const { log } = defineProps<{ log: AskedLog }>();
const left = defineModel<Set<string>>('left', { required: true });
const emit = defineEmits<{ log: [AskedLog] }>();
const { attempt } = useChanges();
const days = computed(() => byDay(log.asked));
async function turn(): Promise<void> {
  const next = await attempt(() => ask(routes.saved.log, { body: { logs: !log.logs } }));
  if (next) emit('log', next);
}
const COLUMNS = [
  { key: 'counts', name: 'Counted', class: 'w-16' },
  { key: 'words', name: 'Asked here' },
  { key: 'by', name: 'By', class: 'w-60 text-fine text-muted' },
  { key: 'found', name: 'Found', class: 'w-20 text-right font-mono text-label' },
];
</script>

<template>
  <section class="mt-8" aria-label="Asked of the sources here">
    <div class="flex flex-wrap items-baseline gap-3">
      <h2 class="font-serif text-title font-semibold">Asked of the sources here</h2>
      <label class="ml-auto flex items-center gap-2"
        ><KitCheck :checked="log.logs" label="Log what I ask in Sources" @check="turn" />Log what I ask in
        Sources</label
      >
    </div>
    <p v-if="!log.asked.length" class="mt-1 text-muted">
      Nothing is logged yet. What you ask in Sources is noted here once you turn the log on, with how many it found.
    </p>
    <template v-for="d in days" :key="d.day">
      <h3 class="heading mt-4">{{ d.day }}</h3>
      <KitTable :label="`Asked here, ${d.day}`" :heads="d === days[0]" :columns="COLUMNS" :rows="d.searches">
        <template #counts="{ row }"
          ><KitCheck :checked="!left.has(row.id)" :label="`Count “${row.words}”`" @check="left = turned(left, row.id)"
        /></template>
        <template #words="{ row }"
          ><RouterLink
            class="font-mono text-label hover:underline"
            :to="{ path: '/sources', query: addressOfAsk(row.ask) }"
            >{{ row.words }}</RouterLink
          ></template
        >
        <template #by="{ row }">{{ row.by }}</template>
        <template #found="{ row }">{{ formatNumber(row.found) }}</template>
      </KitTable>
    </template>
  </section>
</template>
