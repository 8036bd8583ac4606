<script setup lang="ts">
/** A heading: its names, its notes in the order of their events, the sources it has a role in, and what occurs beside it. */
import { computed, ref, watch } from 'vue';
import { routes } from '@pandecta/contract';
import { HEADING_NAMES, nameKey, namesAlike } from '@pandecta/core/headings';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import KitButton from '../../kit/KitButton.vue';
import KitCombobox from '../../kit/KitCombobox.vue';
import KitNotice from '../../kit/KitNotice.vue';
import { useSession } from '../../session/store.ts';
import HeadingForm from './HeadingForm.vue';

const props = defineProps<{ id: string }>();
const emit = defineEmits<{ open: [note: string]; heading: [id: string]; close: [] }>();
const session = useSession();
const changes = useChanges();
const { data, error } = useAsked({
  question: () => props.id,
  fetch: (heading, signal) => ask(routes.headings.page, { heading, signal }),
  concerns: (touched) => concerns(touched, ['heading', 'note', 'source', 'mark']),
});
const { data: all } = useAsked({
  question: () => 'headings',
  fetch: async (_, signal) => (await ask(routes.headings.list, { signal })).headings,
  concerns: (touched) => concerns(touched, ['heading']),
});
const doing = ref<'edit' | 'merge' | null>(null);
watch(
  () => props.id,
  () => (doing.value = null),
);
const text = ref('');
const into = computed(() => {
  const wanted = nameKey(text.value);
  return (all.value ?? [])
    .filter(
      (h) =>
        !h.into &&
        h.id !== data.value?.heading.id &&
        wanted &&
        nameKey(`${h.name} ${h.others.join(' ')}`).includes(wanted),
    )
    .slice(0, 12)
    .map((h) => ({ key: h.id, name: h.name, kind: h.kind }));
});
/** Those that may be the same person under another form of the name. */
const alike = computed(() => {
  const heading = data.value?.heading;
  if (heading?.kind !== 'person') return [];
  return (all.value ?? []).filter((h) => h.kind === 'person' && !h.into && h.id !== heading.id && namesAlike(h.name, heading.name) !== 'different'); // prettier-ignore
});
async function merge(target: string): Promise<void> {
  const done = await changes.change(() => ask(routes.headings.merge, { heading: data.value!.heading.id, body: { into: target } })); // prettier-ignore
  text.value = '';
  doing.value = null;
  if (done) emit('heading', target);
}
const part = (heading: string): Promise<unknown> => changes.change(() => ask(routes.headings.part, { heading }));
async function remove(): Promise<void> {
  if (await changes.change(() => ask(routes.headings.remove, { heading: data.value!.heading.id }))) emit('close');
}
</script>

<template>
  <article class="min-h-0 overflow-auto px-5 py-4 text-body" :aria-label="data?.heading.name ?? 'Heading'">
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <p v-else-if="!data" class="p-4 text-muted" role="status">Loading…</p>
    <template v-else>
      <header class="mb-1 flex items-baseline gap-3 text-fine text-muted">
        <span>{{ HEADING_NAMES[data.heading.kind].one }}</span>
        <span class="ml-auto flex gap-3">
          <template v-if="session.may('arrange')">
            <KitButton look="quiet" @click="doing = doing === 'edit' ? null : 'edit'">Edit</KitButton>
            <KitButton look="quiet" @click="doing = doing === 'merge' ? null : 'merge'">Merge…</KitButton>
            <KitButton v-if="!data.notes.length && !data.merged.length" look="quiet" @click="remove">Remove</KitButton>
          </template>
          <KitButton look="quiet" @click="emit('close')">Close</KitButton>
        </span>
      </header>
      <h2 class="font-serif text-title font-semibold leading-tight">{{ data.heading.name }}</h2>
      <HeadingForm
        v-if="doing === 'edit'"
        :key="id"
        class="my-3"
        :heading="data.heading"
        :all="all ?? []"
        @done="doing = null"
      />
      <div v-else-if="doing === 'merge'" class="my-3">
        <p class="mb-1 text-fine text-muted">
          Its notes count as notes of the other, and its names find it. It can be parted again.
        </p>
        <KitCombobox
          v-model:text="text"
          label="The heading it is merged into"
          placeholder="another heading"
          :entries="into"
          @choose="merge($event.key)"
          @done="doing = null"
          ><template #default="{ entry }"
            ><span class="truncate">{{ entry.name }}</span
            ><span class="text-fine text-muted">{{ HEADING_NAMES[entry.kind].one }}</span></template
          ></KitCombobox
        >
      </div>
      <template v-else>
        <p v-if="data.heading.says" class="font-serif">{{ data.heading.says }}</p>
        <p class="text-fine text-muted">
          {{
            [data.heading.dates, data.heading.place, data.heading.orcid && `ORCID ${data.heading.orcid}`]
              .filter(Boolean)
              .join(' · ')
          }}
        </p>
        <p v-if="data.heading.others.length" class="text-fine">Also: {{ data.heading.others.join('; ') }}</p>
      </template>
      <p v-for="m in data.merged" :key="m.id" class="text-fine">
        Merged into it: {{ m.name }}
        <KitButton v-if="session.may('arrange')" look="word" class="ml-1 min-h-6" @click="part(m.id)">Part</KitButton>
      </p>
      <p v-for="h in alike" :key="h.id" class="text-fine text-ochre">
        Perhaps the same: <KitButton look="word" class="min-h-6" @click="emit('heading', h.id)">{{ h.name }}</KitButton>
      </p>
      <p v-if="data.narrower.length" class="mt-1 text-fine">
        Narrower:
        <KitButton
          v-for="h in data.narrower"
          :key="h.id"
          look="word"
          class="ml-1 min-h-6"
          @click="emit('heading', h.id)"
          >{{ h.name }}</KitButton
        >
      </p>
      <p class="mt-2 text-fine text-muted">
        {{ counted(data.notes.length, 'note')
        }}{{ data.first ? `, ${data.first}${data.last && data.last !== data.first ? ` to ${data.last}` : ''}` : '' }} ·
        {{ counted(data.marks, 'mark') }}
      </p>
      <h3 class="heading mt-3">Notes, by date</h3>
      <ul>
        <li v-for="n in data.notes" :key="n.id" class="flex items-baseline gap-3 border-b border-line py-1">
          <span class="w-28 shrink-0 font-mono text-label text-muted">{{ n.event ?? '–' }}</span><KitButton
            look="bare"
            class="min-w-0 text-left font-serif hover:underline"
            @click="emit('open', n.id)"
            >{{ n.title || 'Untitled note' }}</KitButton
          >
        </li>
      </ul>
      <p v-if="!data.notes.length" class="text-muted">No note is about it yet.</p>
      <template v-if="data.roles.length">
        <h3 class="heading mt-3">In sources</h3>
        <p v-for="r in data.roles" :key="r.query">
          <RouterLink
            class="inline-flex min-h-6 items-center text-verdigris underline underline-offset-2"
            :to="`/sources?${r.query}`"
            >{{ r.role }}</RouterLink
          >
          <span class="count ml-2">{{ r.count }}</span>
        </p>
      </template>
      <template v-if="data.beside.length">
        <h3 class="heading mt-3">In the same notes</h3>
        <p class="flex flex-wrap gap-x-3">
          <span v-for="h in data.beside" :key="h.id"
            ><KitButton look="word" class="min-h-6" @click="emit('heading', h.id)">{{ h.name }}</KitButton>
            <span class="count">{{ h.count }}</span></span
          >
        </p>
      </template>
    </template>
  </article>
</template>
