<script setup lang="ts">
/** What lies loose, each with how much. */
import { watch } from 'vue';
import QueueEntry from './QueueEntry.vue';
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
      <QueueEntry :name="q.title" :count="q.count" :current="check.loose === q.id" @choose="check.loose = q.id" />
    </li>
  </ul>
</template>
