<script setup lang="ts">
/** One tag or subject term, to be renamed, described, put under a heading, or removed. */
import { computed, ref, watch } from 'vue';
import type { VocabularyTerm } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import ConfirmInPlace from '../../kit/ConfirmInPlace.vue';
import KitButton from '../../kit/KitButton.vue';
import KitDialog from '../../kit/KitDialog.vue';
import KitField from '../../kit/KitField.vue';
import { useTerms } from './store.ts';

defineProps<{ headings: string[] }>();
const term = defineModel<VocabularyTerm | null>('term', { required: true });
const terms = useTerms();
const draft = ref({ name: '', says: '', heading: '' });
watch(term, (t) => t && (draft.value = { name: t.name, says: t.says, heading: t.heading }));
const open = computed({ get: () => Boolean(term.value), set: (now) => !now && (term.value = null) });
const what = computed(() => (term.value?.subject ? 'subject term' : 'tag'));

async function save(): Promise<void> {
  if (await terms.edit(term.value!.id, draft.value)) term.value = null;
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
      <KitField v-model="draft.heading" above label="Heading it stands under" maxlength="200" />
      <p v-if="headings.length" class="flex flex-wrap gap-x-2 text-fine text-muted">
        <KitButton v-for="h in headings" :key="h" look="quiet" @click="draft.heading = h">{{ h }}</KitButton>
      </p>
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
