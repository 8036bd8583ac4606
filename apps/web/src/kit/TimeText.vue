<script setup lang="ts">
/** A moment in words, to the day or the minute, or its time of day, in the time of whoever reads it. */
import { computed } from 'vue';
import { formatDate } from '@pandecta/core/wording';

const { at, to = 'minute' } = defineProps<{
  /** ISO 8601, or as PostgreSQL writes it. */
  at: string;
  to?: 'minute' | 'day' | 'time';
}>();
const moment = computed(() => new Date(at));
</script>

<template>
  <time :datetime="moment.toISOString()">{{ formatDate(at, to === 'day' ? 'short' : to) }}</time>
</template>
