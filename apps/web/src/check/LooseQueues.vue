<script setup lang="ts">
/** What lies loose, each with how much. */
import { watch } from 'vue';
import KitButton from '../kit/KitButton.vue';
import { useCheck } from './store.ts';

const check = useCheck();
watch(
  () => check.ends,
  (ends) => {
    const left = ends?.queues.filter((q) => q.count) ?? [];
    if (left.length && !left.some((q) => q.id === check.loose)) check.loose = left[0]!.id;
  },
  { immediate: true },
);
</script>

<template>
  <p v-if="!check.ends" class="text-muted" role="status">Looking…</p>
  <ul v-else aria-label="Loose ends">
    <li v-for="q in check.ends.queues" :key="q.id">
      <KitButton
        look="bare"
        class="flex w-full items-baseline justify-between gap-2 rounded-md border px-2 py-1 text-left"
        :class="[
          check.loose === q.id ? 'border-line bg-card font-semibold' : 'border-transparent hover:bg-card',
          !q.count && 'text-muted',
        ]"
        :aria-current="check.loose === q.id ? 'true' : undefined"
        @click="check.loose = q.id"
        ><span>{{ q.title }}</span
        ><span class="font-mono text-label font-normal text-muted">{{ q.count.toLocaleString('en') }}</span></KitButton
      >
    </li>
  </ul>
</template>
