<script setup lang="ts">
/** Tags and collections hardly used, and watches that fail: each leads to what it is of, and can be taken away. */
import { routes, type LooseQueue, type LooseThing } from '@pandecta/contract';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';

const props = defineProps<{ queue: LooseQueue }>();
const places = usePlaces();
const session = useSession();
const { change } = useChanges();

const addressOf = ({ id }: LooseThing): string =>
  props.queue.id === 'rare-tags'
    ? `/sources?include=${encodeURIComponent(`tag=${id}`)}`
    : props.queue.id === 'thin-collections'
      ? `/sources?collection=${id}`
      : '/gather';

/** Where a collection stands: it is taken from each place, and its sources stay. */
const placementsOf = (id: string): string[] =>
  (places.reply?.placements ?? []).flatMap((p) => (p.collection === id ? [p.id] : []));
async function remove(thing: LooseThing): Promise<void> {
  if (props.queue.id === 'rare-tags') {
    const matching = { include: [`tag=${thing.id}`] };
    await change(() => ask(routes.tags.tag, { body: { matching, name: thing.name, present: false } }));
  } else for (const placement of placementsOf(thing.id)) await places.unplace(placement);
}
</script>

<template>
  <li v-for="t in queue.things" :key="t.id" class="flex items-baseline gap-3 border-b border-line py-2">
    <RouterLink class="min-w-0 flex-1 font-serif hover:underline" :to="addressOf(t)">{{ t.name }}</RouterLink>
    <KitButton
      v-if="queue.id !== 'failing-watches' && session.may('edit')"
      look="quiet"
      :title="queue.id === 'rare-tags' ? 'The source stays, without the tag' : 'Its sources stay'"
      @click="remove(t)"
      >{{ queue.id === 'rare-tags' ? 'Take it away' : 'Remove it from its place' }}</KitButton
    >
  </li>
</template>
