<script setup lang="ts">
/** All values of one kind of facet, with counts: looked through by typing, included or left out. */
import { refDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { routes, type FacetValue } from '@pandecta/contract';
import { formatNumber } from '@pandecta/core/wording';
import { ask as fetchReply } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import { useAsk } from './ask.ts';
import { useNarrow } from './narrow.ts';

const facet = defineModel<{ type: string; name: string } | null>('facet', { required: true });
const ask = useAsk();
const narrow = useNarrow();
const open = computed({ get: () => Boolean(facet.value), set: (v) => !v && (facet.value = null) });
const typed = ref('');
const within = refDebounced(typed, 200);
const by = ref<'count' | 'name'>('count');
watch(open, (now) => now && (typed.value = ''));
const {
  data: reply,
  error,
  isLoading,
} = useAsked({
  question: () => {
    const { sort: _sort, ...params } = ask.params;
    return facet.value ? { ...params, facet: facet.value.type, within: within.value.trim() || undefined } : null;
  },
  async fetch(query, signal) {
    if (!query) return null;
    const found = await fetchReply(routes.search.facet, { query, signal });
    narrow.learn(query.facet, found.values);
    return found;
  },
  concerns: (touched) => concerns(touched, ['source', 'tag', 'collection']),
});
const values = computed(() => {
  const all = [...(reply.value?.values ?? [])];
  return by.value === 'name' ? all.sort((a, b) => a.name.localeCompare(b.name, 'en')) : all;
});
const key = (v: FacetValue): string => `${facet.value!.type}=${v.key}`;
const isIn = (v: FacetValue): boolean => ask.include.includes(key(v));
const isOut = (v: FacetValue): boolean => ask.exclude.includes(key(v));
</script>

<template>
  <KitDialog v-model:open="open" :title="facet?.name ?? ''" at="side">
    <div class="mt-3 flex items-end gap-2">
      <KitField v-model="typed" class="min-w-0 flex-1" :label="`Find in ${facet?.name ?? ''}`" placeholder="Find" />
      <KitSelect
        v-model="by"
        class="w-32"
        label="Order"
        :options="[
          { value: 'count', name: 'by number' },
          { value: 'name', name: 'by name' },
        ]"
      />
    </div>
    <KitNotice v-if="error" tone="bad" class="mt-2">{{ error }}</KitNotice>
    <p v-else-if="!reply" class="mt-2 text-muted">Counting…</p>
    <p v-else-if="!values.length" class="mt-2 text-muted">No matches.</p>
    <ul class="mt-2" :aria-busy="isLoading">
      <li v-for="v in values" :key="v.key" class="flex items-baseline gap-2 border-b border-line py-1">
        <span
          class="min-w-0 flex-1 break-words"
          :class="[isIn(v) && 'font-semibold text-verdigris', isOut(v) && 'text-madder line-through']"
          >{{ v.name }}</span
        >
        <span class="count">{{ formatNumber(v.count) }}</span>
        <KitButton
          look="quiet"
          :aria-pressed="isIn(v)"
          :name="`Only with ${v.name}`"
          @click="isIn(v) ? ask.drop(key(v)) : ask.narrowTo(key(v), true)"
          >{{ isIn(v) ? '✓ with' : 'with' }}</KitButton
        >
        <KitButton
          look="quiet"
          class="hover:text-madder"
          :aria-pressed="isOut(v)"
          :name="`Without ${v.name}`"
          @click="isOut(v) ? ask.drop(key(v)) : ask.narrowTo(key(v), false)"
          >{{ isOut(v) ? '✓ without' : 'without' }}</KitButton
        >
      </li>
    </ul>
    <p v-if="reply && reply.inAll > values.length" class="mt-2 text-fine text-muted">
      {{ formatNumber(reply.inAll - values.length) }} more: type a part of the name to find them.
    </p>
  </KitDialog>
</template>
