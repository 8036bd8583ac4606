<script setup lang="ts">
/** The ledger: a virtual list of all that match. Only the lines in sight are drawn, and fetched. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { countSources } from '@pandecta/core/changes';
import { vDrag, type DragSources } from '../places/drag.ts';
import { useSession } from '../session/store.ts';
import { useAsk } from './ask.ts';
import { COLUMNS, nextSort, SORTS, sortInWords, useDensity, useShownColumns } from './columns.ts';
import { useLedger } from './ledger.ts';
import LedgerRow from './LedgerRow.vue';

const emit = defineEmits<{ open: [id: string, page?: number, file?: string] }>();
const ledger = useLedger();
const ask = useAsk();
const session = useSession();
const density = useDensity();
const shown = useShownColumns();
const scroller = ref<HTMLElement>();
const two = computed(() => density.value === 'two');
const columns = computed(() => COLUMNS.filter((c) => shown.value.includes(c.id)));
const searching = computed(() => ask.ranked);
const lineHeight = computed(() => (two.value ? (searching.value ? 68 : 50) : 31));

const virtual = useVirtualizer(
  computed(() => ({
    count: ledger.total,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => lineHeight.value,
    overscan: 12,
    getItemKey: (i: number) => ledger.lineAt(i)?.id ?? i,
  })),
);
watch(lineHeight, () => virtual.value.measure());
// Coming back from another stage, the line one was at is in sight.
onMounted(() => nextTick(() => toLine()));
const isEmpty = computed(() => ledger.state === 'ready' && !ledger.total);
const items = computed(() => virtual.value.getVirtualItems());
const drawn = computed(() => items.value.map((item) => ({ item, line: ledger.lineAt(item.index) })));
/** The line the keyboard is at, where it is drawn. */
const current = computed(() =>
  items.value.some((item) => ledger.lineAt(item.index)?.id === ledger.cursor) ? `source-${ledger.cursor}` : undefined,
);
watch([items, () => ledger.generation], () => {
  const list = items.value;
  if (list.length) void ledger.ensure(list[0]!.index - 20, list.at(-1)!.index + 40);
});
watch(
  () => [ledger.cursor, ledger.place],
  () => toLine(),
);
watch(
  () => ask.params,
  () => scroller.value?.scrollTo({ top: 0 }),
  { deep: true },
);

function toLine(): void {
  if (ledger.cursor && ledger.place < ledger.total) virtual.value.scrollToIndex(ledger.place, { align: 'auto' });
}

const allSelected = computed(() => ledger.total > 0 && ledger.count === ledger.total);
const sortOf = (key: string): string => {
  const part = (ask.sort || (searching.value ? 'relevance' : '-added'))
    .split(',')
    .find((p) => p.replace(/^-/, '') === key);
  return part && key !== 'relevance' ? (part.startsWith('-') ? '↓' : '↑') : part ? '•' : '';
};
const dragged = (id: string): DragSources =>
  ledger.chosen && ledger.isSelected(id)
    ? { what: 'sources', chosen: ledger.chosen, count: ledger.count }
    : { what: 'sources', chosen: { ids: [id] }, count: 1 };

function toggleColumn(id: (typeof COLUMNS)[number]['id']): void {
  shown.value = shown.value.includes(id) ? shown.value.filter((c) => c !== id) : [...shown.value, id];
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="flex min-h-7 items-center gap-2.5 border-b border-line px-4 py-[5px] text-fine text-muted">
      <input
        type="checkbox"
        class="h-3.5 w-3.5 accent-verdigris"
        :checked="allSelected"
        :indeterminate="ledger.count > 0 && !allSelected"
        aria-label="Select all that match"
        @change="allSelected ? ledger.unselect() : ledger.selectAll()"
      />
      <b class="text-ink" aria-live="polite">{{
        ledger.state === 'loading' ? 'Looking…' : countSources(ledger.total)
      }}</b>
      <span v-if="ledger.count">{{ ledger.count.toLocaleString('en') }} selected</span>
      <Menu as="div" class="relative ml-auto">
        <MenuButton class="hover:text-ink">Sorted by {{ sortInWords(ask.sort, searching) }}</MenuButton>
        <MenuItems class="menu absolute right-0 top-6 w-56 text-body text-ink">
          <MenuItem v-for="s in SORTS.filter((x) => searching || x.key !== 'relevance')" :key="s.key" as="template">
            <button class="menu-item" @click="ask.setSort(nextSort(ask.sort, s.key, $event.shiftKey))">
              <span class="w-4 font-mono">{{ sortOf(s.key) }}</span>{{ s.name }}
            </button>
          </MenuItem>
          <p class="border-t border-line px-3 pt-1 text-fine text-muted">
            With Shift: as a further key. Again: the other way.
          </p>
        </MenuItems>
      </Menu>
      <button class="hover:text-ink" :aria-pressed="!two" @click="density = two ? 'one' : 'two'">
        {{ two ? 'Two-line' : 'One-line' }}
      </button>
      <Menu v-if="!two" as="div" class="relative">
        <MenuButton class="hover:text-ink">Columns</MenuButton>
        <MenuItems class="menu absolute right-0 top-6 w-44 text-body text-ink">
          <MenuItem v-for="c in COLUMNS" :key="c.id" as="template"
            ><button
              class="menu-item"
              role="menuitemcheckbox"
              :aria-checked="shown.includes(c.id)"
              @click.prevent="toggleColumn(c.id)"
            >
              <span class="w-4">{{ shown.includes(c.id) ? '✓' : '' }}</span>{{ c.name }}
            </button></MenuItem
          >
        </MenuItems>
      </Menu>
    </div>
    <div
      v-if="!two && ledger.total"
      class="heading grid gap-x-[11px] border-b border-line px-4 py-0.5"
      :style="{ gridTemplateColumns: `16px 26px minmax(14rem, 2.4fr) ${columns.map((c) => c.width).join(' ')}` }"
    >
      <span /><span />
      <button class="text-left hover:text-ink" @click="ask.setSort(nextSort(ask.sort, 'title', $event.shiftKey))">
        Title {{ sortOf('title') }}
      </button>
      <template v-for="c in columns" :key="c.id"
        ><button
          v-if="c.sort"
          class="text-left hover:text-ink"
          @click="ask.setSort(nextSort(ask.sort, c.sort, $event.shiftKey))"
        >
          {{ c.name }} {{ sortOf(c.sort) }}</button
        ><span v-else>{{ c.name }}</span></template
      >
    </div>
    <div v-if="ledger.state === 'failed' || isEmpty" class="min-h-0 flex-1 overflow-auto">
      <div v-if="ledger.state === 'failed'" class="p-8 text-center" role="alert">
        <p class="text-madder">{{ ledger.error }}</p>
        <button class="btn mt-3" @click="ledger.load(false)">Try again</button>
      </div>
      <div v-else class="mx-auto max-w-md p-10 text-center">
        <template v-if="ask.scope === 'bin' && !ask.text && !ask.hasChips"
          ><h2 class="font-serif text-title">The bin is empty</h2>
          <p class="text-muted">Removed sources wait here for 30 days, with all they had.</p></template
        >
        <template v-else-if="ask.isNarrowed"
          ><h2 class="font-serif text-title">No source matches</h2>
          <p class="mb-3 text-muted">
            {{ ask.hasChips ? 'Take a chip away, or try other words.' : 'Try other words, or fewer.' }} Word forms and
            accents do not matter; a beginning is asked for with a star: sedim*
          </p>
          <button class="btn" @click="ask.clear()">Show all sources</button></template
        >
        <template v-else
          ><h2 class="font-serif text-title">No sources yet</h2>
          <p class="mb-3 text-muted">Drop PDFs, RIS, BibTeX or CSL-JSON files anywhere on this page, or begin here.</p>
          <RouterLink v-if="session.may('edit')" class="btn btn-main" to="/gather">Add sources</RouterLink></template
        >
      </div>
    </div>
    <div
      v-show="ledger.state !== 'failed' && !isEmpty"
      id="ledger"
      ref="scroller"
      class="relative min-h-0 flex-1 overflow-auto outline-none"
      tabindex="0"
      role="listbox"
      aria-label="Sources"
      aria-multiselectable="true"
      :aria-activedescendant="current"
      :aria-busy="ledger.state === 'loading'"
    >
      <div :style="{ height: `${virtual.getTotalSize()}px` }" class="relative">
        <div
          v-for="{ item, line } in drawn"
          :id="line && `source-${line.id}`"
          :key="String(item.key)"
          v-drag="() => dragged(line?.id ?? '')"
          role="option"
          :aria-selected="Boolean(line) && (ledger.isSelected(line!.id) || ledger.cursor === line!.id)"
          :aria-setsize="ledger.total"
          :aria-posinset="item.index + 1"
          class="absolute inset-x-0 top-0 cursor-default select-none"
          :style="{ height: `${item.size}px`, transform: `translateY(${item.start}px)` }"
          @click="line && ledger.click(line.id, $event)"
          @dblclick="line && emit('open', line.id)"
        >
          <LedgerRow
            v-if="line"
            :row="line"
            :two="two"
            :columns="columns"
            :checked="ledger.isSelected(line.id)"
            :current="ledger.cursor === line.id"
            @check="ledger.toggle(line.id)"
            @open="(page, file) => emit('open', line!.id, page, file)"
          />
          <div v-else class="h-full border-b border-line px-4 py-2" aria-hidden="true">
            <div class="ml-[64px] h-3.5 w-2/3 rounded bg-panel" />
          </div>
        </div>
      </div>
    </div>
  </div>
</template>
