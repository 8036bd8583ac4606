/** Follows long work, and tells when something ended. */
import { defineStore } from 'pinia';
import { computed, watch } from 'vue';
import { useRoute } from 'vue-router';
import { GOING, routes, type JobInfo } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';

export const useJobs = defineStore('jobs', () => {
  const changes = useChanges();
  const route = useRoute();
  const { data: value, reload } = useAsked({
    question: () => 'jobs',
    fetch: (_, signal) => ask(routes.jobs.jobs, { signal }),
    concerns: (touched) => concerns(touched, ['job']),
  });
  const list = computed<JobInfo[]>(() => value.value?.jobs ?? []);
  const isRunning = (job: JobInfo): boolean => GOING.includes(job.state);
  /** Those that do not rest. */
  const running = computed(() => list.value.filter((job) => isRunning(job) && job.state !== 'paused'));

  watch(list, (now, before) => {
    const ran = new Set(before.filter(isRunning).map((j) => j.id));
    const ended = now.filter((j) => (ran.has(j.id) || j.id === changes.begun) && !isRunning(j));
    if (ended.some((j) => j.id === changes.begun)) changes.begun = null;
    // Whoever looks at the reports sees there what came of one.
    for (const job of ended.filter((j) => !(j.importId && route.path.startsWith('/gather/report'))))
      changes.tell(job.changeId ? job.says : `${job.title}: ${job.says}`, job.changeId ?? null, job.state === 'failed');
  });
  watch(
    () => changes.begun,
    (job) => job && reload(),
  );

  async function cancel(id: string): Promise<void> {
    await ask(routes.jobs.cancel, { job: id });
    await reload();
  }

  const hasFailed = (job: JobInfo): boolean => job.state === 'failed' || job.state === 'cancelled';
  /** Begins one anew that failed, or was cancelled. */
  async function again(job: JobInfo): Promise<void> {
    await changes.attempt(() => ask(routes.jobs.again, { job: job.id }));
    await reload();
  }

  /** Lets one rest, or go on. */
  async function rest(job: JobInfo): Promise<void> {
    await changes.attempt(() => ask(job.state === 'paused' ? routes.jobs.resume : routes.jobs.pause, { job: job.id }));
    await reload();
  }

  return { list, running, isRunning, look: reload, cancel, rest, again, hasFailed };
});
