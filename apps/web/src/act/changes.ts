/** What a person did, in one line with its undo; whoever shows data of the server hears of it (`data/live.ts`). */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { routes, type Changed } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useLive } from '../data/live.ts';

export interface Notice {
  text: string;
  /** What Undo takes back: one change, or several that were made together. */
  changeIds: string[];
  bad: boolean;
}

export const useChanges = defineStore('changes', () => {
  const live = useLive();
  const notice = ref<Notice | null>(null);
  /** The job a change became, when it was too large to be done at once. */
  const begun = ref<string | null>(null);
  let timer = 0;

  /** @param undoes the change, or the changes, that Undo takes back */
  function tell(text: string, undoes: string | string[] | null = null, bad = false): void {
    notice.value = { text, changeIds: undoes === null ? [] : [undoes].flat(), bad };
    clearTimeout(timer);
    timer = window.setTimeout(() => (notice.value = null), bad ? 12_000 : 8000);
  }

  /** Says what was changed, and has it looked at by whoever shows it. */
  function happened({ says, changeId, jobId }: Changed): void {
    tell(says, changeId);
    if (jobId) begun.value = jobId;
    live.tell({ everything: true, kinds: {}, ...(changeId && { changeId }) });
  }

  /** Says what several changes made together did. */
  function together(changeIds: string[], says: string): void {
    tell(says, changeIds);
    live.tell({ everything: true, kinds: {} });
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

  /** Several that were made together, the last first; one that cannot be taken back leaves the others undone. */
  async function undoAll(ids: readonly string[]): Promise<void> {
    if (ids.length === 1) return void (await undoOne(ids[0]!));
    const text = notice.value?.text ?? '';
    let [undone, why] = [0, ''];
    for (const change of ids.toReversed())
      await ask(routes.changes.undoOne, { change }).then(
        () => (undone += 1),
        (error: Error) => (why = error.message),
      );
    live.tell({ everything: true, kinds: {} });
    tell(why ? `Undone: ${undone} of ${ids.length}. ${why}` : `Undone: ${text}`, null, Boolean(why));
  }
  return { notice, begun, tell, together, happened, change, attempt, undo, redo, undoOne, undoAll };
});
