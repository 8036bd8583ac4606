<script setup lang="ts">
/**
 * `f`: files the chosen sources by typing names of collections, or makes one of that name; moves them there, or takes them
 * from there.
 */
import { computed, ref, watch } from 'vue';
import { routes, type Chosen } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import ChooseBox from '../../kit/ChooseBox.vue';
import { ask as fetchReply } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import { hasWords } from '../../kit/words.ts';
import { usePlaces, type Offer } from '../../places/store.ts';
import OfferLine from './OfferLine.vue';
import { useAsk } from '../ask.ts';

export type Filing = 'file' | 'move' | 'take out';

const props = defineProps<{ chosen: Chosen; count: number }>();
const how = defineModel<Filing>('how', { default: 'file' });
const open = defineModel<boolean>('open', { required: true });
const places = usePlaces();
const ask = useAsk();
const text = ref('');
const ticked = ref<Offer[]>([]);
watch(open, () => (ticked.value = []));

/** What one looks at is what they are moved out of. */
const from = computed(() => (ask.collection ? places.byId.get(ask.collection) : undefined));
const mode = computed<Filing>(() => (how.value === 'move' && !from.value ? 'file' : how.value));
const n = computed(() => countSources(props.count));
const title = computed(
  () =>
    ({
      file: `File ${n.value} in`,
      move: `Move ${n.value} from ${from.value?.name ?? ''} to`,
      'take out': `Take ${n.value} out of`,
    })[mode.value],
);
const modes = computed<[Filing, string][]>(() => [
  ['file', 'File'],
  ...(from.value ? [['move', `Move from ${from.value.name}`] satisfies [Filing, string]] : []),
  ['take out', 'Take out'],
]);

/** Of very many that fit, and the new one, which stands last. */
const MOST = 40;
/** Taken out of is what one of them stands in, and nothing else. */
const { data: standing } = useAsked({
  question: () => (open.value && mode.value === 'take out' ? props.chosen : null),
  fetch: (body, signal) => fetchReply(routes.sources.summary, { body, signal }),
  concerns: (touched) => concerns(touched, ['source', 'collection']),
});
const entries = computed<Offer[]>(() => {
  if (mode.value === 'take out' && standing.value)
    return standing.value.collections
      .filter((c) => hasWords(c.path, text.value.trim()))
      .map((c) => ({ key: c.path, name: c.path, count: c.count, id: c.id }));
  const all = places.offers(text.value);
  // Until it is known where they stand any may be meant; taken out of one they are not in, nothing happens.
  return [...all.filter((o) => o.id).slice(0, MOST), ...all.filter((o) => o.make && mode.value !== 'take out')];
});

const tick = (offer: Offer): void =>
  void (ticked.value = ticked.value.some((t) => t.key === offer.key)
    ? ticked.value.filter((t) => t.key !== offer.key)
    : [...ticked.value, offer]);

async function choose(offer?: Offer): Promise<void> {
  const [chosen, out] = [props.chosen, from.value?.id];
  const wanted = [...ticked.value, ...(offer && !ticked.value.some((t) => t.key === offer.key) ? [offer] : [])];
  const into: string[] = [];
  for (const each of wanted) {
    const target = await places.take(each);
    if (target) into.push(target);
  }
  const as = mode.value;
  if (into.length)
    await places.file(chosen, into, { present: as !== 'take out', from: as === 'move' ? out : undefined });
}
</script>

<template>
  <ChooseBox
    v-model:open="open"
    v-model:text="text"
    :title="title"
    label="Name of a collection"
    :entries="entries"
    :none="mode === 'take out' ? 'They are in no matching collection' : 'No matching collection'"
    several
    :ticked="ticked.map((t) => t.key)"
    @tick="tick"
    @choose="choose"
  >
    <template #default="{ entry }">
      <OfferLine :offer="entry" />
    </template>
    <template #bottom>
      <div class="flex min-h-9 items-center gap-2 border-t border-line px-4 py-1.5 text-fine text-muted">
        <template v-if="ticked.length">
          <span class="min-w-0 flex-1 truncate">{{ ticked.map((t) => t.name).join(', ') }}</span>
          <KitButton look="main" @click="(choose(), (open = false))">{{
            mode === 'take out' ? 'Take out' : mode === 'move' ? 'Move' : 'File'
          }}</KitButton>
        </template>
        <span v-else class="flex-1">Enter chooses the highlighted collection; Shift+Enter ticks several.</span>
        <span class="flex shrink-0 gap-2.5" role="group" aria-label="What is done">
          <KitButton
            v-for="[as, name] in modes"
            :key="as"
            look="quiet"
            :aria-pressed="mode === as"
            :class="mode === as && 'font-semibold text-verdigris'"
            @click="how = as"
            >{{ name }}</KitButton
          >
        </span>
      </div>
    </template>
  </ChooseBox>
</template>
