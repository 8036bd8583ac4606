<script setup lang="ts">
/** An entry of a queue: its name, how much is in it, and whether one is at it. */
import { formatNumber } from '@pandecta/core/wording';
import KitButton from '../kit/KitButton.vue';

defineProps<{ name: string; count: number; current: boolean }>();
const emit = defineEmits<{ choose: [] }>();
</script>

<template>
  <KitButton
    look="bare"
    class="flex w-full items-baseline justify-between gap-2 rounded-md border px-2 py-1 text-left"
    :class="[
      current ? 'border-line bg-card font-semibold' : 'border-transparent hover:bg-card',
      !count && 'text-muted',
    ]"
    :aria-current="current ? 'true' : undefined"
    @click="emit('choose')"
    ><span>{{ name }}</span
    ><span class="font-mono text-label font-normal text-muted">{{ formatNumber(count) }}</span></KitButton
  >
</template>
