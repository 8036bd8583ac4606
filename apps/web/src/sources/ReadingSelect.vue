<script setup lang="ts">
/** The reading state of one source, to be chosen. */
import { READING_STATES, type ReadingState } from '@pandecta/core/changes';
import { useSession } from '../session/store.ts';
import { useBatch } from './batch.ts';

const props = defineProps<{ id: string; reading: ReadingState | null }>();
const batch = useBatch();
const session = useSession();
const set = (e: Event): void =>
  void batch.reading({ ids: [props.id] }, ((e.target as HTMLSelectElement).value || null) as ReadingState | null);
</script>

<template>
  <select
    class="field !w-auto !py-0"
    :value="reading ?? ''"
    :disabled="!session.may('own')"
    aria-label="Reading state"
    @change="set"
  >
    <option value="">none</option>
    <option v-for="s in READING_STATES" :key="s" :value="s">{{ s }}</option>
  </select>
</template>
