<script setup lang="ts">
/** The workspace's labels: each with a name, a letter, a tint, and what it means, so that nobody forgets. */
import { ref, watch } from 'vue';
import { TINTS, type Label, type NewLabel, type Tint } from '@pandecta/contract';
import { firstOf } from '@pandecta/core/text';
import KitButton from '../../kit/KitButton.vue';
import KitDialog from '../../kit/KitDialog.vue';
import KitField from '../../kit/KitField.vue';
import KitSelect from '../../kit/KitSelect.vue';
import LabelMark from './LabelMark.vue';
import { useAssessments } from './store.ts';

const open = defineModel<boolean>('open', { required: true });
const assessments = useAssessments();
const editing = ref<Label | null>(null);
const draft = ref<Required<NewLabel>>(empty());
const tints = TINTS.map((t) => ({ value: t, name: t }));

function empty(): Required<NewLabel> {
  return { name: '', letter: '', tint: TINTS[assessments.labels.length % TINTS.length]!, says: '' };
}
function begin(label: Label | null): void {
  editing.value = label;
  draft.value = label ? { name: label.name, letter: label.letter, tint: label.tint, says: label.says ?? '' } : empty();
}
watch(open, (now) => now && begin(null));
/** The first letter of the name, until another is written. */
watch(
  () => draft.value.name,
  (name, before) => {
    if (draft.value.letter === firstOf(before).toUpperCase()) draft.value.letter = firstOf(name).toUpperCase();
  },
);

async function save(): Promise<void> {
  const body = { ...draft.value, name: draft.value.name.trim() };
  const done = editing.value ? await assessments.edit(editing.value.id, body) : await assessments.make(body);
  if (done) begin(null);
}
const tint = (t: string): Tint => t as Tint;
</script>

<template>
  <KitDialog v-model:open="open" title="Labels of the workspace" at="side">
    <p class="mt-2 text-fine text-muted">The labels of this workspace. Point at a label to see what it means.</p>
    <ul class="mt-3 flex flex-col">
      <li v-for="l in assessments.labels" :key="l.id" class="flex items-start gap-2 border-b border-line py-1.5">
        <LabelMark :label="{ ...l, says: l.says ?? '' }" class="mt-0.5" />
        <div class="min-w-0 flex-1">
          {{ l.name }}
          <p class="text-fine text-muted">{{ l.says || 'No description yet' }}</p>
        </div>
        <KitButton look="quiet" @click="begin(l)">Alter</KitButton>
        <KitButton look="quiet" class="hover:text-madder" @click="assessments.remove(l.id)">Remove</KitButton>
      </li>
    </ul>
    <form class="mt-4 flex flex-col gap-2" @submit.prevent="save">
      <h3 class="heading">{{ editing ? `Alter “${editing.name}”` : 'Another label' }}</h3>
      <KitField v-model="draft.name" above label="Name" maxlength="60" />
      <div class="flex items-end gap-2">
        <KitField v-model="draft.letter" above class="w-20" label="Letter" maxlength="2" />
        <KitSelect v-model="draft.tint" above class="w-32" label="Tint" :options="tints" />
        <LabelMark
          class="mb-2"
          :label="{ name: draft.name || 'Label', letter: draft.letter || '?', tint: tint(draft.tint), says: '' }"
          named
        />
      </div>
      <KitField v-model="draft.says" above label="What it means" :lines="3" maxlength="500" />
      <div class="mt-1 flex justify-end gap-2">
        <KitButton v-if="editing" @click="begin(null)">Leave it</KitButton>
        <KitButton look="main" type="submit" :disabled="!draft.name.trim() || !draft.letter.trim()">{{
          editing ? 'Save' : 'Make it'
        }}</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
