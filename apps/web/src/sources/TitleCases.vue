<script setup lang="ts">
/** The titles of the chosen sources set in another case, each seen before it is changed; and the words that keep their form. */
import { X } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { MOST_AT_ONCE, routes, type Chosen } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import type { TitleCasing } from '@pandecta/core/proofing';
import { withoutMarkup } from '@pandecta/core/source';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import { turned } from '../kit/words.ts';
import { useFindingDeeds } from './findings.ts';

const props = defineProps<{ chosen: Chosen; count: number }>();
const open = defineModel<boolean>('open', { required: true });
const { change } = useChanges();
const deeds = useFindingDeeds();
const to = ref<TitleCasing>('sentence');
const CASES: { value: TitleCasing; name: string }[] = [
  { value: 'sentence', name: 'Sentence case: names and acronyms keep their capitals' },
  { value: 'title', name: 'Title case, as CSL describes it' },
  { value: 'as typed', name: 'As typed: no style alters it' },
];
const { data: value, error } = useAsked({
  question: () => (open.value ? { chosen: props.chosen, to: to.value } : null),
  fetch: (q, signal) => ask(routes.check.cases, { body: { ...q.chosen, to: q.to }, signal }),
  concerns: (touched) => concerns(touched, ['source']),
});
const left = ref(new Set<string>());
watch([open, to], () => (left.value = new Set()));
const titles = computed(() => value.value?.titles ?? []);
const taken = computed(() => titles.value.filter((t) => !left.value.has(t.source)));
function toggle(id: string): void {
  left.value = turned(left.value, id);
}
async function set(): Promise<void> {
  const mends = taken.value.slice(0, MOST_AT_ONCE).map((t) => ({ source: t.source, before: { title: t.before }, after: { title: t.after } })); // prettier-ignore
  if (await change(() => ask(routes.check.mend, { body: { rule: `case: ${to.value}`, mends } }))) open.value = false;
}
const word = ref('');
async function keep(): Promise<void> {
  const text = word.value.trim();
  if (text && (await deeds.keepWord(text))) word.value = '';
}
</script>

<template>
  <KitDialog v-model:open="open" :title="`Case of the titles of ${countSources(count)}`">
    <div class="px-4 pb-4 pt-2">
      <KitSelect v-model="to" label="Case" :options="CASES" />
      <KitNotice v-if="error" tone="bad" class="mt-2">{{ error }}</KitNotice>
      <p v-else-if="!value" class="mt-2 text-muted" role="status">Reading the titles…</p>
      <template v-else>
        <ul class="mt-2 max-h-72 divide-y divide-line overflow-auto" aria-label="Titles as they would be">
          <li v-for="t in titles" :key="t.source" class="flex gap-2.5 py-1.5">
            <KitCheck
              class="mt-1 shrink-0"
              :checked="!left.has(t.source)"
              :label="`Change “${withoutMarkup(t.before)}”`"
              @check="toggle(t.source)"
            />
            <div class="min-w-0">
              <p v-if="to !== 'as typed'" class="break-words font-serif text-madder line-through">
                <span class="sr-only">Now: </span>{{ withoutMarkup(t.before) }}
              </p>
              <p class="break-words font-serif">
                <span class="sr-only">As it would be: </span
                ><span class="bg-verdtint">{{ withoutMarkup(t.after) }}</span>
              </p>
            </div>
          </li>
        </ul>
        <p class="mt-1 text-fine text-muted">
          <template v-if="value.same">{{ countSources(value.same) }} stand so already.</template>
          <template v-if="taken.length > MOST_AT_ONCE"> The first {{ MOST_AT_ONCE }} are changed at once.</template>
        </p>
        <h3 class="heading mt-3">Words that keep their form here</h3>
        <p class="flex flex-wrap items-center gap-x-2 gap-y-1">
          <span v-for="w in value.words" :key="w" class="chip inline-flex items-center gap-1"
            >{{ w
            }}<KitButton
              look="bare"
              class="text-muted hover:text-madder"
              :name="`${w} keeps its form no longer`"
              @click="deeds.keepWord(w, false)"
              ><X :size="12" /></KitButton
          ></span>
          <KitField
            v-model="word"
            class="w-40"
            label="A word that keeps its form"
            placeholder="Add a word, Enter"
            @keydown.enter.prevent="keep"
          />
        </p>
        <p class="mt-3 flex justify-end gap-1.5">
          <KitButton @click="open = false">Cancel</KitButton
          ><KitButton look="main" :disabled="!taken.length" @click="set"
            >Change {{ countSources(Math.min(taken.length, MOST_AT_ONCE)) }}</KitButton
          >
        </p>
      </template>
    </div>
  </KitDialog>
</template>
