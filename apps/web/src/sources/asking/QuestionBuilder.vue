<script setup lang="ts">
/** The same question as nested rows. What is built is asked at once, and stands as words in the ask line. */
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import { countSources } from '@pandecta/core/changes';
import { groupOf, parseQuery, printQuery, treeOf, type Group } from '@pandecta/core/query';
import KitButton from '../../kit/KitButton.vue';
import { useAsk } from '../ask.ts';
import { useLedger } from '../ledger/store.ts';
import KeepSearch from '../saved/KeepSearch.vue';
import BuilderGroup from './BuilderGroup.vue';
import { useWords } from './words.ts';

const emit = defineEmits<{ done: [] }>();
const ask = useAsk();
const ledger = useLedger();
const words = useWords();
const panel = useTemplateRef<HTMLElement>('panel');

const asked = (): string => words(ask.params);
const group = ref<Group>(startingWith(asked()));
const text = computed(() => printQuery(treeOf(group.value)));

/** A row to begin with, where nothing is asked yet. */
function startingWith(query: string): Group {
  const built = groupOf(parseQuery(query).tree);
  if (!built.parts.length) built.parts.push({ field: 'words', text: '', exactly: false, not: false });
  return built;
}

// What is built is asked; what is asked otherwise meanwhile is what is built on.
watch(text, (now) => now !== asked() && ask.setWhole(now));
watch(asked, (now) => now !== text.value && (group.value = startingWith(now)));
onMounted(() => panel.value?.querySelector<HTMLElement>('select, input')?.focus());
</script>

<template>
  <section
    ref="panel"
    class="absolute inset-x-4 top-1.5 z-30 max-h-[calc(100%-1rem)] overflow-auto rounded-md border border-line bg-card shadow-lg"
    aria-label="Build a question"
    @keydown.esc.stop="emit('done')"
  >
    <div class="px-4 pb-2 pt-3">
      <BuilderGroup v-model="group" :depth="0" />
    </div>
    <div class="sticky bottom-0 flex items-center gap-3 border-t border-line bg-card px-4 py-2.5">
      <b class="shrink-0" aria-live="polite">{{
        ledger.state === 'loading' ? 'Looking…' : countSources(ledger.total)
      }}</b>
      <code class="min-w-0 flex-1 truncate rounded bg-panel px-2 py-1 font-mono text-label" :title="text">{{
        text || 'everything'
      }}</code>
      <KeepSearch />
      <KitButton look="main" @click="emit('done')">Done</KitButton>
    </div>
  </section>
</template>
