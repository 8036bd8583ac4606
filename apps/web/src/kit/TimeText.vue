<script setup lang="ts">
/** A moment in words, to the day or the minute, or its time of day, in the time of whoever reads it. */
import { computed } from 'vue';

const { at, to = 'minute' } = defineProps<{
  /** ISO 8601, or as PostgreSQL writes it. */
  at: string;
  to?: 'minute' | 'day' | 'time';
}>();
const FORMS = {
  minute: new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' }),
  day: new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' }),
  time: new Intl.DateTimeFormat('en-GB', { timeStyle: 'short' }),
};
const moment = computed(() => new Date(at));
</script>

<template>
  <time :datetime="moment.toISOString()">{{ FORMS[to].format(moment) }}</time>
</template>
