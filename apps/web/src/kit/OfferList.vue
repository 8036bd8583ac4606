<script setup lang="ts" generic="Entry extends Offered">
/** What is offered under something that is being written: one of the entries may be the one that Enter takes. */
import { formatNumber } from '@pandecta/core/wording';
import type { Offered } from './offers.ts';

defineProps<{ id: string; label: string; entries: Entry[] }>();
const emit = defineEmits<{ take: [Entry] }>();
const active = defineModel<number>('active', { required: true });
</script>

<template>
  <ul :id="id" role="listbox" :aria-label="label">
    <li
      v-for="(e, i) in entries"
      :id="`${id} ${i}`"
      :key="e.key"
      role="option"
      :aria-selected="i === active"
      class="flex cursor-pointer items-baseline gap-3 px-3 py-1"
      :class="i === active && 'bg-verdtint'"
      @mousedown.prevent="emit('take', e)"
      @mouseenter="active = i"
    >
      <span class="truncate">{{ e.name }}</span><span class="min-w-0 flex-1 truncate text-fine text-muted">{{
        e.hint
      }}</span
      ><span v-if="e.count !== undefined" class="count">{{ formatNumber(e.count) }}</span>
    </li>
  </ul>
</template>
