<script setup lang="ts">
/** Over the list of what is in the bin: how much there is, how long it waits, and emptying it at once. */
import { computed } from 'vue';
import { routes } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import ConfirmInPlace from '../../kit/ConfirmInPlace.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { useSession } from '../../session/store.ts';

const { change } = useChanges();
const session = useSession();
const { data: bin, reload } = useAsked({
  question: () => 'bin',
  fetch: (_, signal) => ask(routes.sources.bin, { signal }),
  concerns: (touched) => concerns(touched, ['source']),
});
const DAYS = [7, 14, 30, 60, 90, 180, 365];
const days = computed({
  get: () => String(bin.value?.days ?? 30),
  set: (v) => void change(() => ask(routes.sources.binDays, { body: { days: Number(v) } })).then(() => reload()),
});
const choices = computed(() =>
  [...new Set([...DAYS, bin.value?.days ?? 30])]
    .sort((a, b) => a - b)
    .map((n) => ({ value: String(n), name: `${n} days` })),
);
const along = computed(() =>
  [
    bin.value?.files ? counted(bin.value.files, 'file') : '',
    bin.value?.marks ? counted(bin.value.marks, 'mark') : '',
  ].filter(Boolean),
);
const asks = computed(
  () =>
    `${countSources(bin.value?.sources ?? 0)} ${bin.value?.sources === 1 ? 'goes' : 'go'} for good${along.value.length ? `, with ${along.value.join(' and ')}` : ''}. This cannot be undone.`,
);
const empty = (): unknown => change(() => ask(routes.sources.emptyBin, { body: { seen: bin.value!.sources } }));
</script>

<template>
  <div
    v-if="bin"
    class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-panel px-4 py-1.5 text-fine"
  >
    <span class="text-muted">Removed sources stay here with everything attached for</span>
    <KitSelect v-if="session.may('steer')" v-model="days" low class="w-28" label="Days in the bin" :options="choices" />
    <span v-else>{{ bin.days }} days</span>
    <ConfirmInPlace
      v-if="bin.sources && session.may('arrange')"
      class="ml-auto"
      does="Empty the bin"
      :asks="asks"
      yes="Empty it"
      no="Leave it"
      @confirm="empty"
    />
  </div>
</template>
