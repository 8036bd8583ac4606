<script setup lang="ts">
/** Read: the documents that are open, one of them or two side by side. */
import { Columns2 } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { OpenDocument } from '@pandecta/contract';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import KitTabs from '../kit/KitTabs.vue';
import { useAsk } from '../sources/index.ts';
import DocumentPane from './DocumentPane.vue';
import { useTabs } from './tabs.ts';

const route = useRoute();
const router = useRouter();
const tabs = useTabs();
const ask = useAsk();

const first = computed(() => {
  const { source, file } = route.params;
  return route.name === 'read' && source && file ? { source: String(source), file: String(file) } : undefined;
});
/** What stands beside it: the address says so, as source and file. */
const second = computed(() => {
  const [source, file] = String(route.query.beside ?? '').split('/');
  return source && file ? { source, file } : undefined;
});
/** Which of the two keys are for. */
const active = ref<0 | 1>(0);
watch(second, (now) => !now && (active.value = 0));
const current = computed(() => (active.value === 1 ? second.value : first.value)?.file);

watch(
  first,
  async (now) => {
    if (now || route.name !== 'read') return;
    await tabs.loaded;
    const { current: known } = tabs;
    if (known && route.name === 'read' && !first.value) await router.replace(addressOf(known));
  },
  { immediate: true },
);

const addressOf = ({ source, file }: Pick<OpenDocument, 'source' | 'file'>): string => `/read/${source}/${file}`;
/** The address with another beside, or without. */
const withBeside = (beside: Pick<OpenDocument, 'source' | 'file'> | undefined) => ({
  path: addressOf(first.value!),
  query: beside ? { beside: `${beside.source}/${beside.file}` } : {},
});
const entries = computed(() =>
  tabs.open.map((tab) => ({
    key: tab.file,
    name: tab.title || 'Document',
    // In the one of the two that one is at.
    to: !second.value
      ? addressOf(tab)
      : active.value === 1
        ? `${addressOf(first.value!)}?beside=${tab.source}/${tab.file}`
        : `${addressOf(tab)}?beside=${second.value.source}/${second.value.file}`,
    tab,
  })),
);
const beside = computed<MenuEntry[]>(() => [
  { name: 'This document a second time', run: () => void router.push(withBeside(first.value)) },
  ...tabs.open
    .filter((t) => t.file !== first.value?.file)
    .map((tab) => ({ name: tab.title || 'Document', run: () => void router.push(withBeside(tab)) })),
]);
async function close(tab: OpenDocument): Promise<void> {
  const next = tabs.close(tab.file);
  if (tab.file === second.value?.file && tab.file !== first.value?.file) return void router.push(withBeside(undefined));
  if (tab.file !== first.value?.file && next) return;
  const left = second.value?.file !== tab.file ? second.value : undefined;
  await router.push(left ? addressOf(left) : next ? addressOf(next) : ask.address);
}
const numberOf = (asked: unknown): number | undefined => Number(asked) || undefined;
</script>

<template>
  <div class="flex h-full flex-col bg-desk">
    <h1 class="sr-only">Read</h1>
    <div v-if="tabs.open.length" class="flex shrink-0 items-center">
      <KitTabs
        class="min-w-0 flex-1"
        label="Open documents"
        :tabs="entries"
        :current="current"
        @close="close($event.tab)"
      />
      <KitButton v-if="second" look="quiet" class="mr-4" @click="router.push(withBeside(undefined))"
        >Close the right one</KitButton
      >
      <KitMenu v-else-if="first" :entries="beside" look="quiet" at="bottom-end" class="mr-4" name="Show another beside"
        ><span class="flex items-center gap-1.5"><Columns2 :size="15" aria-hidden="true" />Beside</span></KitMenu
      >
    </div>
    <div v-if="!first && !tabs.open.length" class="grid flex-1 place-items-center">
      <EmptyState title="No document is open"
        >Choose a source with a file and press Enter, or “Read” on its slip.<template #deeds
          ><KitButton to="/sources?include=file%3Dtext">Sources with full text</KitButton
          ><KitButton to="/read/marks">Marks across sources</KitButton></template
        ></EmptyState
      >
    </div>
    <div v-else-if="first" class="flex min-h-0 flex-1">
      <DocumentPane
        v-bind="first"
        class="min-w-0 flex-1"
        :aria-label="second ? 'Left document' : undefined"
        role="group"
        :page="numberOf(route.query.page)"
        :mark="route.query.mark ? String(route.query.mark) : undefined"
        :question="route.query.q ? String(route.query.q) : undefined"
        :narrow="second !== undefined"
        :used="active === 0"
        @focusin="active = 0"
        @pointerdown.capture="active = 0"
        @opened="tabs.show({ ...first!, title: $event })"
      />
      <DocumentPane
        v-if="second"
        v-bind="second"
        class="min-w-0 flex-1 border-l-2 border-line"
        aria-label="Right document"
        role="group"
        narrow
        :again="second.file === first.file"
        :used="active === 1"
        @focusin="active = 1"
        @pointerdown.capture="active = 1"
        @opened="second!.file !== first!.file && tabs.show({ ...second!, title: $event })"
      />
    </div>
  </div>
</template>
