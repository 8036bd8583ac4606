/** Loops over what is due: each apart, so that one that fails holds up no other. */
import { isUnavailable } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import { Unreachable } from '../fetching/fetch.ts';

interface Due<D> {
  work: (one: D) => Promise<unknown>;
  /** Notes with the one that failed why, and puts off its next time; @param why a sentence for whoever owns it */
  failed: (one: D, why: string) => Promise<unknown>;
  /** Told of what no person can mend. */
  report: (error: unknown) => void;
}

export async function eachDue<D>(due: readonly D[], { work, failed, report }: Due<D>): Promise<void> {
  for (const one of due) {
    try {
      await work(one);
    } catch (error) {
      const isForPerson = error instanceof Refusal || error instanceof Unreachable;
      // A database that is away fails them all: they stay due.
      if (isUnavailable(error)) throw error;
      if (!isForPerson) report(error);
      const why = isForPerson ? error.message : 'It failed on the server; the administrator was told';
      await failed(one, why).catch(report);
    }
  }
}
