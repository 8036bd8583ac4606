/** Speaks to the server: JSON in and out, the forgery guard, and errors as sentences. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    detail: string,
  ) {
    super(detail);
  }
}

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

export type Query = Record<string, string | number | boolean | string[] | undefined>;

function search(query: Query | undefined): string {
  const params = new URLSearchParams();
  for (const [key, value] of Object.entries(query ?? {})) {
    if (Array.isArray(value)) for (const v of value) params.append(key, v);
    else if (value !== undefined && value !== '') params.append(key, String(value));
  }
  const text = params.toString();
  return text ? `?${text}` : '';
}

/** The address of something in the workspace. */
export const here = (path: string, query?: Query): string => `/api/w/${workspace}${path}${search(query)}`;

export async function send(method: string, url: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  const form = body instanceof FormData;
  let response: Response;
  try {
    response = await fetch(url, {
      method,
      headers: {
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrf }),
        ...(body === undefined || form ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
      ...(signal ? { signal } : {}),
    });
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    throw new ApiError(0, 'offline', 'The server does not answer. Nothing was changed; try again in a moment.');
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => ({}))) as { code?: string; detail?: string };
  if (response.status === 401 && problem.code === 'not_signed_in') signedOut();
  throw new ApiError(
    response.status,
    problem.code ?? 'failed',
    problem.detail ?? `The server answered with ${response.status}.`,
  );
}

async function json<T>(method: string, url: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const response = await send(method, url, body, signal);
  return (response.status === 204 ? undefined : await response.json()) as T;
}

export const api = {
  get: <T>(path: string, query?: Query, signal?: AbortSignal) => json<T>('GET', here(path, query), undefined, signal),
  post: <T>(path: string, body: unknown = {}, signal?: AbortSignal) => json<T>('POST', here(path), body, signal),
  patch: <T>(path: string, body: unknown) => json<T>('PATCH', here(path), body),
  remove: <T>(path: string) => json<T>('DELETE', here(path)),
  root: <T>(method: string, path: string, body?: unknown) => json<T>(method, `/api${path}`, body),
};

export const isAbort = (error: unknown): boolean => (error as Error)?.name === 'AbortError';
