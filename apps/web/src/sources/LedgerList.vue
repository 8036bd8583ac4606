<script setup lang="ts">
/** The ledger: the list of all sources that match, how it is sorted, and what its lines show. */
import { computed, useTemplateRef, watch } from 'vue';
import { SORT_KEYS, SORTS } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import type { DragSources } from '../places/dragged.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitMenu from '../kit/KitMenu.vue';
import KitNotice from '../kit/KitNotice.vue';
import ListBox from '../list/ListBox.vue';
import { useSession } from '../session/store.ts';
import { useAsk } from './ask.ts';
import { COLUMNS, nextSort, sortInWords, useDensity, useShownColumns } from './columns.ts';
import { useLedger } from './ledger.ts';
import HeapPicture from './heap/HeapPicture.vue';
import BinLine from './BinLine.vue';
import LedgerRow from './LedgerRow.vue';

const emit = defineEmits<{ open: [id: string, page?: number, file?: string] }>();
const ledger = useLedger();
const ask = useAsk();
const session = useSession();
const density = useDensity();
const shown = useShownColumns();
const box = useTemplateRef<{ toTop(): void }>('box');
const two = computed(() => density.value === 'two');
const columns = computed(() => COLUMNS.filter((c) => shown.value.includes(c.id)));
const searching = computed(() => ask.ranked);
const lineHeight = computed(() => (two.value ? (searching.value ? 68 : 50) : 31));

const shownAs = computed(() => [
  { name: 'List', on: !ask.picture, run: () => ask.setPicture(undefined) },
  { name: 'Picture', on: Boolean(ask.picture), run: () => ask.setPicture('together') },
]);

const isEmpty = computed(() => ledger.state === 'ready' && !ledger.total);
watch(
  () => ask.params,
  () => box.value?.toTop(),
  { deep: true },
);

const allSelected = computed(() => ledger.total > 0 && ledger.count === ledger.total);
const sortOf = (key: string): string => {
  const part = (ask.sort || (searching.value ? 'relevance' : '-added'))
    .split(',')
    .find((p) => p.replace(/^-/, '') === key);
  return part && key !== 'relevance' ? (part.startsWith('-') ? '↓' : '↑') : part ? '•' : '';
};
const dragged = ({ id }: { id: string }): DragSources =>
  ledger.chosen && ledger.isSelected(id)
    ? { what: 'sources', chosen: ledger.chosen, count: ledger.count }
    : { what: 'sources', chosen: { ids: [id] }, count: 1 };

const sorts = computed(() =>
  SORT_KEYS.filter((key) => searching.value || key !== 'relevance').map((key) => ({
    name: SORTS[key].name,
    sign: sortOf(key),
    run: (event: MouseEvent) => ask.setSort(nextSort(ask.sort, key, event.shiftKey)),
  })),
);
const columnEntries = computed(() =>
  COLUMNS.map((c) => ({ name: c.name, checked: shown.value.includes(c.id), run: () => toggleColumn(c.id) })),
);
function toggleColumn(id: (typeof COLUMNS)[number]['id']): void {
  shown.value = shown.value.includes(id) ? shown.value.filter((c) => c !== id) : [...shown.value, id];
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="flex min-h-7 items-center gap-2.5 border-b border-line px-4 py-[5px] text-fine text-muted">
      <KitCheck
        :checked="allSelected"
        :some="ledger.count > 0 && !allSelected"
        label="Select all that match"
        @check="allSelected ? ledger.unselect() : ledger.selectAll()"
      />
      <b class="text-ink" aria-live="polite">{{
        ledger.state === 'loading' ? 'Looking…' : countSources(ledger.total)
      }}</b>
      <span v-if="ledger.count">{{ ledger.count.toLocaleString('en') }} selected</span>
      <KitMenu v-if="!ask.picture" :entries="sorts" look="quiet" at="bottom-end" class="ml-auto"
        >Sorted by {{ sortInWords(ask.sort, searching)
        }}<template #bottom
          ><p class="mt-1 border-t border-line px-3 pt-1 text-fine text-muted">
            With Shift: as a further key. Again: the other way.
          </p></template
        ></KitMenu
      >
      <span
        class="flex rounded border border-line"
        :class="ask.picture && 'ml-auto'"
        role="group"
        aria-label="How the answer is shown"
        ><KitButton
          v-for="s in shownAs"
          :key="s.name"
          look="bare"
          class="px-2"
          :class="s.on ? 'bg-ink text-paper' : 'hover:text-ink'"
          :aria-pressed="s.on"
          @click="s.run"
          >{{ s.name }}</KitButton
        ></span
      >
      <KitButton v-if="!ask.picture" look="quiet" :aria-pressed="!two" @click="density = two ? 'one' : 'two'">{{
        two ? 'Two-line' : 'One-line'
      }}</KitButton>
      <KitMenu v-if="!two && !ask.picture" :entries="columnEntries" look="quiet" at="bottom-end">Columns</KitMenu>
    </div>
    <div
      v-if="!two && ledger.total && !ask.picture"
      class="heading grid gap-x-[11px] border-b border-line px-4 py-0.5"
      :style="{ gridTemplateColumns: `16px 26px minmax(14rem, 2.4fr) ${columns.map((c) => c.width).join(' ')}` }"
    >
      <span /><span />
      <KitButton
        look="bare"
        class="text-left hover:text-ink"
        @click="ask.setSort(nextSort(ask.sort, 'title', $event.shiftKey))"
        >Title {{ sortOf('title') }}</KitButton
      >
      <template v-for="c in columns" :key="c.id"
        ><KitButton
          v-if="c.sort"
          look="bare"
          class="text-left hover:text-ink"
          @click="ask.setSort(nextSort(ask.sort, c.sort, $event.shiftKey))"
          >{{ c.name }} {{ sortOf(c.sort) }}</KitButton
        ><span v-else>{{ c.name }}</span></template
      >
    </div>
    <BinLine v-if="ask.scope === 'bin'" />
    <HeapPicture v-if="ask.picture && ledger.state !== 'failed' && !isEmpty" />
    <div v-if="ledger.state === 'failed' || isEmpty" class="min-h-0 flex-1 overflow-auto">
      <div v-if="ledger.state === 'failed'" class="p-8 text-center">
        <KitNotice tone="bad">{{ ledger.error }}</KitNotice>
        <KitButton class="mt-3" @click="ledger.load(false)">Try again</KitButton>
      </div>
      <EmptyState v-else-if="ask.scope === 'bin' && !ask.text && !ask.hasChips" title="The bin is empty"
        >Removed sources wait here for a while, with all they had.</EmptyState
      >
      <EmptyState v-else-if="ask.isNarrowed" title="No source matches"
        >{{ ask.hasChips ? 'Take a chip away, or try other words.' : 'Try other words, or fewer.' }} Word forms and
        accents do not matter; a beginning is asked for with a star: sedim*<template #deeds
          ><KitButton @click="ask.clear()">Show all sources</KitButton></template
        ></EmptyState
      >
      <EmptyState v-else title="No sources yet"
        >Drop PDFs, RIS, BibTeX or CSL-JSON files anywhere on this page, or begin here.<template
          v-if="session.may('edit')"
          #deeds
          ><KitButton look="main" to="/gather">Add sources</KitButton></template
        ></EmptyState
      >
    </div>
    <ListBox
      v-show="ledger.state !== 'failed' && !isEmpty && !ask.picture"
      id="ledger"
      ref="box"
      v-slot="{ line, selected, current }"
      :list="ledger"
      label="Sources"
      :line-height="lineHeight"
      :drags="dragged"
      @open="emit('open', $event.id)"
    >
      <LedgerRow
        :row="line"
        :two="two"
        :columns="columns"
        :checked="selected"
        :current="current"
        @check="ledger.toggle(line.id)"
        @open="(page, file) => emit('open', line.id, page, file)"
      />
    </ListBox>
  </div>
</template>
