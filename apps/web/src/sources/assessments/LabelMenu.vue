<script setup lang="ts">
/** The labels of the workspace, to be put on what is chosen or taken from it; and the way to alter them. */
import { computed, ref } from 'vue';
import type { Chosen } from '@pandecta/contract';
import KitMenu, { type MenuEntry } from '../../kit/KitMenu.vue';
import { useSession } from '../../session/store.ts';
import LabelsSheet from './LabelsSheet.vue';
import { useAssessments } from './store.ts';

const props = defineProps<{
  chosen: Chosen;
  /** The labels all of the chosen bear. */
  borne: readonly string[];
  look?: 'plain' | 'quiet';
}>();
const assessments = useAssessments();
const session = useSession();
const arranging = ref(false);

const entries = computed<MenuEntry[]>(() => [
  ...assessments.labels.map((l) => ({
    name: l.name,
    hint: l.letter,
    checked: props.borne.includes(l.id),
    run: () => assessments.put(props.chosen, l.id, !props.borne.includes(l.id)),
  })),
  ...(session.may('arrange')
    ? [
        {
          name: assessments.labels.length ? 'Labels of the workspace…' : 'Make the first label…',
          run: () => (arranging.value = true),
        },
      ]
    : []),
]);
</script>

<template>
  <KitMenu
    v-if="entries.length"
    :class="look === 'quiet' && 'min-h-6'"
    :entries="entries"
    :look="look ?? 'plain'"
    name="Add or remove a label"
    ><slot>Label</slot></KitMenu
  >
  <LabelsSheet v-model:open="arranging" />
</template>
