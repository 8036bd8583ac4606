<script setup lang="ts">
/** How a source stands to others, from either side, each with its note and page; said, said otherwise, taken back. */
import { computed, ref } from 'vue';
import { routes, type RelatedSource, type RelationOfSource } from '@pandecta/contract';
import { ALL_RELATIONS, RELATIONS, type Relation } from '@pandecta/core/changes';
import { withoutMarkup } from '@pandecta/core/source';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitCombobox from '../../kit/KitCombobox.vue';
import KitField from '../../kit/KitField.vue';
import KitNotice from '../../kit/KitNotice.vue';
import KitSelect from '../../kit/KitSelect.vue';
import StampMark from '../../kit/StampMark.vue';
import { useSession } from '../../session/store.ts';
import RelationsPicture from './RelationsPicture.vue';

const props = defineProps<{ id: string; law: boolean }>();
const { change } = useChanges();
const session = useSession();
const { data: around, error } = useAsked({
  question: () => props.id,
  fetch: (source, signal) => ask(routes.relations.of, { source, signal }),
  concerns: (touched) => concerns(touched, ['source']),
});
const byId = computed(() => new Map((around.value?.sources ?? []).map((s) => [s.id, s])));

interface Line {
  key: string;
  relation: RelationOfSource;
  other: RelatedSource;
  says: string;
}
const lines = computed<Line[]>(() =>
  (around.value?.relations ?? []).flatMap((relation) => {
    const { from, to, as } = relation;
    const other = byId.value.get(from === props.id ? to : from);
    if (!other || (from !== props.id && to !== props.id)) return [];
    const says = from === props.id ? RELATIONS[as].from : RELATIONS[as].to;
    return [{ key: `${from} ${as} ${to}`, relation, other, says }];
  }),
);

/** What one may say, from this source's side: of law first where it is of law. */
const LAW: Relation[] = ['follows', 'distinguishes', 'overrules', 'affirms', 'reverses', 'applies'];
const sayable = computed(() => {
  const of = (all: Relation[], under: string) =>
    all.flatMap((as) => [
      { value: `from ${as}`, name: RELATIONS[as].from, under },
      ...(RELATIONS[as].to === RELATIONS[as].from ? [] : [{ value: `to ${as}`, name: RELATIONS[as].to, under }]),
    ]);
  const law = of(LAW, 'In law');
  const rest = of(
    ALL_RELATIONS.filter((r) => !LAW.includes(r)),
    'Of any work',
  );
  return props.law ? [...law, ...rest] : [...rest, ...law];
});

const saying = ref(false);
const draft = ref({ as: 'from cites', note: '', page: '' });
const other = ref<{ id: string; name: string } | null>(null);
const typed = ref('');
const MOST = 8;
const { data: found } = useAsked({
  question: () => (saying.value && typed.value.trim() ? typed.value : null),
  fetch: async (q, signal) =>
    q ? (await ask(routes.search.page, { query: { q, typing: true, count: MOST }, signal })).rows : [],
  concerns: () => false,
});
const offers = computed(() =>
  (found.value ?? [])
    .filter((r) => r.id !== props.id)
    .map((r) => ({ key: r.id, id: r.id, name: withoutMarkup(r.record.title ?? 'Untitled'), kind: r.record.type })),
);

function begin(): void {
  draft.value = { as: props.law ? 'from follows' : 'from cites', note: '', page: '' };
  other.value = null;
  typed.value = '';
  saying.value = true;
}
async function say(): Promise<void> {
  const [side, as] = [draft.value.as.split(' ')[0], draft.value.as.replace(/^\S+ /, '') as Relation];
  const there = other.value!.id;
  const [from, to] = side === 'from' ? [props.id, there] : [there, props.id];
  const { note, page } = draft.value;
  if (await change(() => ask(routes.relations.say, { body: { from, to, as, note, page, present: true } })))
    saying.value = false;
}
const takeBack = ({ relation: { saidOf, as } }: Line): unknown =>
  change(() => ask(routes.relations.say, { body: { ...saidOf, as, present: false } }));
</script>

<template>
  <section aria-label="Relations">
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <RelationsPicture v-if="around && lines.length" :id="id" :around="around" class="mb-2 print:hidden" />
    <ul>
      <li v-for="l in lines" :key="l.key" class="group flex items-baseline gap-2 border-b border-line py-1">
        <span class="w-36 shrink-0 text-muted">{{ l.says }}</span>
        <StampMark :kind="l.other.kind" class="self-center" />
        <span class="min-w-0 flex-1"
          ><RouterLink class="font-serif hover:underline" :to="`/sources/${l.other.id}`">{{ l.other.title }}</RouterLink
          ><span class="ml-2 text-fine text-muted">{{ [l.other.who, l.other.year].filter(Boolean).join(', ') }}</span
          ><span v-if="l.relation.page" class="text-fine"> · at {{ l.relation.page }}</span
          ><span v-if="l.relation.note" class="block text-fine">{{ l.relation.note }}</span></span
        >
        <KitButton
          v-if="session.may('edit')"
          look="quiet"
          class="at-hand hover:text-madder print:hidden"
          :name="`Take back: ${l.says} ${l.other.title}`"
          @click="takeBack(l)"
          >Take back</KitButton
        >
      </li>
    </ul>
    <p v-if="around && !lines.length" class="text-muted">No relations to other sources yet.</p>
    <form
      v-if="saying"
      class="mt-2 flex flex-col gap-2 rounded-md bg-panel p-3 print:hidden"
      @submit.prevent="other && say()"
    >
      <div class="grid grid-cols-[minmax(0,1fr)_minmax(0,2fr)] items-end gap-2">
        <KitSelect v-model="draft.as" above label="This source" :options="sayable" />
        <KitCombobox
          v-if="!other"
          v-model:text="typed"
          label="The other source"
          placeholder="Words of its title, or a name"
          :entries="offers"
          @choose="other = $event"
          @done="saying = false"
          ><template #default="{ entry }"
            ><span class="flex min-w-0 gap-2"
              ><StampMark :kind="entry.kind" /><span class="truncate font-serif">{{ entry.name }}</span></span
            ></template
          ></KitCombobox
        >
        <p v-else class="flex items-baseline gap-2 pb-1">
          <span class="truncate font-serif">{{ other.name }}</span><KitButton look="quiet" @click="other = null"
            >another</KitButton
          >
        </p>
      </div>
      <div class="grid grid-cols-[5rem_minmax(0,1fr)] gap-2">
        <KitField v-model="draft.page" above label="Page" maxlength="100" />
        <KitField v-model="draft.note" above label="Note" maxlength="4000" />
      </div>
      <p class="flex justify-end gap-1.5">
        <KitButton @click="saying = false">Leave it</KitButton
        ><KitButton look="main" type="submit" :disabled="!other">Say so</KitButton>
      </p>
    </form>
    <KitButton v-else-if="session.may('edit')" look="quiet" class="mt-1 print:hidden" @click="begin"
      >+ relation to another source</KitButton
    >
  </section>
</template>
