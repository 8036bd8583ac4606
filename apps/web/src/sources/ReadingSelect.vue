<script setup lang="ts">
/** The reading state of one source, to be chosen. */
import { READING_STATES, type ReadingState } from '@pandecta/core/changes';
import KitSelect from '../kit/KitSelect.vue';
import { useSession } from '../session/store.ts';
import { useBatch } from './batch.ts';

const props = defineProps<{ id: string; reading: ReadingState | null }>();
const batch = useBatch();
const session = useSession();
const states: { value: ReadingState | null; name: string }[] = [
  { value: null, name: 'none' },
  ...READING_STATES.map((s) => ({ value: s, name: s })),
];
</script>

<template>
  <KitSelect
    class="inline-block"
    low
    :model-value="props.reading"
    :options="states"
    :disabled="!session.may('own')"
    label="Reading state"
    @update:model-value="(state) => batch.reading({ ids: [props.id] }, state ?? null)"
  />
</template>
