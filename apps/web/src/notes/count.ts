import { defineStore } from 'pinia';
import { computed } from 'vue';
import { routes } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { useSession } from '../session/store.ts';

/** How many notes there are, for the tab of the stage. */
export const useNotesCount = defineStore('notes count', () => {
  const session = useSession();
  const { data } = useAsked({
    question: () => session.workspace?.id ?? null,
    fetch: async (_, signal) => (await ask(routes.notes.count, { signal })).total,
    concerns: (touched) => concerns(touched, ['note']),
  });
  return { total: computed(() => data.value ?? undefined) };
});
