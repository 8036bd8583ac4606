<script setup lang="ts">
/** A heading's names, dates, place, line of description and broader heading. */
import { computed, reactive } from 'vue';
import { routes, type HeadingInfo } from '@pandecta/contract';
import { HEADING_KINDS, HEADING_NAMES, type HeadingKind } from '@pandecta/core/headings';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitSelect from '../../kit/KitSelect.vue';

const props = defineProps<{ heading: HeadingInfo; all: HeadingInfo[] }>();
const emit = defineEmits<{ done: [] }>();
const changes = useChanges();
const { id, name, kind, others, dates, place, says, parent, orcid } = props.heading;
const draft = reactive({
  name,
  kind: kind as string,
  others: others.join('\n'),
  dates,
  place,
  says,
  parent: parent ?? '',
  orcid,
});
const kinds = HEADING_KINDS.map((value) => ({ value, name: HEADING_NAMES[value].one }));
const broader = computed(() => [
  { value: '', name: 'none' },
  ...props.all
    .filter((h) => h.id !== id && !h.into)
    .map((h) => ({ value: h.id, name: `${h.name} (${HEADING_NAMES[h.kind].one.toLowerCase()})` })),
]);
async function save(): Promise<void> {
  const body = { ...draft, kind: draft.kind as HeadingKind, parent: draft.parent || null, others: draft.others.split('\n').map((o) => o.trim()).filter(Boolean) }; // prettier-ignore
  if (await changes.change(() => ask(routes.headings.edit, { heading: id, body }))) emit('done');
}
</script>

<template>
  <form class="flex flex-col gap-2" @submit.prevent="save">
    <KitField v-model="draft.name" above label="Name" maxlength="200" />
    <KitSelect v-model="draft.kind" label="Kind" :options="kinds" />
    <KitField v-model="draft.others" above label="Other names, one a line" :lines="3" />
    <div class="flex gap-2">
      <KitField v-model="draft.dates" above class="flex-1" label="Dates" placeholder="1821/1890" maxlength="100" />
      <KitField v-model="draft.place" above class="flex-1" label="Place" maxlength="200" />
    </div>
    <KitField v-model="draft.says" above label="What tells it from others" maxlength="500" />
    <KitField
      v-if="draft.kind === 'person'"
      v-model="draft.orcid"
      above
      label="ORCID"
      placeholder="0000-0000-0000-0000"
    />
    <KitSelect v-model="draft.parent" label="Broader heading" :options="broader" />
    <div class="flex gap-2">
      <KitButton look="main" @click="save">Save</KitButton><KitButton @click="emit('done')">Cancel</KitButton>
    </div>
  </form>
</template>
