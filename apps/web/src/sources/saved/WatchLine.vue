<script setup lang="ts">
/** Over the answer of a saved search one watches: what is new since one looked, and whether it is told by mail. */
import { computed } from 'vue';
import { printQuery } from '@pandecta/core/query';
import { formatNumber } from '@pandecta/core/wording';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import { asksTheSame, useAsk } from '../ask.ts';
import { sinceInWords } from '../values.ts';
import { useSaved } from './store.ts';

const ask = useAsk();
const saved = useSaved();
const asksNew = computed(() => ask.text.startsWith('new:'));
/** The search one set out from, as long as it is what is asked: over the answer to another question nothing is told of it. */
const search = computed(() => {
  const one = ask.saved ? saved.byId.get(ask.saved) : undefined;
  return one && (asksNew.value || asksTheSame(ask.params, one.ask)) ? one : undefined;
});
const watch = computed(() => search.value?.watch ?? null);
const fresh = computed(() => (search.value ? (saved.fresh.get(search.value.id) ?? 0) : 0));

function showNew(): void {
  const { id, name } = search.value!;
  ask.open({ id, ask: { q: printQuery({ is: 'field', field: 'new', text: name, phrase: true }) } });
}
async function see(): Promise<void> {
  const { id, ask: asked } = search.value!;
  await saved.see(id);
  if (asksNew.value) ask.open({ id, ask: asked });
}
</script>

<template>
  <div
    v-if="search && watch"
    class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-panel px-4 py-1.5 text-fine"
    role="status"
  >
    <span v-if="fresh"
      ><b>{{ formatNumber(fresh) }} new</b> in “{{ search.name }}” since {{ sinceInWords(watch.since) }}</span
    >
    <span v-else class="text-muted">Nothing new in “{{ search.name }}” since {{ sinceInWords(watch.since) }}</span>
    <KitButton v-if="fresh && !asksNew" look="word" @click="showNew">Show the new ones</KitButton>
    <KitButton v-if="asksNew" look="word" @click="ask.open(search)">Show all it finds</KitButton>
    <KitButton v-if="fresh" look="word" @click="see">I have seen them</KitButton>
    <label class="ml-auto flex items-center gap-1.5"
      ><KitCheck
        :checked="watch.mail"
        label="Tell me by mail"
        @check="saved.watch(search.id, { watched: true, mail: !watch.mail })"
      />Tell me by mail</label
    >
    <KitButton look="quiet" @click="saved.watch(search.id, { watched: false })">Stop watching it</KitButton>
    <p v-if="watch.mail && watch.says" class="w-full text-ochre">{{ watch.says }}</p>
  </div>
</template>
