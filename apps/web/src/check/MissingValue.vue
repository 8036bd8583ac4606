<script setup lang="ts">
/** A value that is missing, typed where it was found to be missing. */
import { ref } from 'vue';
import { routes, type FindingOf } from '@pandecta/contract';
import { isNameVariable, variableLabel, type Variable } from '@pandecta/core/source';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import { hintOf, textToField, troubleOf } from '../sources/index.ts';

const props = defineProps<{ finding: FindingOf }>();
const changes = useChanges();
const text = ref('');
const variable = props.finding.field as Variable;

async function save(): Promise<void> {
  const value = textToField(variable, text.value);
  if (value === null) return;
  const body = { fields: { [variable]: value }, seen: { [variable]: null } };
  await changes.change(() => ask(routes.sources.edit, { source: props.finding.source, body }));
}
</script>

<template>
  <form class="mt-1 flex flex-wrap items-start gap-1.5" @submit.prevent="save">
    <KitField
      v-model="text"
      class="w-72 max-w-full"
      :label="`${variableLabel(variable)} of ${finding.title}`"
      :placeholder="
        isNameVariable(variable) ? 'Family, Given; Family, Given' : hintOf(variable) || variableLabel(variable)
      "
      :error="troubleOf(variable, text)"
      data-work
    />
    <KitButton type="submit" :disabled="!text.trim()">Save</KitButton>
  </form>
</template>
