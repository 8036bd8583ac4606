<script setup lang="ts">
/** What is left to do before the sources of a collection can be cited, source by source, to be printed. */
import { useTitle } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { routes, type FindingOf } from '@pandecta/contract';
import { counted, formatDate, formatNumber } from '@pandecta/core/wording';
import { ask } from '../api/client.ts';
import { useCiting } from '../citing/store.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import { usePlaces } from '../places/store.ts';
import { BeforeAfter } from '../sources/index.ts';
import { thingsLeft } from './store.ts';

const route = useRoute();
const citing = useCiting();
const places = usePlaces();
const collection = computed(() => (typeof route.query.collection === 'string' ? route.query.collection : ''));
const name = computed(() => places.flat.find((p) => p.id === collection.value)?.path ?? 'All sources');
useTitle(() => `Proofing of ${name.value}`);
const { data: value, error } = useAsked({
  question: () => ({ style: citing.style.id, ...(collection.value && { collection: collection.value }) }),
  fetch: (query, signal) => ask(routes.check.findings, { query, signal }),
  concerns: (touched) => concerns(touched, ['source']),
});
const left = computed(() => thingsLeft(value.value?.rules));
const titleOf = (rule: string): string => value.value?.rules.find((r) => r.id === rule)?.title ?? rule;
/** Each source with what was found in it, in the order of titles. */
const sources = computed(() => {
  const by = new Map<string, FindingOf[]>();
  for (const f of value.value?.findings ?? []) by.set(f.source, [...(by.get(f.source) ?? []), f]);
  return [...by].map(([id, found]) => ({ id, found, title: found[0]!.title, who: found[0]!.who }))
    .sort((a, b) => (a.who || a.title).localeCompare(b.who || b.title)); // prettier-ignore
});
const today = formatDate(Date.now());
const print = (): void => window.print();
</script>

<template>
  <div class="h-full overflow-auto bg-card print:h-auto print:overflow-visible">
    <article class="mx-auto max-w-[52rem] px-8 py-6">
      <p class="mb-4 flex gap-1.5 print:hidden">
        <KitButton to="/check/proofing">Back to Proofing</KitButton
        ><KitButton look="main" :disabled="!value" @click="print">Print</KitButton>
      </p>
      <h1 class="font-serif text-display font-semibold">{{ name }}</h1>
      <KitNotice v-if="error" tone="bad" class="mt-2">{{ error }}</KitNotice>
      <p v-if="!value" class="mt-1 text-muted" role="status">Checking the records…</p>
      <template v-else>
        <p class="mt-1 text-read">
          <template v-if="left">Ready for {{ citing.style.title }}: {{ counted(left, 'thing') }} left</template
          ><template v-else>Ready for {{ citing.style.title }}: nothing is left</template>
        </p>
        <p class="text-fine text-muted">{{ counted(value.looked, 'record') }} looked over, {{ today }}</p>
        <ul class="mt-4 columns-2 gap-8 border-y border-line py-2 text-fine">
          <li v-for="r in value.rules.filter((x) => x.count)" :key="r.id" class="flex justify-between gap-2">
            <span>{{ r.title }}</span><span class="font-mono text-label">{{ r.count }}</span>
          </li>
        </ul>
        <section v-for="s in sources" :key="s.id" class="mt-4 break-inside-avoid">
          <h2 class="font-serif text-read font-semibold">
            <RouterLink class="hover:underline" :to="`/sources?at=${s.id}`">{{ s.title }}</RouterLink>
          </h2>
          <p class="text-fine text-muted">{{ s.who }}</p>
          <ul class="mt-1 space-y-1">
            <li
              v-for="f in s.found"
              :key="f.rule + f.field + f.what"
              class="grid grid-cols-[13rem_minmax(0,1fr)] gap-3"
            >
              <span class="text-fine">{{ titleOf(f.rule) }}</span>
              <div class="text-fine">
                <BeforeAfter v-if="f.mend" :finding="f" />
                <p v-else>{{ f.what }}</p>
              </div>
            </li>
          </ul>
        </section>
        <p v-if="left > value.findings.length" class="mt-4 text-fine text-muted">
          The first {{ formatNumber(value.findings.length) }} of {{ formatNumber(left) }} findings.
        </p>
      </template>
    </article>
  </div>
</template>
