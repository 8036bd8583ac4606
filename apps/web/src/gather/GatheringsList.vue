<script setup lang="ts">
/** What was gathered before, each with its report. */
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import TimeText from '../kit/TimeText.vue';
import { useGatherings } from './gatherings.ts';

const route = useRoute();
const { data: list } = useGatherings();
const imports = computed(() => list.value?.imports ?? []);
</script>

<template>
  <section aria-label="Gathered before">
    <h2 class="heading">Gathered before</h2>
    <ul class="mt-1">
      <li v-for="i in imports" :key="i.id">
        <RouterLink
          :to="`/gather/report/${i.id}`"
          class="block rounded px-2 py-1 hover:bg-card"
          :class="i.id === route.params.import && 'bg-verdtint'"
        >
          <span class="block truncate font-medium">{{ i.title }}</span>
          <span class="block truncate text-fine text-muted"
            ><TimeText :at="i.at" /> · {{ i.job.says || i.job.state }}</span
          >
        </RouterLink>
      </li>
      <li v-if="!imports.length" class="text-muted">Nothing yet.</li>
    </ul>
  </section>
</template>
