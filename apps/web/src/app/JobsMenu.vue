<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue';
import { useJobs } from '../gather/jobs.ts';

const jobs = useJobs();
</script>

<template>
  <Popover v-if="jobs.list.length" v-slot="{ close }" class="relative">
    <PopoverButton class="rounded px-1.5 py-0.5 hover:text-white">{{
      jobs.running.length ? `${jobs.running.length} ${jobs.running.length === 1 ? 'job' : 'jobs'} running` : 'Jobs'
    }}</PopoverButton>
    <PopoverPanel class="menu absolute right-0 top-7 w-96 text-body text-ink">
      <div v-for="job in jobs.list.slice(0, 8)" :key="job.id" class="border-b border-line px-3 py-2 last:border-0">
        <div class="flex items-baseline gap-2">
          <RouterLink
            v-if="job.importId"
            :to="`/gather/${job.importId}`"
            class="min-w-0 flex-1 truncate font-medium hover:underline"
            @click="close()"
            >{{ job.title }}</RouterLink
          >
          <span v-else class="min-w-0 flex-1 truncate font-medium">{{ job.title }}</span>
          <button v-if="jobs.isRunning(job)" class="text-madder underline" @click="jobs.cancel(job.id)">Cancel</button>
        </div>
        <progress
          v-if="jobs.isRunning(job)"
          class="h-1 w-full accent-verdigris"
          :max="job.total || 1"
          :value="job.done"
          :aria-label="job.title"
        />
        <p class="text-muted">{{ job.says || 'Waiting' }}</p>
      </div>
    </PopoverPanel>
  </Popover>
</template>
