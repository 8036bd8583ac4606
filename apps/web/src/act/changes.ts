/** What a person did, in one line with its undo; whoever shows data of the server hears of it (`data/live.ts`). */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { routes, type Changed } from '@pandecta/contract';
import { ask } from '../api/client.ts';
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
   * @param refused told of the error first; what it returns is said instead, and nothing where that is empty
   */
  async function change<T extends Changed>(
    work: () => Promise<T>,
    refused?: (error: Error) => string,
  ): Promise<T | undefined> {
    try {
      const done = await work();
      happened(done);
      return done;
    } catch (error) {
      const says = refused ? refused(error as Error) : (error as Error).message;
      if (says) tell(says, null, true);
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
