<script setup lang="ts">
/** The report of one gathering, with how far it is while it goes on. */
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { routes } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import EmptyState from '../kit/EmptyState.vue';
import KitButton from '../kit/KitButton.vue';
import KitNotice from '../kit/KitNotice.vue';
import { useSession } from '../session/store.ts';
import { isTakenBack, useGatherings } from './gatherings.ts';
import ImportReportCard from './ImportReportCard.vue';
import { useJobs } from './jobs.ts';

const route = useRoute();
const jobs = useJobs();
const session = useSession();
const { data: list } = useGatherings();
/** The report one asked for, or the newest. */
const openId = computed(() => String(route.params.import || list.value?.imports[0]?.id || ''));
/**
 * Its own job's line tells how far it is; the report is looked at again with each state of it, also where the job had ended
 * before anyone saw it run.
 */
const job = computed(() => jobs.list.find((j) => j.importId === openId.value));
const { data: report, error } = useAsked({
  question: () => (openId.value ? { id: openId.value, state: job.value?.state } : null),
  fetch: ({ id }, signal) => ask(routes.gather.report, { import: id, signal }),
  concerns: isTakenBack,
});
const open = computed(() => report.value && { ...report.value, job: job.value ?? report.value.job });
</script>

<template>
  <section class="overflow-auto px-8 py-6" aria-label="Report">
    <p v-if="session.may('gather')" class="mb-2 text-fine">
      <KitButton look="quiet" to="/gather">‹ The intake</KitButton>
    </p>
    <KitNotice v-if="error" tone="bad">{{ error }}</KitNotice>
    <ImportReportCard v-else-if="open" :report="open" />
    <div v-else class="grid h-full place-items-center">
      <EmptyState>Shows what was brought in and what happened to it.</EmptyState>
    </div>
  </section>
</template>
