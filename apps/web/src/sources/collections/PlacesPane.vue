<script setup lang="ts">
import { Plus } from '@lucide/vue';
import { nextTick, ref, useTemplateRef, watch } from 'vue';
import { countSources } from '@pandecta/core/changes';
import { useAsk } from '../ask.ts';
import { useBatch } from '../batch.ts';
import { useSession } from '../../session/store.ts';
import CollectionBranch from './CollectionBranch.vue';
import CollectionChooser from './CollectionChooser.vue';
import CollectionSheet from './CollectionSheet.vue';
import { useCollectionDeeds } from './deeds.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import { vDrop, type Drop } from '../../kit/drag.ts';
import type { Dragged } from '../../places/dragged.ts';
import { usePlaces } from '../../places/store.ts';
import { useLedger } from '../ledger/store.ts';
import SavedPane from '../saved/SavedPane.vue';

const places = usePlaces();
const ask = useAsk();
const batch = useBatch();
const session = useSession();
const adding = ref<{ parent: string | undefined } | null>(null);
const name = ref('');
const input = useTemplateRef<InstanceType<typeof KitField>>('input');
const doing = useCollectionDeeds();
/** The lines of the list are drawn first: of hundreds of saved searches the rows take as long as those. */
const listed = ref(false);
const ledger = useLedger();
watch(
  () => ledger.state !== 'loading',
  (ready) => ready && requestAnimationFrame(() => setTimeout(() => (listed.value = true))),
  { immediate: true },
);
const overBin = ref<Dragged | null>(null);

async function add(parent?: string): Promise<void> {
  adding.value = { parent };
  name.value = '';
  await nextTick();
  input.value?.focus();
}

async function finish(): Promise<void> {
  const wanted = adding.value;
  adding.value = null;
  if (wanted && name.value.trim()) await places.make(name.value.trim(), wanted.parent, !session.may('arrange'));
}

const bin: Drop<Dragged> = {
  over(d) {
    overBin.value = d;
    doing.wouldDo =
      d?.what === 'sources'
        ? `Moves ${countSources(d.count)} to the bin, where they wait ${places.reply?.binDays ?? 30} days`
        : '';
  },
  accepts: (d) => d.what === 'sources' && session.may('edit'),
  dropped: (d) => d.what === 'sources' && void batch.toBin(d.chosen),
};
</script>

<template>
  <aside class="pane px-3 py-3" aria-label="Places">
    <div class="flex items-center justify-between">
      <h2 class="heading">Collections</h2>
      <KitButton
        v-if="session.may('own')"
        look="icon"
        :name="session.may('arrange') ? 'New collection' : 'New collection, yours alone'"
        @click="add()"
        ><Plus :size="14"
      /></KitButton>
    </div>
    <form v-if="adding" class="my-1" @submit.prevent="finish">
      <KitField
        ref="input"
        v-model="name"
        :placeholder="adding.parent ? `Below ${places.byId.get(adding.parent)?.name}` : 'Name of the collection'"
        label="Name of the new collection"
        @keydown.esc.stop="adding = null"
        @blur="finish"
      />
    </form>
    <ul class="mt-1" aria-label="Collections">
      <CollectionBranch
        v-for="b in places.tree"
        :key="b.placement"
        :branch="b"
        :depth="0"
        :chosen="ask.collection"
        @choose="ask.setCollection($event)"
        @adopt="add"
      />
    </ul>
    <p v-if="places.reply && !places.tree.length" class="py-1 text-muted">
      A collection gathers sources for a chapter, a case or a reading group.
      <KitButton v-if="session.may('arrange')" look="word" @click="add()">Make the first one.</KitButton>
    </p>
    <KitButton
      v-if="places.reply?.loose"
      look="bare"
      class="mt-0.5 flex w-full justify-between rounded py-[3px] pl-[17px] pr-1.5 text-muted"
      :class="ask.scope === 'loose' && 'bg-verdtint font-semibold text-verdigris'"
      @click="ask.setScope(ask.scope === 'loose' ? 'live' : 'loose')"
    >
      In no collection<span class="count">{{ places.reply.loose }}</span>
    </KitButton>
    <SavedPane v-if="listed" class="mt-5" />
    <h2 class="heading mt-5">Bin</h2>
    <KitButton
      v-drop="bin"
      look="bare"
      class="mt-1 flex w-full justify-between rounded px-1.5 py-[3px] text-left text-muted"
      :class="[
        ask.scope === 'bin' && 'bg-verdtint font-semibold text-verdigris',
        overBin && 'bg-card outline-2 outline-dashed outline-madder',
      ]"
      @click="ask.setScope(ask.scope === 'bin' ? 'live' : 'bin')"
    >
      {{ places.reply?.bin ? `${countSources(places.reply.bin)}, kept ${places.reply.binDays} days` : 'Empty' }}
    </KitButton>
    <h2 class="heading mt-5">History</h2>
    <KitButton look="bare" class="mt-1 block px-1.5 py-[3px] text-muted hover:text-ink" to="/sources/history"
      >What was done, and by whom</KitButton
    >
    <p
      v-if="doing.wouldDo"
      class="sticky bottom-0 -mx-3 mt-3 border-t border-line bg-verdtint px-3 py-1.5 text-fine text-verdigris"
      role="status"
    >
      {{ doing.wouldDo }}
    </p>
    <CollectionChooser />
    <CollectionSheet />
  </aside>
</template>
