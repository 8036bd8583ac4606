<script setup lang="ts">
/** One tag or subject term, to be renamed, described, put under a heading, or removed. */
import { computed, ref, watch } from 'vue';
import type { VocabularyTerm } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import ConfirmInPlace from '../../kit/ConfirmInPlace.vue';
import KitButton from '../../kit/KitButton.vue';
import KitDialog from '../../kit/KitDialog.vue';
import KitField from '../../kit/KitField.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { useTerms } from './store.ts';

const props = defineProps<{ headings: string[]; others: VocabularyTerm[] }>();
const term = defineModel<VocabularyTerm | null>('term', { required: true });
const terms = useTerms();
const draft = ref({ name: '', says: '', heading: '', broader: '' });
watch(term, (t) => t && (draft.value = { name: t.name, says: t.says, heading: t.heading, broader: t.broader ?? '' }));
/** Whatever does not stand below it itself. */
const above = computed(() => {
  const byId = new Map(props.others.map((t) => [t.id, t]));
  const isBelow = (t: VocabularyTerm | undefined, met: string[] = []): boolean =>
    Boolean(
      t && !met.includes(t.id) && (t.id === term.value?.id || isBelow(byId.get(t.broader ?? ''), [...met, t.id])),
    );
  return [
    { value: '', name: 'None' },
    ...props.others.filter((t) => !isBelow(t)).map((t) => ({ value: t.id, name: t.name })),
  ];
});
const open = computed({ get: () => Boolean(term.value), set: (now) => !now && (term.value = null) });
const what = computed(() => (term.value?.subject ? 'subject term' : 'tag'));

async function save(): Promise<void> {
  if (await terms.edit(term.value!.id, { ...draft.value, broader: draft.value.broader || null })) term.value = null;
}
async function turn(): Promise<void> {
  if (await terms.edit(term.value!.id, { subject: !term.value!.subject })) term.value = null;
}
async function remove(): Promise<void> {
  if (await terms.remove(term.value!.id)) term.value = null;
}
</script>

<template>
  <KitDialog v-model:open="open" :title="`The ${what} “${term?.name}”`" at="side">
    <form v-if="term" class="mt-4 flex flex-col gap-2" @submit.prevent="save">
      <KitField v-model="draft.name" above label="Name" maxlength="200" />
      <KitField v-model="draft.says" above label="What it means here" :lines="3" maxlength="1000" />
      <KitField v-model="draft.heading" above label="Heading" maxlength="200" />
      <p v-if="headings.length" class="flex flex-wrap gap-x-2 text-fine text-muted">
        <KitButton v-for="h in headings" :key="h" look="quiet" @click="draft.heading = h">{{ h }}</KitButton>
      </p>
      <KitSelect v-model="draft.broader" above label="Broader term" :options="above" />
      <div class="mt-1 flex justify-end">
        <KitButton look="main" type="submit" :disabled="!draft.name.trim()">Save</KitButton>
      </div>
      <div class="mt-4 flex flex-col items-start gap-2 border-t border-line pt-3">
        <KitButton look="word" @click="turn">{{
          term.subject ? 'Make it a tag of the workspace' : 'Make it a subject term'
        }}</KitButton>
        <ConfirmInPlace
          :does="`Remove the ${what}`"
          :asks="`It goes from ${countSources(term.count)}, which stay.`"
          yes="Remove it"
          no="Leave it"
          @confirm="remove"
        />
      </div>
    </form>
  </KitDialog>
</template>
