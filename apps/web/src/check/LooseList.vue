<script setup lang="ts">
/** The sources of a queue of loose ends: chosen, and filed or tagged together. */
import { computed, ref, watch } from 'vue';
import { routes, type Suggestion } from '@pandecta/contract';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useDeeds } from '../act/commands.ts';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { useHeld } from '../data/held.ts';
import { concerns } from '../data/live.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitCombobox from '../kit/KitCombobox.vue';
import { turned } from '../kit/words.ts';
import { usePlaces, type Offer } from '../places/store.ts';
import { useSession } from '../session/store.ts';
import { TagInput } from '../sources/index.ts';
import LooseThings from './LooseThings.vue';
import { useCheck } from './store.ts';

const check = useCheck();
const places = usePlaces();
const session = useSession();
const { change } = useChanges();
const queue = computed(() => check.ends?.queues.find((q) => q.id === check.loose));
const chosen = ref(new Set<string>());
const doing = ref<'file' | 'tag' | null>(null);
const text = ref('');
/** The one that is looked at: for it is told where it may belong. */
const held = useHeld(() => queue.value?.sources ?? []);
const { current } = held;
watch(
  () => check.loose,
  () => ((chosen.value = new Set()), (doing.value = null), held.go(0)),
);
const suggests = computed(
  () => Boolean(queue.value?.sources.length) && queue.value!.id !== 'waiting' && session.may('edit'),
);
const { data: suggested } = useAsked({
  question: () => (suggests.value && current.value ? current.value.id : null),
  fetch: async (source, signal) => ({ source, ...(await ask(routes.check.suggestions, { source, signal })) }),
  concerns: (touched) => concerns(touched, ['source', 'collection', 'tag']),
  pause: () => 80,
});
/** Collections first, each with what is said of it and what it does; null until it is known. */
const offers = computed(() => {
  const s = suggested.value;
  if (!s || s.source !== current.value?.id) return null;
  const pathOf = (c: Suggestion): string => places.flat.find((p) => p.id === c.id)?.path ?? c.name;
  const { source } = s;
  return [
    ...s.collections.map((c) => ({
      name: pathOf(c),
      is: 'collection' as const,
      reason: c.reason,
      take: () =>
        change(() => ask(routes.places.file, { body: { ids: [source], collections: [c.id!], present: true } })),
    })),
    ...s.tags.map((t) => ({
      name: t.name,
      is: 'tag' as const,
      reason: t.reason,
      take: () => change(() => ask(routes.tags.tag, { body: { ids: [source], name: t.name, present: true } })),
    })),
  ];
});
useDeeds({
  suggestion: (event) => {
    const offer = offers.value?.[Number(event?.key) - 1];
    return offer ? void offer.take() : false;
  },
  'check-row': (event) => {
    if (!current.value) return false;
    held.step(event?.key === 'ArrowUp' ? -1 : 1);
    return undefined;
  },
});
const ids = computed(() => (queue.value?.sources ?? []).map((s) => s.id).filter((id) => chosen.value.has(id)));
const all = computed(() => queue.value?.sources.length === ids.value.length && ids.value.length > 0);
function toggle(id: string): void {
  chosen.value = turned(chosen.value, id);
}
const toggleAll = (): unknown => (chosen.value = new Set(all.value ? [] : queue.value!.sources.map((s) => s.id)));
async function fileTo(offer: Offer): Promise<void> {
  const collection = await places.take(offer);
  if (!collection) return;
  await change(() => ask(routes.places.file, { body: { ids: ids.value, collections: [collection], present: true } }));
  doing.value = null;
}
async function tagWith(name: string): Promise<void> {
  await change(() => ask(routes.tags.tag, { body: { ids: ids.value, name, present: true } }));
  doing.value = null;
}
</script>

<template>
  <EmptyState v-if="check.ends && !check.ends.queues.some((q) => q.count)" title="Nothing is unfiled"
    >Every source is in a collection, and the intake is empty.</EmptyState
  >
  <template v-else-if="queue">
    <header>
      <h1 class="flex items-baseline gap-3 font-serif text-title font-semibold">
        {{ queue.title }}<span class="font-sans text-fine font-normal text-muted">{{ formatNumber(queue.count) }}</span>
      </h1>
      <p class="mt-1 text-muted">{{ queue.why }}</p>
    </header>
    <div
      v-if="queue.sources.length && queue.id !== 'waiting'"
      class="mt-3 flex min-h-8 items-center gap-3 border-b border-line pb-1.5 text-fine text-muted"
    >
      <KitCheck :checked="all" :some="ids.length > 0 && !all" label="Choose all that are shown" @check="toggleAll" />
      <span>{{ ids.length ? `${counted(ids.length, 'source')} chosen` : 'Choose what belongs together' }}</span>
      <template v-if="ids.length && session.may('edit')">
        <span v-if="doing === 'file'" class="w-72"
          ><KitCombobox
            v-slot="{ entry }"
            v-model:text="text"
            label="Collection"
            placeholder="Name of the collection"
            :entries="places.offers(text)"
            @choose="fileTo($event)"
            @done="doing = null"
            >{{ entry.name }}</KitCombobox
          ></span
        >
        <span v-else-if="doing === 'tag'" class="w-72"><TagInput @add="tagWith" @done="doing = null" /></span>
        <template v-else>
          <KitButton @click="((text = ''), (doing = 'file'))">File in…</KitButton>
          <KitButton @click="doing = 'tag'">Tag…</KitButton>
        </template>
      </template>
    </div>
    <p v-if="queue.id === 'waiting' && queue.count" class="mt-3">
      <KitButton look="word" to="/gather">Go to the intake</KitButton>
    </p>
    <ul class="mt-1" :aria-label="queue.title">
      <li
        v-for="s in queue.sources"
        :key="s.id"
        class="flex gap-3 border-b border-line px-1.5 py-2"
        :class="s === current && suggests && 'bg-verdtint'"
        :aria-current="s === current && suggests ? 'true' : undefined"
        @click="held.id.value = s.id"
      >
        <KitCheck
          v-if="queue.id !== 'waiting'"
          class="mt-1 shrink-0"
          :checked="chosen.has(s.id)"
          :label="`Choose ${s.title}`"
          @check="toggle(s.id)"
        />
        <div class="min-w-0 flex-1">
          <RouterLink class="font-serif font-semibold hover:underline" :to="`/sources?at=${s.id}`">{{
            s.title
          }}</RouterLink>
          <span class="block text-fine text-muted">{{ s.who }}</span>
          <ul
            v-if="s === current && offers?.length"
            class="mt-1.5 flex flex-wrap gap-x-4 gap-y-1"
            aria-label="Suggestions"
          >
            <li v-for="(o, k) in offers" :key="o.is + o.name" class="text-fine">
              <KitButton
                look="bare"
                class="group inline-flex items-baseline gap-1.5 text-left"
                :title="`${k + 1}`"
                @click.stop="o.take()"
                ><kbd class="rounded border border-edge px-1 font-mono text-label">{{ k + 1 }}</kbd
                ><span class="underline-offset-2 group-hover:underline" :class="o.is === 'tag' && 'tag'">{{
                  o.is === 'collection' ? `File in ${o.name}` : o.name
                }}</span
                ><span class="text-muted">{{ o.reason }}</span></KitButton
              >
            </li>
          </ul>
          <p v-else-if="s === current && suggests && offers" class="mt-1.5 text-fine text-muted">
            Not similar to any filed or tagged source.
          </p>
        </div>
      </li>
      <LooseThings :queue="queue" />
    </ul>
    <p v-if="!queue.count" class="mt-3 text-muted">Nothing here.</p>
    <p v-if="queue.sources.length && queue.count > queue.sources.length" class="mt-2 text-fine text-muted">
      The first {{ queue.sources.length }} of {{ formatNumber(queue.count) }}; the rest appear when these are done.
    </p>
  </template>
</template>
