import type { ChildProcess } from 'node:child_process';

export interface Running {
  first: string | undefined;
  /** The process of the server that was started last. */
  newest(): ChildProcess;
  stop(): Promise<void>;
}
export function serve(what: {
  databaseUrl: string;
  folder: string;
  port: number;
  demo: boolean;
  quiet?: boolean;
  env?: Record<string, string>;
}): Promise<Running>;
export function keepRunning(
  running: Running,
  isStopping: () => boolean,
  wait?: (ms: number) => Promise<unknown>,
): Promise<void>;
