<script setup lang="ts">
/** Where what is gathered goes: collections, tags, a reading state; the last few are a key away. */
import { X } from '@lucide/vue';
import { computed, ref, useTemplateRef } from 'vue';
import { READING_STATES } from '@pandecta/core/changes';
import KitButton from '../kit/KitButton.vue';
import KitCombobox from '../kit/KitCombobox.vue';
import KitField from '../kit/KitField.vue';
import KitMenu, { type MenuEntry } from '../kit/KitMenu.vue';
import { usePlaces, type Offer } from '../places/store.ts';
import { TagInput, useAsk } from '../sources/index.ts';
import { useDestination } from './destination.ts';

const destination = useDestination();
const places = usePlaces();
const ask = useAsk();
const adding = ref<'collection' | 'tag' | 'note' | null>(null);
const text = ref('');
const combo = useTemplateRef<{ focus(): void }>('combo');
const set = computed(() => destination.set);

/** The collection open in Sources is the likeliest; what is chosen already is not offered. */
const MOST = 30;
const entries = computed(() => {
  const free = places.offers(text.value).filter((o) => !o.id || !set.value.collections.includes(o.id));
  const there = free
    .filter((o) => o.id)
    .sort((a, b) => Number(b.id === ask.collection) - Number(a.id === ask.collection));
  return [...there.slice(0, MOST), ...free.filter((o) => o.make)];
});

async function addCollection(offer: Offer): Promise<void> {
  const id = await places.take(offer);
  if (id) destination.addCollection(id);
  adding.value = null;
}
const add = computed<MenuEntry[]>(() => [
  { name: 'Collection', run: () => begin('collection') },
  { name: 'Tag', run: () => begin('tag') },
  ...READING_STATES.map((state) => ({
    name: `Reading state: ${state}`,
    run: () => (set.value.reading = set.value.reading === state ? null : state),
  })),
  {
    name: 'Folders become collections',
    checked: Boolean(set.value.folders),
    run: () => void (set.value.folders = !set.value.folders),
  },
  {
    name: 'Also sources that are here already',
    checked: Boolean(set.value.known),
    run: () => void (set.value.known = !set.value.known),
  },
  { name: 'Note on this gathering', run: () => begin('note') },
]);
function begin(what: 'collection' | 'tag' | 'note'): void {
  adding.value = what;
  text.value = '';
  requestAnimationFrame(() => combo.value?.focus());
}
const recent = computed(() =>
  destination.others.map((d) => ({ name: destination.inWords(d), run: () => destination.choose(d) })),
);
</script>

<template>
  <section aria-label="Where they go">
    <h2 class="heading mb-1 flex justify-between">
      Where they go<KitMenu v-if="recent.length" :entries="recent" look="quiet" at="bottom-end" class="font-normal"
        >The last ones</KitMenu
      >
    </h2>
    <ul class="flex flex-wrap items-center gap-1.5">
      <li v-for="id in set.collections" :key="id" class="chip max-w-full">
        <span class="truncate">{{ places.pathOf(id) }}</span><KitButton
          look="bare"
          :name="`Not in ${places.pathOf(id)}`"
          @click="set.collections = set.collections.filter((c) => c !== id)"
          ><X :size="12"
        /></KitButton>
      </li>
      <li v-for="t in set.tags" :key="t" class="chip max-w-full bg-card">
        <span class="tag truncate">{{ t }}</span><KitButton
          look="bare"
          :name="`Without the tag ${t}`"
          @click="set.tags = set.tags.filter((x) => x !== t)"
          ><X :size="12"
        /></KitButton>
      </li>
      <li v-if="set.reading" class="chip">
        {{ set.reading
        }}<KitButton look="bare" :name="`Not ${set.reading}`" @click="set.reading = null"><X :size="12" /></KitButton>
      </li>
      <li v-if="set.folders" class="chip">
        folders as collections<KitButton
          look="bare"
          name="Folders do not become collections"
          @click="set.folders = false"
          ><X :size="12"
        /></KitButton>
      </li>
      <li><KitMenu :entries="add" look="quiet">+ collection, tag…</KitMenu></li>
    </ul>
    <p v-if="set.collections.length || set.tags.length" class="mt-1 text-fine text-muted">
      {{
        set.known
          ? 'New sources go there, and so do those that are here already.'
          : 'New sources go there. Those that are here already stay where they are.'
      }}
    </p>
    <KitCombobox
      v-if="adding === 'collection'"
      ref="combo"
      v-slot="{ entry }"
      v-model:text="text"
      class="mt-1.5"
      label="Name of a collection"
      placeholder="Name of a collection"
      :entries="entries"
      @choose="addCollection"
      @done="adding = null"
      ><span class="truncate">{{ entry.name }}</span></KitCombobox
    >
    <TagInput v-if="adding === 'tag'" class="mt-1.5" @add="destination.addTag" @done="adding = null" />
    <KitField
      v-if="adding === 'note' || set.note"
      v-model="set.note"
      class="mt-1.5"
      label="Note on this gathering"
      placeholder="What to remember of this gathering"
      :lines="2"
    />
  </section>
</template>
