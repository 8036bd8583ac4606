<script setup lang="ts">
import { counted } from '@pandecta/core/wording';
import { useJobs } from '../gather/jobs.ts';
import ConfirmInPlace from '../kit/ConfirmInPlace.vue';
import KitButton from '../kit/KitButton.vue';
import KitPopover from '../kit/KitPopover.vue';
import ProgressBar from '../kit/ProgressBar.vue';

const jobs = useJobs();
</script>

<template>
  <KitPopover v-if="jobs.list.length" look="bare" at="bottom-end">
    <template #button
      ><span class="rounded px-1.5 py-0.5 hover:text-white">{{
        jobs.running.length ? `${counted(jobs.running.length, 'job')} running` : 'Jobs'
      }}</span></template
    ><template #default="{ close }">
      <div class="w-96">
        <div v-for="job in jobs.list.slice(0, 8)" :key="job.id" class="border-b border-line px-3 py-2 last:border-0">
          <div class="flex items-baseline gap-2">
            <RouterLink
              v-if="job.importId"
              :to="`/gather/report/${job.importId}`"
              class="min-w-0 flex-1 truncate font-medium hover:underline"
              @click="close()"
              >{{ job.title }}</RouterLink
            >
            <span v-else class="min-w-0 flex-1 truncate font-medium">{{ job.title }}</span>
            <KitButton v-if="job.rests && jobs.isRunning(job)" look="word" @click="jobs.rest(job)">{{
              job.state === 'paused' ? 'Go on' : 'Pause'
            }}</KitButton>
            <KitButton v-if="jobs.hasFailed(job)" look="word" @click="jobs.again(job)">Try again</KitButton>
            <ConfirmInPlace
              v-if="jobs.isRunning(job)"
              does="Cancel"
              asks="Nothing of it comes."
              yes="Cancel it"
              no="Go on"
              @confirm="jobs.cancel(job.id)"
            />
          </div>
          <ProgressBar v-if="jobs.isRunning(job)" class="my-1" :max="job.total" :value="job.done" :label="job.title" />
          <p class="text-muted">{{ job.state === 'paused' ? 'Paused: ' : '' }}{{ job.says || 'Waiting' }}</p>
        </div>
      </div>
    </template></KitPopover
  >
</template>
