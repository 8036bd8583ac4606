/** What the log may hold of an error: what went wrong and where, never the values it went wrong with; and how much of it. */
import type { PinoLoggerOptions } from 'fastify/types/logger.js';

type Told = {
  type: string;
  message: string;
  stack: string;
  code?: string;
  cause?: Told;
};

/** Errors of the database quote the query with its parameters, or the value they stumbled over. */
export function told(error: unknown): Told {
  const e = (error ?? {}) as Error & {
    code?: string;
    cause?: unknown;
    query?: unknown;
    severity?: string;
    routine?: string;
  };
  const ofDatabase = e.query !== undefined || e.severity !== undefined || /^Failed query/.test(e.message ?? '');
  const message = ofDatabase
    ? `the database refused (${e.routine ?? 'query'})`
    : (e.message ?? 'an error without words');
  // The stack begins with the message.
  const stack = (e.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .join('\n');
  return {
    type: e.name ?? 'Error',
    message,
    stack,
    ...(e.code && { code: String(e.code) }),
    ...(e.cause !== undefined && e.cause !== null && { cause: told(e.cause) }),
  };
}

/** For the logger: of a request only what it was for, without what was asked in it. */
export const SERIALIZERS = {
  err: told,
  error: told,
  req: ({ method, url }: { method?: string; url?: string }) => ({ method, url: url?.split('?')[0] }),
};

/** More lines than anyone reads; what goes wrong over and over fills no disk. */
const MOST_A_MINUTE = 200;

/** Counts the lines of a minute: what is more is left out, and how many they were is said in the next one. */
export class Measure {
  private minute = -1;
  private lines = 0;

  constructor(private readonly now: () => number = Date.now) {}

  /** @returns whether one more may be written; with how many were left out of the minute before, where some were */
  take(): { may: boolean; leftOut: number } {
    const minute = Math.floor(this.now() / 60_000);
    let leftOut = 0;
    if (minute !== this.minute) {
      leftOut = Math.max(0, this.lines - MOST_A_MINUTE);
      this.minute = minute;
      this.lines = 0;
    }
    this.lines += 1;
    return { may: this.lines <= MOST_A_MINUTE, leftOut };
  }
}

/** For the logger: writes no more than so many lines a minute. */
export function measured(measure = new Measure()): PinoLoggerOptions['hooks'] {
  return {
    logMethod(args, method) {
      const { may, leftOut } = measure.take();
      if (leftOut) method.call(this, `${leftOut} more lines of the minute before are left out`);
      if (may) method.apply(this, args);
    },
  };
}
