<script setup lang="ts">
/** Marks across sources: filtered by what they are on, their sense, shape, person and words; sorted; taken out as a file. */
import { computed, reactive, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { MARK_SORTS, routes, type MarkCount, type MarksAsked, type MarkSort } from '@pandecta/contract';
import { MARK_FORMATS, MARK_INFO } from '@pandecta/core/mark-export';
import { placeWritten } from '@pandecta/core/page-numbers';
import { SHAPES, SHAPE_NAMES, type Shape } from '@pandecta/core/marks';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { useNoting } from '../../act/noting.ts';
import { addressOf, ask, send } from '../../api/client.ts';
import { useCiting } from '../../citing/store.ts';
import { allOf as all, firstOf } from '../../data/address.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitField from '../../kit/KitField.vue';
import KitMenu from '../../kit/KitMenu.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { save } from '../../kit/save.ts';
import TimeText from '../../kit/TimeText.vue';
import { useSession } from '../../session/store.ts';
import { FILL } from '../colours.ts';

const STRETCH = 100;
const route = useRoute();
const router = useRouter();
const changes = useChanges();
const citing = useCiting();
const noting = useNoting();
const session = useSession();
const shown = ref(STRETCH);
/** Regions of what is no PDF are not drawn. */
const withoutPicture = reactive(new Set<string>());

const one = (value: Parameters<typeof firstOf>[0]): string => firstOf(value) ?? '';
/** What is asked stands in the address. */
const asked = computed((): MarksAsked => {
  const { q, collection, words, sense, shape, by, glossed, sort } = route.query;
  const sources = { ...(one(q) && { q: one(q) }), ...(one(collection) && { collection: one(collection) }) };
  return {
    ...(Object.keys(sources).length && { sources }),
    ...(one(words) && { words: one(words) }),
    ...(all(sense).length && { senses: all(sense) }),
    ...(all(shape).length && { shapes: all(shape) as Shape[] }),
    ...(all(by).length && { people: all(by) }),
    ...(glossed && { glossed: true }),
    sort: MARK_SORTS.find((s) => s === one(sort)) ?? 'place',
  };
});
watch(asked, () => (shown.value = STRETCH));
const { data, error, isLoading } = useAsked({
  question: () => ({ ...asked.value, count: shown.value }),
  fetch: async ({ count, ...body }, signal) => {
    const stretches = [];
    for (let from = 0; from < count; from += STRETCH)
      stretches.push(ask(routes.marks.list, { body: { ...body, from, count: STRETCH }, signal }));
    const replies = await Promise.all(stretches);
    return { ...replies[0]!, marks: replies.flatMap((r) => r.marks) };
  },
  concerns: (touched) => concerns(touched, ['mark', 'sense', 'source']),
});
const { data: senses } = useAsked({
  question: () => 'senses',
  fetch: async (_, signal) => (await ask(routes.senses.list, { signal })).senses,
  concerns: (touched) => concerns(touched, ['sense']),
});
const senseOf = (id: string) => senses.value?.find((s) => s.id === id);

function put(name: string, value: string | string[] | undefined): void {
  void router.replace({ query: { ...route.query, [name]: value?.length ? value : undefined } });
}
function toggle(name: string, key: string): void {
  const now = all(route.query[name]);
  put(name, now.includes(key) ? now.filter((k) => k !== key) : [...now, key]);
}
interface Group {
  title: string;
  name: 'sense' | 'shape' | 'by';
  values: MarkCount[];
}
/** What is chosen stays in sight though nothing has it. */
const withChosen = (counts: MarkCount[], chosen: string[], nameOf: (key: string) => string): MarkCount[] => [
  ...counts,
  ...chosen.filter((key) => !counts.some((c) => c.key === key)).map((key) => ({ key, name: nameOf(key), count: 0 })),
];
const groups = computed((): Group[] => {
  const { senses: bySense = [], shapes = [], people = [] } = data.value ?? {};
  const of = (name: string): string[] => all(route.query[name]);
  return [
    { title: 'Sense', name: 'sense', values: withChosen(bySense, of('sense'), (key) => senseOf(key)?.name ?? '') },
    {
      title: 'Shape',
      name: 'shape',
      values: withChosen(shapes, of('shape').filter((s) => (SHAPES as readonly string[]).includes(s)), (key) => SHAPE_NAMES[key as Shape]), // prettier-ignore
    },
    { title: 'Marked by', name: 'by', values: withChosen(people, of('by'), () => 'someone') },
  ];
});
const SORTS: Record<MarkSort, string> = {
  place: 'Source and page',
  newest: 'Newest first',
  oldest: 'Oldest first',
  sense: 'Sense',
  person: 'Person',
};
const sorts = MARK_SORTS.map((value) => ({ value, name: SORTS[value] }));

async function take(format: (typeof MARK_FORMATS)[number]): Promise<void> {
  const { extension, name } = MARK_INFO[format];
  await changes.attempt(async () => {
    const response = await send(routes.marks.export, { body: { ...asked.value, format, style: citing.style.id } });
    save(`marks.${extension}`, await response.blob());
    changes.tell(`Saved ${counted(data.value?.total ?? 0, 'mark')} as ${name}`);
  });
}
const formats = MARK_FORMATS.map((format) => ({ name: MARK_INFO[format].name, run: () => take(format) }));
</script>

<template>
  <div class="flex h-full min-h-0 bg-paper text-body">
    <aside class="flex w-56 shrink-0 flex-col gap-4 overflow-auto border-r border-line px-4 py-4" aria-label="Filters">
      <KitField
        above
        label="Words in the mark or its gloss"
        :model-value="one(route.query.words)"
        maxlength="200"
        @update:model-value="put('words', String($event ?? ''))"
      />
      <KitField
        above
        label="In sources that match"
        placeholder="author:okonjo year:2014"
        :model-value="one(route.query.q)"
        maxlength="2000"
        @change="put('q', ($event.target as HTMLInputElement).value)"
      />
      <fieldset v-for="g in groups" :key="g.name" class="min-w-0">
        <legend class="heading mb-1">{{ g.title }}</legend>
        <label v-for="v in g.values" :key="v.key" class="flex min-h-6 items-center gap-2">
          <KitCheck
            :checked="all(route.query[g.name]).includes(v.key)"
            :label="`${g.title}: ${v.name}`"
            @check="toggle(g.name, v.key)"
          />
          <span
            v-if="g.name === 'sense'"
            class="inline-block h-3 w-3 rounded-[2px]"
            :class="FILL[senseOf(v.key)?.colour ?? 'straw']"
            aria-hidden="true"
          />
          <span class="min-w-0 flex-1 truncate" :title="v.name">{{ v.name }}</span>
          <span class="font-mono text-fine text-muted">{{ formatNumber(v.count) }}</span>
        </label>
        <p v-if="!g.values.length" class="text-fine text-muted">None</p>
      </fieldset>
      <label class="flex min-h-6 items-center gap-2"
        ><KitCheck
          :checked="Boolean(route.query.glossed)"
          label="With a gloss"
          @check="put('glossed', route.query.glossed ? undefined : 'yes')"
        />With a gloss</label
      >
    </aside>
    <main class="flex min-w-0 flex-1 flex-col">
      <header class="flex flex-wrap items-center gap-3 border-b border-line px-5 py-2">
        <h1 class="font-serif text-read font-medium">
          {{ data ? counted(data.total, 'mark') : 'Marks' }} across sources
        </h1>
        <div class="ml-auto flex items-center gap-2">
          <KitSelect
            class="w-40"
            label="Sort by"
            :options="sorts"
            :model-value="asked.sort"
            @update:model-value="put('sort', $event)"
          />
          <KitButton
            v-if="data?.total && session.may('own')"
            @click="noting.begin({ marks: data.marks.map((m) => m.id).slice(0, 500) })"
            >Note of {{ data.marks.length === 1 ? 'this one' : `these ${data.marks.length}` }}</KitButton
          >
          <KitMenu v-if="data?.total" :entries="formats" at="bottom-end">Save as…</KitMenu>
        </div>
      </header>
      <KitNotice v-if="error" tone="bad" class="m-5">{{ error }}</KitNotice>
      <p v-else-if="!data" class="p-8 text-muted" role="status">{{ isLoading ? 'Loading the marks…' : '' }}</p>
      <EmptyState v-else-if="!data.total" title="No marks match" class="m-auto"
        >Marks you make while reading are listed here, with those of the other members.<template #deeds
          ><KitButton v-if="Object.keys(route.query).length" to="/read/marks">Show all marks</KitButton></template
        ></EmptyState
      >
      <ul v-else class="min-h-0 flex-1 overflow-auto px-5 pb-6" aria-label="Marks">
        <li v-for="m in data.marks" :key="m.id" class="flex gap-3 border-b border-line py-2.5">
          <span
            class="mt-1 w-1.5 shrink-0 self-stretch rounded-sm"
            :class="FILL[senseOf(m.sense)?.colour ?? 'straw']"
            aria-hidden="true"
          />
          <div class="min-w-0 flex-1">
            <RouterLink
              class="block font-serif text-read leading-snug hover:underline"
              :to="`/read/${m.sourceId}/${m.fileId}?mark=${m.id}`"
              >{{ m.quote.exact || `${SHAPE_NAMES[m.shape]}, ${placeWritten(m.cited)}` }}</RouterLink
            >
            <img
              v-if="m.shape === 'region' && !m.unplaced && !withoutPicture.has(m.id)"
              :src="addressOf(routes.marks.picture, { mark: m.id })"
              :alt="`The region, ${placeWritten(m.cited)}`"
              class="mt-1 max-h-40 max-w-full border border-line bg-white"
              loading="lazy"
              @error="withoutPicture.add(m.id)"
            />
            <p v-if="m.gloss" class="mt-0.5 max-w-prose whitespace-pre-wrap">{{ m.gloss }}</p>
            <p class="flex flex-wrap items-center gap-x-2 text-fine text-muted">
              <RouterLink
                class="inline-flex min-h-6 items-center text-verdigris hover:underline"
                :to="`/sources?at=${m.sourceId}`"
                :title="m.title"
                >{{ m.source }}, {{ placeWritten(m.cited) }}</RouterLink
              ><span>{{ senseOf(m.sense)?.name }}</span
              ><span>{{ m.by }}{{ m.personal ? ', yours alone' : '' }}</span
              ><TimeText :at="m.at" />
            </p>
          </div>
        </li>
        <li v-if="data.marks.length < data.total" class="py-4 text-center">
          <KitButton @click="shown += STRETCH"
            >Show {{ formatNumber(Math.min(STRETCH, data.total - data.marks.length)) }} more</KitButton
          >
        </li>
      </ul>
    </main>
  </div>
</template>
