<script setup lang="ts">
/** A collection and another, or what Sources shows, laid beside each other and brought together. */
import { useTitle } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { routes, type Chosen, type Twice } from '@pandecta/contract';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';
import { useAsk } from '../sources/index.ts';

/** In the place of a collection: what Sources shows. */
const RESULT = 'result';
const places = usePlaces();
const session = useSession();
const sources = useAsk();
const { change } = useChanges();
useTitle('Bring together');
const into = ref('');
const from = ref('');
const collections = computed(() => places.flat.map((p) => ({ value: p.id, name: `${p.path} (${p.count})` })));
const others = computed(() => [
  ...(sources.address === '/sources' ? [] : [{ value: RESULT, name: 'What Sources shows now' }]),
  ...collections.value.filter((c) => c.value !== into.value),
]);
watch(
  collections,
  ([one, other]) => {
    into.value ||= one?.value ?? '';
    from.value ||= other?.value ?? '';
  },
  { immediate: true },
);
const other = computed<Chosen>(() => ({
  matching: from.value === RESULT ? sources.body : { collection: from.value },
}));
const ready = computed(() => Boolean(into.value && from.value && into.value !== from.value));
const { data: value, error } = useAsked({
  question: () => (ready.value ? { collection: into.value, ...other.value } : null),
  fetch: (body, signal) => ask(routes.check.consolidation, { body, signal }),
  concerns: (touched) => concerns(touched, ['source', 'collection']),
});
/** What was ticked or unticked by hand; else what is sure, and no version, is merged. */
const ticked = ref<Record<string, boolean>>({});
watch([into, from], () => (ticked.value = {}));
const keyOf = (t: Twice): string => `${t.here.id} ${t.other.id}`;
const isTicked = (t: Twice): boolean => ticked.value[keyOf(t)] ?? (t.class === 'certain' && !t.versions);
const merges = computed(() => (value.value?.twice ?? []).filter(isTicked));
const files = computed(() => (value.value?.onlyThere ?? 0) - new Set(merges.value.map((t) => t.other.id)).size);
async function bring(): Promise<void> {
  const merge = merges.value.map((t) => ({ here: t.here.id, other: t.other.id }));
  await change(() => ask(routes.check.bring, { body: { collection: into.value, ...other.value, merge } }));
}
const parts = computed(() => {
  const v = value.value;
  if (!v) return [];
  return [
    { name: 'only here', n: v.onlyHere, tone: 'bg-verdigris' },
    { name: 'in both', n: v.both, tone: 'bg-ochre' },
    { name: 'only there', n: v.onlyThere, tone: 'bg-edge' },
  ];
});
</script>

<template>
  <div class="h-full overflow-auto">
    <article class="mx-auto max-w-[52rem] px-6 py-5">
      <p class="mb-3"><KitButton to="/check/duplicates">Back to Duplicates</KitButton></p>
      <h1 class="font-serif text-title font-semibold">Bring two collections together</h1>
      <p class="mt-1 text-muted">
        Sources in both stay. Duplicates are merged on the way. The other collection keeps its sources.
      </p>
      <div class="mt-3 grid grid-cols-2 gap-4">
        <KitSelect v-model="into" label="Into" above :options="collections" />
        <KitSelect v-model="from" label="From" above :options="others" />
      </div>
      <KitNotice v-if="error" tone="bad" class="mt-3">{{ error }}</KitNotice>
      <p v-else-if="ready && !value" class="mt-3 text-muted" role="status">Comparing the two collections…</p>
      <template v-else-if="value">
        <div class="mt-4 flex h-3 overflow-hidden rounded" aria-hidden="true">
          <span v-for="p in parts" :key="p.name" :class="p.tone" :style="{ flexGrow: p.n }" />
        </div>
        <ul class="mt-1.5 flex gap-6 text-fine" aria-label="How they overlap">
          <li v-for="p in parts" :key="p.name" class="flex items-baseline gap-1.5">
            <span class="inline-block size-2.5 rounded-sm" :class="p.tone" aria-hidden="true" />{{ p.name }}
            <b class="font-mono text-label">{{ formatNumber(p.n) }}</b>
          </li>
        </ul>
        <template v-if="value.twice.length">
          <h2 class="heading mt-5">There twice</h2>
          <ul aria-label="There twice">
            <li v-for="t in value.twice" :key="keyOf(t)" class="flex gap-3 border-b border-line py-2">
              <KitCheck
                v-if="session.may('edit')"
                class="mt-1 shrink-0"
                :checked="isTicked(t)"
                :label="`Merge ${t.other.title}`"
                @check="ticked = { ...ticked, [keyOf(t)]: !isTicked(t) }"
              />
              <div class="min-w-0 flex-1">
                <p class="font-serif">
                  <RouterLink class="hover:underline" :to="`/sources?at=${t.here.id}`">{{ t.here.title }}</RouterLink>
                  <span class="ml-1.5 font-sans text-fine text-muted">{{ t.here.who }}</span>
                </p>
                <p class="font-serif text-muted">
                  <RouterLink class="hover:underline" :to="`/sources?at=${t.other.id}`">{{ t.other.title }}</RouterLink>
                  <span class="ml-1.5 font-sans text-fine">{{ t.other.who }}</span>
                </p>
                <p class="text-fine" :class="t.class === 'certain' ? 'text-muted' : 'text-ochre'">
                  {{ t.class }}<template v-if="t.versions">, versions of one work</template>:
                  {{ t.reasons.map((r) => (r.for ? r.says : `but ${r.says}`)).join(', ') }}
                </p>
              </div>
            </li>
          </ul>
        </template>
        <p v-if="session.may('edit')" class="mt-4 flex items-center gap-3">
          <KitButton look="main" :disabled="!files && !merges.length" @click="bring"
            >File {{ counted(files, 'source')
            }}<template v-if="merges.length"> and merge {{ formatNumber(merges.length) }}</template></KitButton
          ><span class="text-fine text-muted">Each merge, and the filing, can be undone by itself.</span>
        </p>
      </template>
    </article>
  </div>
</template>
