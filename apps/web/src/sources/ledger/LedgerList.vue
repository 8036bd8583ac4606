<script setup lang="ts">
/** The ledger: the list of all sources that match, how it is sorted, and what its lines show. */
import { computed, useTemplateRef, watch } from 'vue';
import { SORT_KEYS, SORTS, type SourceRow } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { formatNumber } from '@pandecta/core/wording';
import type { DragSources } from '../../places/dragged.ts';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitMenu from '../../kit/KitMenu.vue';
import KitNotice from '../../kit/KitNotice.vue';
import ListBox from '../../list/ListBox.vue';
import { usePlaces } from '../../places/store.ts';
import { useSession } from '../../session/store.ts';
import { asksTheSame, useAsk } from '../ask.ts';
import { useNarrow } from '../narrow.ts';
import { COLUMNS, DENSITIES, nextSort, sortInWords, useLook, type Density } from './columns.ts';
import { useLedger } from './store.ts';
import OverviewPicture from '../overview/OverviewPicture.vue';
import WatchLine from '../saved/WatchLine.vue';
import BinLine from './BinLine.vue';
import LedgerHead from './LedgerHead.vue';
import LedgerRow from './LedgerRow.vue';

const emit = defineEmits<{ open: [id: string, page?: number, file?: string] }>();
const ledger = useLedger();
const ask = useAsk();
const session = useSession();
const look = useLook();
const narrow = useNarrow();
const places = usePlaces();
const box = useTemplateRef<{ toTop(): void }>('box');
/** Ranked: within groups what is best is not told apart. */
const searching = computed(() => ask.ranked && !ask.group);
const LINE_HEIGHTS = { full: 88, two: 50, one: 31 } as const;
/** Words that were asked for are shown with where they stand, which takes a line more. */
const lineHeight = computed(() => LINE_HEIGHTS[look.density] + (look.density !== 'one' && ask.ranked ? 18 : 0));

const shownAs = computed(() => [
  { name: 'List', on: !ask.picture, run: () => ask.setPicture(undefined) },
  { name: 'Picture', on: Boolean(ask.picture), run: () => ask.setPicture('together') },
]);

/** The collection in scope was removed; or it is there, and nothing else is asked, and holds nothing. */
const isGone = computed(
  () =>
    ask.collection !== undefined &&
    places.reply !== null &&
    !places.reply.collections.some((c) => c.id === ask.collection),
);
const isBare = computed(() => Boolean(ask.collection) && asksTheSame(ask.params, { collection: ask.collection! }));
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
    run: (event: MouseEvent) => sortBy(key, event.shiftKey),
  })),
);
const sortBy = (key: keyof typeof SORTS, add: boolean): void => ask.setSort(nextSort(ask.sort, key, add));
const densities = computed(() =>
  (Object.keys(DENSITIES) as Density[]).map((d) => ({
    name: DENSITIES[d],
    sign: look.density === d ? '✓' : '',
    run: () => look.setDensity(d),
  })),
);
const columnEntries = computed(() => [
  ...COLUMNS.map((c) => ({
    name: c.name,
    checked: look.columns.some((shown) => shown.id === c.id),
    run: () => look.toggle(c.id),
  })),
  ...(look.isOwn ? [{ name: 'As in the whole workspace', sign: '', run: look.forget }] : []),
]);

const groupings = computed(() => [
  { name: 'No groups', sign: ask.group ? '' : '✓', run: () => ask.setGroup(undefined) },
  ...narrow.groupings.map(({ type, name }) => ({
    name,
    sign: ask.group === type ? '✓' : '',
    run: () => ask.setGroup(type),
  })),
]);
const groupName = computed(() => narrow.grouping.toLowerCase() || ask.group);
const beginsGroup = (line: SourceRow, before: SourceRow | undefined): boolean =>
  Boolean(line.group) && line.group!.key !== before?.group?.key;
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
      <span v-if="ledger.count">{{ formatNumber(ledger.count) }} selected</span>
      <KitMenu v-if="!ask.picture" :entries="sorts" look="quiet" at="bottom-end" class="ml-auto"
        >Sorted by {{ sortInWords(ask.sort, searching)
        }}<template #bottom
          ><p class="mt-1 border-t border-line px-3 pt-1 text-fine text-muted">
            Shift-click adds a sort; click again to reverse.
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
      <template v-if="!ask.picture">
        <KitMenu :entries="groupings" look="quiet" at="bottom-end">{{
          ask.group ? `By ${groupName}` : 'Groups'
        }}</KitMenu>
        <KitMenu :entries="densities" look="quiet" at="bottom-end">{{ DENSITIES[look.density] }}</KitMenu>
        <KitMenu v-if="look.density === 'one'" :entries="columnEntries" look="quiet" at="bottom-end">Columns</KitMenu>
        <KitButton v-if="ledger.total" look="quiet" :to="ask.listAddress">Print or save</KitButton>
      </template>
    </div>
    <LedgerHead v-if="look.density === 'one' && ledger.total && !ask.picture" :sign-of="sortOf" @sort="sortBy" />
    <BinLine v-if="ask.scope === 'bin'" />
    <WatchLine v-if="ask.saved" />
    <p v-if="ledger.isOutside" role="status" class="border-b border-line bg-ochretint px-4 py-1 text-fine text-ochre">
      The chosen source is not in this list: it is in the bin or the intake, or does not match the question.
    </p>
    <OverviewPicture v-if="ask.picture && ledger.state !== 'failed' && !isEmpty" />
    <div v-if="ledger.state === 'failed' || isEmpty" class="min-h-0 flex-1 overflow-auto">
      <div v-if="ledger.state === 'failed'" class="p-8 text-center">
        <KitNotice tone="bad">{{ ledger.error }}</KitNotice>
        <KitButton class="mt-3" @click="ledger.load(false)">Try again</KitButton>
      </div>
      <EmptyState v-else-if="ask.scope === 'bin' && !ask.text && !ask.hasChips" title="The bin is empty"
        >Removed sources stay here for a while, with everything attached.</EmptyState
      >
      <EmptyState v-else-if="isGone" title="This collection is not there any more"
        >It was removed; its sources are still here.<template #deeds
          ><KitButton @click="ask.clear()">Show all sources</KitButton></template
        ></EmptyState
      >
      <EmptyState v-else-if="isBare" title="Nothing is filed here yet"
        >Choose sources and press <kbd>f</kbd> to file them here, drag them onto its name under Collections, or gather
        something straight into it.<template #deeds
          ><KitButton @click="ask.clear()">Show all sources</KitButton
          ><KitButton v-if="session.may('gather')" look="main" :to="`/gather?into=${ask.collection}`"
            >Gather into it</KitButton
          ></template
        ></EmptyState
      >
      <EmptyState v-else-if="ask.isNarrowed" title="No source matches"
        ><span
          v-for="n in ledger.isAsking ? [] : ledger.notes"
          :key="`${n.start} ${n.says}`"
          class="block text-ochre"
          >{{ n.says }}</span
        ><span v-for="w in ledger.why" :key="w" class="block text-ink">{{ w }}</span
        ><span v-if="!ledger.why.length && !ledger.notes.length"
          >{{ ask.hasChips ? 'Remove a filter, or try other words.' : 'Try other words, or fewer.' }} Word forms and
          accents do not matter. Find words by how they begin with a star: sedim*</span
        ><template #deeds><KitButton @click="ask.clear()">Show all sources</KitButton></template></EmptyState
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
      :list="ledger"
      label="Sources"
      :line-height="lineHeight"
      :drags="dragged"
      :begins="ask.group ? beginsGroup : undefined"
      :head-height="30"
      @open="emit('open', $event.id)"
    >
      <template #default="{ line, selected, current }"
        ><LedgerRow
          :row="line"
          :checked="selected"
          :current="current"
          @check="ledger.toggle(line.id)"
          @open="(page, file) => emit('open', line.id, page, file)"
      /></template>
      <template #head="{ line }">
        <p class="flex h-full items-baseline gap-2 border-b border-line bg-panel px-4 pt-1.5">
          <b class="truncate">{{ line.group?.name || `No ${groupName}` }}</b>
          <span class="count">{{ formatNumber(line.group?.count) }}</span>
        </p>
      </template>
    </ListBox>
  </div>
</template>
