<script setup lang="ts">
/** Another collection is chosen by its name: to stand under, to be made part of it, to be compared with. */
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import ChooseBox from '../../kit/ChooseBox.vue';
import { usePlaces, type Offer } from '../../places/store.ts';
import OfferLine from './OfferLine.vue';
import { useCollectionDeeds, type Choice } from './deeds.ts';

const deeds = useCollectionDeeds();
const places = usePlaces();
const router = useRouter();
const text = ref('');
const open = computed({
  get: () => Boolean(deeds.choosing),
  set: (v) => !v && (deeds.choosing = null),
});
const TITLES: Record<Choice, (name: string) => string> = {
  move: (name) => `Move ${name} under`,
  place: (name) => `Place ${name} under another as well`,
  merge: (name) => `Merge another into ${name}: its sources and the collections below it`,
  compare: (name) => `Compare ${name} with`,
};
const TOP = 'At the top';
const title = computed(() =>
  deeds.choosing ? TITLES[deeds.choosing.what](deeds.choosing.branch.collection.name) : '',
);
const entries = computed<Offer[]>(() => {
  const { what, branch } = deeds.choosing ?? {};
  if (!branch) return [];
  const top = what === 'move' && branch.parent && !text.value ? [{ key: 'top', name: TOP }] : [];
  return [...top, ...places.offers(text.value).filter((o) => o.id && o.id !== branch.collection.id)];
});

function choose(offer: Offer): void {
  if (!deeds.choosing) return;
  const { what, branch } = deeds.choosing;
  const { id } = branch.collection;
  const parent = offer.id ?? null;
  if (what === 'move') void places.place({ collection: id, parent, movedFrom: branch.placement });
  else if (what === 'place') void places.place({ collection: id, parent });
  else if (what === 'merge') void places.merge(id, [offer.id!]);
  else void router.push({ path: '/sources/compare', query: { of: [id, offer.id!] } });
}
</script>

<template>
  <ChooseBox
    v-model:open="open"
    v-model:text="text"
    :title="title"
    label="Name of a collection"
    :entries="entries"
    none="No matching collection"
    @choose="choose"
  >
    <template #default="{ entry }">
      <OfferLine :offer="entry" />
    </template>
  </ChooseBox>
</template>
