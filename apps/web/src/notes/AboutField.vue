<script setup lang="ts">
/** What a note is about: headings, taken away and chosen by any of their names; a name that is none yet becomes one. */
import { useDebounceFn } from '@vueuse/core';
import { ref, shallowRef, watch } from 'vue';
import { routes, type HeadingOffer, type NoteHeading } from '@pandecta/contract';
import { HEADING_KINDS, HEADING_NAMES, nameKey, type HeadingKind } from '@pandecta/core/headings';
import { X } from '@lucide/vue';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import KitCombobox from '../kit/KitCombobox.vue';
import { useSession } from '../session/store.ts';

const props = defineProps<{ about: NoteHeading[]; editable: boolean }>();
const emit = defineEmits<{ set: [ids: string[]]; open: [id: string] }>();
const session = useSession();
const changes = useChanges();
const text = ref('');
const adding = ref(false);
interface Entry {
  key: string;
  id: string | null;
  name: string;
  kind: HeadingKind;
  hint: string;
}
const entries = shallowRef<Entry[]>([]);
const asEntry = ({ id, name, kind, by }: HeadingOffer): Entry => ({
  key: `${id ?? 'new'} ${kind} ${name}`,
  id,
  name,
  kind,
  hint: [HEADING_NAMES[kind].one, by && `also ${by}`, !id && 'from the records'].filter(Boolean).join(' · '),
});
const look = useDebounceFn(async () => {
  const typed = text.value.trim();
  if (!typed) return void (entries.value = []);
  const { offers } = await ask(routes.headings.offer, { body: { q: typed } }).catch(() => ({ offers: [] }));
  if (typed !== text.value.trim()) return;
  const found = offers.filter((o) => !props.about.some((h) => h.id === o.id)).map(asEntry);
  const isNew = session.may('arrange') && !offers.some((o) => nameKey(o.name) === nameKey(typed));
  const made = isNew ? HEADING_KINDS.map((kind): Entry => ({ key: `make ${kind}`, id: null, name: typed, kind, hint: `New: ${HEADING_NAMES[kind].one.toLowerCase()}` })) : []; // prettier-ignore
  entries.value = [...found, ...made];
}, 120);
watch(text, () => void look());

async function choose({ id, name, kind }: Entry): Promise<void> {
  const ids = props.about.map((h) => h.id);
  const chosen = id ?? (await changes.change(() => ask(routes.headings.make, { body: { name, kind } })))?.id;
  entries.value = [];
  adding.value = false;
  if (chosen) emit('set', [...ids, chosen]);
}
const drop = (id: string): void => emit('set', props.about.map((h) => h.id).filter((h) => h !== id)); // prettier-ignore
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-2 gap-y-0.5">
    <span v-for="h in about" :key="h.id" class="inline-flex items-center">
      <KitButton look="word" class="min-h-6" :title="HEADING_NAMES[h.kind].one" @click="emit('open', h.id)">{{
        h.name
      }}</KitButton><KitButton v-if="editable" look="icon" :name="`Not about ${h.name}`" @click="drop(h.id)"
        ><X :size="12"
      /></KitButton>
    </span>
    <KitCombobox
      v-if="adding"
      v-model:text="text"
      class="w-56"
      label="What the note is about"
      placeholder="a person, place, theme…"
      :entries="entries"
      @choose="choose"
      @done="adding = false"
      ><template #default="{ entry }"
        ><span class="truncate">{{ entry.name }}</span
        ><span class="shrink-0 text-fine text-muted">{{ entry.hint }}</span></template
      ></KitCombobox
    >
    <KitButton v-else-if="editable" look="quiet" class="min-h-6" @click="adding = true">+ heading</KitButton>
    <span v-else-if="!about.length" class="text-muted">nothing named</span>
  </div>
</template>
