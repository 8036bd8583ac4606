/** What the log may hold of an error: what went wrong and where, never the values it went wrong with. */

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
