/** What a person did, in one line with its undo; whoever shows data of the server hears of it (`data/live.ts`). */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { routes, type Changed, type ConflictOfEdits } from '@pandecta/contract';
import { ApiError, ask, mayComeLater } from '../api/client.ts';
import { useLive } from '../data/live.ts';

export interface Notice {
  text: string;
  changeId: string | null;
  bad: boolean;
}

export const useChanges = defineStore('changes', () => {
  const live = useLive();
  const notice = ref<Notice | null>(null);
  /** The job a change became, when it was too large to be done at once. */
  const begun = ref<string | null>(null);
  let timer = 0;

  function tell(text: string, changeId: string | null = null, bad = false): void {
    notice.value = { text, changeId, bad };
    clearTimeout(timer);
    timer = window.setTimeout(() => (notice.value = null), bad ? 12_000 : 8000);
  }

  /** Says what was changed, and has it looked at by whoever shows it. */
  function happened({ says, changeId, jobId }: Changed): void {
    tell(says, changeId);
    if (jobId) begun.value = jobId;
    live.tell({ everything: true, kinds: {}, ...(changeId && { changeId }) });
  }

  /**
   * Carries out something that changes data: says what happened, or what was wrong.
   * @param met told of another's newer edit, to show both; without it the notice says so
   * @param later told where nobody answered, to keep it until somebody does
   */
  async function change<T extends Changed>(
    work: () => Promise<T>,
    met?: (conflict: ConflictOfEdits) => void,
    later?: () => void,
  ): Promise<T | undefined> {
    try {
      const done = await work();
      happened(done);
      return done;
    } catch (error) {
      if (met && error instanceof ApiError && error.conflict) met(error.conflict);
      else if (later && mayComeLater(error)) {
        later();
        tell('The server does not answer. What you wrote is kept, and saved as soon as it does.', null, true);
      } else tell((error as Error).message, null, true);
      return undefined;
    }
  }

  /** Asks for something that is no change of the data; what was wrong is told. */
  async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
    try {
      return await work();
    } catch (error) {
      tell((error as Error).message, null, true);
      return undefined;
    }
  }

  const undo = (): Promise<unknown> => change(() => ask(routes.changes.undo, {}));
  const redo = (): Promise<unknown> => change(() => ask(routes.changes.redo, {}));
  const undoOne = (id: string): Promise<unknown> => change(() => ask(routes.changes.undoOne, { change: id }));
  return { notice, begun, tell, happened, change, attempt, undo, redo, undoOne };
});
