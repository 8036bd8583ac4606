/** Speaks to the server by the routes of the contract: JSON in and out, the forgery guard, and errors as sentences. */
import type { ConflictOfEdits, ParamOf, Problem, Route } from '@pandecta/contract';

export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    detail: string,
    /** Of an edit that met another's newer one. */
    readonly conflict?: ConflictOfEdits,
    /** After how many seconds it is worth asking again, where the server says so. */
    readonly retryAfter?: number,
  ) {
    super(detail);
  }
}

/** Whether what was refused may be taken later as it is: nobody answered, or one is to sign in anew. */
export const mayComeLater = (error: unknown): boolean =>
  error instanceof ApiError && [0, 401, 502, 503, 504].includes(error.status);

let csrf = '';
let workspace = '';
let signedOut: () => void = () => {};

export function setCaller(token: string, workspaceId: string): void {
  csrf = token;
  workspace = workspaceId;
}

/** What to do when the server says that no one is signed in any more. */
export function onSignedOut(work: () => void): void {
  signedOut = work;
}

type Query = Record<string, string | number | boolean | string[] | undefined>;

function search(query: Query | undefined): string {
  const params = new URLSearchParams();
  for (const [key, value] of Object.entries(query ?? {})) {
    if (Array.isArray(value)) for (const v of value) params.append(key, v);
    else if (value !== undefined && value !== '') params.append(key, String(value));
  }
  const text = params.toString();
  return text ? `?${text}` : '';
}

/** What a route needs: its parameters but the workspace, its body and its query. */
export type Given<P extends string, B, Q> = { [N in Exclude<ParamOf<P>, 'workspace'>]: string } & ([B] extends [
  undefined,
]
  ? { body?: never }
  : { body: B }) &
  ([Q] extends [undefined] ? { query?: never } : Partial<Q> extends Q ? { query?: Q } : { query: Q }) & {
    signal?: AbortSignal;
    /** Files, where the route takes them. */
    form?: FormData;
  };

type AnyGiven = { body?: unknown; query?: object; signal?: AbortSignal; form?: FormData };

/** The address of what a route gives. */
export function addressOf<P extends string, B, Q, R>(route: Route<P, B, Q, R>, given: Given<P, B, Q>): string {
  const { query } = given as AnyGiven;
  const path = route.path.replace(/:(\w+)/g, (_, name: string) =>
    name === 'workspace' ? workspace : encodeURIComponent(String((given as Record<string, unknown>)[name])),
  );
  return `/api${path}${search(query as Query | undefined)}`;
}

/** Calls a route whose answer is not JSON. */
export async function send<P extends string, B, Q, R>(
  route: Route<P, B, Q, R>,
  given: Given<P, B, Q>,
): Promise<Response> {
  const { body, signal, form } = given as AnyGiven;
  const { method } = route;
  let response: Response;
  try {
    response = await fetch(addressOf(route, given), {
      method,
      headers: {
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrf }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(form ? { body: form } : body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    throw new ApiError(0, 'offline', 'The server does not answer. Nothing was changed; try again in a moment.');
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => ({}))) as Partial<Problem>;
  if (response.status === 401 && problem.code === 'not_signed_in') signedOut();
  throw new ApiError(
    response.status,
    problem.code ?? 'failed',
    problem.detail ?? `The server answered with ${response.status}.`,
    problem.conflict,
    Number(response.headers.get('retry-after')) || undefined,
  );
}

/** Calls a route by its name in the contract: `ask(routes.sources.one, { source: id })`. */
export async function ask<P extends string, B, Q, R>(route: Route<P, B, Q, R>, given: Given<P, B, Q>): Promise<R> {
  const response = await send(route, given);
  return (response.status === 204 ? undefined : await response.json()) as R;
}

export const isAbort = (error: unknown): boolean => (error as Error)?.name === 'AbortError';
