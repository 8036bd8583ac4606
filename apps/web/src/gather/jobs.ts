/** Follows long work: asks often while something runs, seldom otherwise, and tells when something ended. */
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { routes, type JobInfo } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from '../app/changes.ts';

const OFTEN_MS = 400;
const SELDOM_MS = 10_000;

export const useJobs = defineStore('jobs', () => {
  const list = ref<JobInfo[]>([]);
  const isRunning = (job: JobInfo): boolean => job.state === 'waiting' || job.state === 'running';
  const running = computed(() => list.value.filter(isRunning));
  const changes = useChanges();
  const route = useRoute();
  let timer = 0;
  let following = false;

  async function look(): Promise<void> {
    clearTimeout(timer);
    const before = new Set(running.value.map((j) => j.id));
    try {
      list.value = (await ask(routes.jobs.jobs, {})).jobs;
      const ended = list.value.filter((j) => (before.has(j.id) || j.id === changes.begun) && !isRunning(j));
      if (ended.some((j) => j.id === changes.begun)) changes.begun = null;
      // Whoever looks at the reports sees there what came of one.
      const toTell = ended.filter((j) => !(j.importId && route.path.startsWith('/gather')));
      for (const job of toTell)
        changes.tell(
          job.changeId ? job.says : `${job.title}: ${job.says}`,
          job.changeId ?? null,
          job.state === 'failed',
        );
      if (ended.length) changes.refresh();
    } catch {
      // The server is away for a moment; the next look will tell.
    }
    if (following) timer = window.setTimeout(look, running.value.length ? OFTEN_MS : SELDOM_MS);
  }

  function follow(): void {
    following = true;
    void look();
  }

  watch(
    () => changes.begun,
    (job) => job && look(),
  );

  async function cancel(id: string): Promise<void> {
    list.value = (await ask(routes.jobs.cancel, { job: id })).jobs;
    void look();
  }

  return { list, running, isRunning, look, follow, cancel };
});
