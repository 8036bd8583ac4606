<script setup lang="ts">
/** What was decided of a page, in as few words as there is room for. */
import type { SortedPage } from '@pandecta/contract';
import type { Sense } from '@pandecta/core/marks';
import { FILL } from '../colours.ts';

defineProps<{ state: SortedPage; senses: Sense[] }>();
</script>

<template>
  <span class="flex flex-wrap justify-end gap-1 text-label font-semibold text-[#1f262d]">
    <span v-if="state.used" class="rounded bg-mist px-1">used</span>
    <span v-if="state.check" class="rounded bg-rose px-1">check</span>
    <template v-for="s in senses" :key="s.id"
      ><span v-if="s.id === state.sense" class="rounded px-1" :class="FILL[s.colour]">{{ s.name }}</span></template
    >
    <span v-for="t in state.tags" :key="t" class="max-w-24 truncate rounded border border-edge bg-card px-1 text-ink">{{
      t
    }}</span>
  </span>
</template>
