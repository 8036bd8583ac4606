<script setup lang="ts">
/** What the document lists as its references, read on request: which of them are here, said to be cited with one press. */
import { computed, ref, watch } from 'vue';
import { routes, type ListedSource, type ListedSources } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitNotice from '../../kit/KitNotice.vue';
import { turned } from '../../kit/words.ts';
import { useSession } from '../../session/store.ts';

const props = defineProps<{ id: string }>();
const { change, tell } = useChanges();
const session = useSession();
const reading = ref(false);
const error = ref('');
const found = ref<ListedSources | null>(null);
/** The places in the list of what one takes. */
const taken = ref(new Set<number>());
watch(
  () => props.id,
  () => (found.value = null),
);

async function read(): Promise<void> {
  const source = props.id;
  reading.value = true;
  error.value = '';
  try {
    const reply = await ask(routes.relations.listed, { source });
    if (source !== props.id) return;
    found.value = reply;
    // Those that are surely here are taken; of what is unsure, and of what is not here, one says so oneself.
    taken.value = new Set(reply.listed.flatMap((l, i) => (l.here && !l.unsure && !l.said ? [i] : [])));
  } catch (cause) {
    error.value = (cause as Error).message;
  } finally {
    reading.value = false;
  }
}
const listed = computed(() => found.value?.listed ?? []);
const here = computed(() => listed.value.filter((l) => l.here).length);
const chosen = computed(() => listed.value.filter((_, i) => taken.value.has(i)));
const toSay = computed(() => [...new Set(chosen.value.flatMap((l) => (l.here && !l.said ? [l.here.id] : [])))]);
const toGather = computed(() => chosen.value.filter((l) => !l.here));

const stateOf = (l: ListedSource): string =>
  l.said ? 'said already' : l.unsure ? 'may be this one' : l.here ? 'is here' : 'not here';

async function say(): Promise<void> {
  if (await change(() => ask(routes.relations.cites, { source: props.id, body: { cited: toSay.value } }))) await read();
}
async function gather(): Promise<void> {
  const text = toGather.value.map((l) => l.text).join('\n\n');
  try {
    await ask(routes.gather.typed, { body: { text } });
    tell(`${counted(toGather.value.length, 'reference')} went to the intake`);
    taken.value = new Set([...taken.value].filter((i) => listed.value[i]!.here));
  } catch (cause) {
    tell((cause as Error).message, null, true);
  }
}
</script>

<template>
  <div class="mt-2 print:hidden">
    <KitButton v-if="!found" look="quiet" :disabled="reading" @click="read">{{
      reading ? 'Reading its pages…' : 'Read its own list of references'
    }}</KitButton>
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <template v-if="found">
      <p class="text-fine text-muted" role="status">
        <template v-if="!found.file">None of its files has text to read.</template>
        <template v-else-if="!listed.length"
          >No list of references was found in {{ found.file }}: none stands under a heading of its own.</template
        >
        <template v-else
          >{{ counted(listed.length, 'reference') }} in {{ found.file }};
          {{ here === 1 ? 'one of them is here' : `${here} of them are here` }}.</template
        >
      </p>
      <ol class="mt-1 max-h-96 overflow-auto" aria-label="Its own list of references">
        <li v-for="(l, i) in listed" :key="i" class="flex items-start gap-2 border-b border-line py-1">
          <KitCheck
            class="mt-0.5"
            :checked="taken.has(i)"
            :disabled="l.said"
            :label="l.here ? `It cites ${l.here.title}` : `Gather ${l.text}`"
            @check="taken = turned(taken, i)"
          />
          <span class="min-w-0 flex-1 text-fine"
            >{{ l.text
            }}<RouterLink
              v-if="l.here"
              class="ml-1.5 font-serif text-body text-verdigris hover:underline"
              :to="`/sources/${l.here.id}`"
              >{{ l.here.title }}</RouterLink
            ></span
          >
          <span class="shrink-0 text-fine" :class="l.unsure ? 'text-ochre' : 'text-muted'"
            >{{ stateOf(l) }} · p. {{ l.page }}</span
          >
        </li>
      </ol>
      <p v-if="listed.length && session.may('edit')" class="mt-2 flex flex-wrap gap-1.5">
        <KitButton look="main" :disabled="!toSay.length" @click="say"
          >Say it cites {{ countSources(toSay.length) }}</KitButton
        >
        <KitButton :disabled="!toGather.length" @click="gather"
          >Gather {{ counted(toGather.length, 'reference') }}</KitButton
        >
        <KitButton look="quiet" @click="found = null">Close the list</KitButton>
      </p>
    </template>
  </div>
</template>
