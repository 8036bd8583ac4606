/** What a kind of long work must say of itself. */
import type { Services } from '../services.ts';

export class Cancelled extends Error {}
/** The work stops, and is begun again when it is to go on. */
export class Paused extends Error {}

/** What a job's work is given to say how far it is; throws `Cancelled` or `Paused` when it is to stop. */
export interface Progress {
  (done: number, total: number, says: string): Promise<void>;
}

export type Work = (workspaceId: string, jobId: string, progress: Progress) => Promise<string>;

export interface JobKind {
  kind: string;
  /** What can be said of one that ended without having done anything: "nothing was added". */
  nothing: string;
  /** What is said of one that failed for a reason no person can mend. */
  failed: string;
  /** Whether it can be paused: begun again, it takes up what it had read. */
  rests?: true;
  /** So many of the kind go on at once on a server; two where it is not said. */
  atOnce?: number;
  /** Does it, and gives the sentence that says what came of it. A job may be begun again after a server died over it. */
  work(services: Services): Work;
}
