/** What a kind of long work must say of itself. */
export class Cancelled extends Error {}
/** The work stops, and is begun again when it is to go on. */
export class Paused extends Error {}

/** What a job's work is given to say how far it is; throws `Cancelled` or `Paused` when it is to stop. */
export interface Progress {
  (done: number, total: number, says: string): Promise<void>;
}

/** A job as its work finds it. */
export interface Job<Input> {
  workspaceId: string;
  jobId: string;
  /** Whoever started it. */
  userId: string;
  /** What is to be done, as it was queued. */
  input: Input;
}

/**
 * @typeParam S what the work is given: the services of the server
 * @typeParam Input what one of this kind is queued with; kept as JSON
 */
export interface JobOf<S, Input> {
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
  work(services: S, job: Job<Input>, progress: Progress): Promise<string>;
}

/** One of any kind, with the input its kind has. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- what is queued is typed by its kind; here all kinds are alike
export type AnyJobOf<S> = JobOf<S, any>;
