/** The labels of the workspace, and what is said of sources by them and by ratings. */
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { routes, type Changed, type Chosen, type NewLabel } from '@pandecta/contract';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';

export const useAssessments = defineStore('assessments', () => {
  const { change } = useChanges();
  const { data: reply } = useAsked({
    question: () => 'labels',
    fetch: (_, signal) => ask(routes.assessments.labels, { signal }),
    concerns: (touched) => concerns(touched, ['label']),
  });
  const labels = computed(() => reply.value?.labels ?? []);

  const make = (body: NewLabel): Promise<Changed | undefined> =>
    change(() => ask(routes.assessments.makeLabel, { body }));
  const edit = (label: string, body: NewLabel): Promise<Changed | undefined> =>
    change(() => ask(routes.assessments.editLabel, { label, body }));
  const remove = (label: string): Promise<unknown> => change(() => ask(routes.assessments.removeLabel, { label }));
  const put = (chosen: Chosen, label: string, present = true): Promise<unknown> =>
    change(() => ask(routes.assessments.label, { body: { ...chosen, label, present } }));
  const rate = (chosen: Chosen, rating: number | null): Promise<unknown> =>
    change(() => ask(routes.assessments.rate, { body: { ...chosen, rating } }));
  const recheck = (chosen: Chosen, reason: string | null): Promise<unknown> =>
    change(() => ask(routes.assessments.recheck, { body: { ...chosen, reason } }));

  return { labels, make, edit, remove, put, rate, recheck };
});
