<script setup lang="ts">
/** Check: three queues on the left, each with a count that goes to zero; what one is at on the right. */
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { formatNumber } from '@pandecta/core/wording';
import KitNotice from '../kit/KitNotice.vue';
import SplitHandle from '../kit/SplitHandle.vue';
import CompareRecords from './CompareRecords.vue';
import DuplicatesQueue from './DuplicatesQueue.vue';
import LooseList from './LooseList.vue';
import LooseQueues from './LooseQueues.vue';
import ProofFindings from './ProofFindings.vue';
import ProofRules from './ProofRules.vue';
import { QUEUES, useCheck } from './store.ts';

const check = useCheck();
const left = useLocalStorage('check width', 268);
/** What one is at has a heading of its own; while nothing is there yet, or any more, the queue’s name is it. */
const isHeaded = computed(
  () =>
    ({
      duplicates: Boolean(check.group),
      proofing: Boolean(check.findings?.rules.some((r) => r.id === check.rule)),
      filing: Boolean(check.ends?.queues.some((q) => q.count)),
    })[check.queue],
);
const NAMES = { duplicates: 'Duplicates', proofing: 'Proofing', filing: 'Filing' };
</script>

<template>
  <div class="flex h-full">
    <h1 v-if="!isHeaded" class="sr-only">{{ NAMES[check.queue] }}</h1>
    <aside class="pane flex shrink-0 flex-col" :style="{ width: `${left}px` }" aria-label="Queues">
      <nav class="flex gap-1 px-3.5 py-3 text-fine" aria-label="What is checked">
        <RouterLink
          v-for="q in QUEUES"
          :key="q"
          :to="`/check/${q}`"
          :aria-current="check.queue === q ? 'page' : undefined"
          class="whitespace-nowrap rounded-[5px] px-2 py-1"
          :class="check.queue === q ? 'bg-top font-semibold text-[#f4f1e9]' : 'text-muted hover:text-ink'"
          >{{ NAMES[q] }} {{ formatNumber(check.counts[q]) }}</RouterLink
        >
      </nav>
      <div class="min-h-0 flex-1 overflow-auto px-3.5 pb-4 pt-1">
        <DuplicatesQueue v-if="check.queue === 'duplicates'" />
        <ProofRules v-else-if="check.queue === 'proofing'" />
        <LooseQueues v-else />
      </div>
    </aside>
    <SplitHandle v-model="left" :min="220" :max="420" side="left" label="Width of the queues" />
    <section class="min-w-0 flex-1 overflow-auto px-5 py-4" :aria-label="NAMES[check.queue]">
      <KitNotice v-if="check.troubled" tone="bad" class="mb-3">{{ check.troubled }}</KitNotice>
      <CompareRecords v-if="check.queue === 'duplicates'" />
      <ProofFindings v-else-if="check.queue === 'proofing'" />
      <LooseList v-else />
    </section>
  </div>
</template>
