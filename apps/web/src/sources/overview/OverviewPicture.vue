<script setup lang="ts">
/** The overview as a picture, in place of the list: of any answer, each part leading to its sources. */
import { computed, ref, watch } from 'vue';
import type { Ask, OverviewSide } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { formatNumber } from '@pandecta/core/wording';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { usePlaces } from '../../places/store.ts';
import { useSession } from '../../session/store.ts';
import { useAsk } from '../ask.ts';
import FileTo from '../collections/FileTo.vue';
import { useNarrow } from '../narrow.ts';
import OverviewContainers from './OverviewContainers.vue';
import OverviewMatrix from './OverviewMatrix.vue';
import OverviewPeople from './OverviewPeople.vue';
import OverviewTable from './OverviewTable.vue';
import OverviewYears from './OverviewYears.vue';
import { narrowedTo, wordsWithout, type Part, type Sides } from './parts.ts';
import { PICTURES, SIDE_NAMES, useOverview, type Picture } from './store.ts';

const ask = useAsk();
const narrow = useNarrow();
const places = usePlaces();
const session = useSession();
const picture = computed<Picture>(() =>
  Object.hasOwn(PICTURES, ask.picture ?? '') ? (ask.picture as Picture) : 'together',
);
const rows = ref<OverviewSide>('tag');
const across = ref<OverviewSide>('in');
const asTable = ref(false);
const filing = ref(false);
const chosen = ref<Part | null>(null);

const FIXED: Record<Exclude<Picture, 'together'>, Sides & { most: number }> = {
  people: { rows: 'person', columns: 'person', most: 30 },
  years: { rows: 'kind', columns: 'year', most: 30 },
  containers: { rows: 'container', columns: 'kind', most: 60 },
};
const sides = computed(() =>
  picture.value === 'together' ? { rows: rows.value, columns: across.value, most: 16 } : FIXED[picture.value],
);
const { data: reply, error, isLoading } = useOverview(sides);
/** The answer to what is asked now, not to the picture before. */
const ready = computed(() => (reply.value && reply.value.rows.length ? reply.value : null));
watch([sides, () => ask.body], () => (chosen.value = null));

const options = Object.entries(SIDE_NAMES).map(([value, name]) => ({ value: value as OverviewSide, name }));
const nameOf = (type: string, key: string): string | undefined => {
  if (type === 'in') return places.pathOf(key);
  const side = type === sides.value.rows ? reply.value?.rows : reply.value?.columns;
  return side?.find((v) => v.key === key)?.name ?? narrow.nameOf(type, key);
};
const whole = computed(() => ask.body as Ask);
const only = computed(() => (chosen.value ? narrowedTo(whole.value, chosen.value) : null));

function leaveOut(): void {
  ask.setText(wordsWithout(whole.value, chosen.value!, nameOf));
  chosen.value = null;
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2">
      <KitButton
        v-for="(name, key) in PICTURES"
        :key="key"
        look="bare"
        class="min-h-6 border-b-2"
        :class="
          key === picture ? 'border-verdigris font-semibold text-ink' : 'border-transparent text-muted hover:text-ink'
        "
        :aria-pressed="key === picture"
        @click="ask.setPicture(key)"
        >{{ name }}</KitButton
      >
      <span class="ml-auto flex items-center gap-2 text-fine text-muted">
        <template v-if="picture === 'together'">
          <KitSelect v-model="rows" low label="Rows" :options="options" />
          <span aria-hidden="true">×</span>
          <KitSelect v-model="across" low label="Columns" :options="options" />
        </template>
        <KitButton look="quiet" :aria-pressed="asTable" @click="asTable = !asTable">{{
          asTable ? 'As a picture' : 'As a table'
        }}</KitButton>
      </span>
    </div>
    <KitNotice v-if="error" tone="bad" class="mx-4">{{ error }}</KitNotice>
    <p v-else-if="!reply" class="px-4 text-muted">Counting…</p>
    <div v-else-if="!ready" class="min-h-0 flex-1">
      <EmptyState title="Nothing to draw">None of these sources has the data this picture needs.</EmptyState>
    </div>
    <div v-else class="min-h-0 flex-1 px-2" :aria-busy="isLoading">
      <OverviewTable v-if="asTable" :reply="ready" :label="PICTURES[picture]" :pairs="picture !== 'containers'" />
      <OverviewMatrix
        v-else-if="picture === 'together'"
        :reply="ready"
        :sides="sides"
        :chosen="chosen?.key"
        @choose="chosen = $event"
      />
      <OverviewPeople v-else-if="picture === 'people'" :reply="ready" :chosen="chosen?.key" @choose="chosen = $event" />
      <OverviewYears v-else-if="picture === 'years'" :reply="ready" :chosen="chosen?.key" @choose="chosen = $event" />
      <OverviewContainers v-else :reply="ready" :chosen="chosen?.key" @choose="chosen = $event" />
    </div>
    <div v-if="chosen" class="border-t-2 border-ink bg-card px-4 py-2.5" aria-live="polite">
      <p>
        <b class="font-serif text-read">{{ chosen.title }}: {{ countSources(chosen.count) }}</b>
        <span class="text-muted"> · {{ chosen.says }}</span>
      </p>
      <div class="mt-2 flex gap-1.5">
        <KitButton look="main" @click="ask.go(only!)"
          >Show {{ chosen.count === 1 ? 'it' : `these ${formatNumber(chosen.count)}` }}</KitButton
        >
        <KitButton @click="leaveOut">Leave them out</KitButton>
        <KitButton v-if="session.may('edit')" @click="filing = true">File them…</KitButton>
      </div>
      <FileTo v-model:open="filing" :chosen="{ matching: only! }" :count="chosen.count" />
    </div>
    <p v-else-if="ready && ready.rowsInAll > ready.rows.length" class="px-4 py-1 text-fine text-muted">
      The {{ ready.rows.length }} most frequent of {{ formatNumber(ready.rowsInAll) }}
    </p>
  </div>
</template>
