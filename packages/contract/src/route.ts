/**
 * A route, declared once: the server's handler and the page's call are typed by it, bodies and queries are checked by it,
 * and the description of the API is made of it.
 */
import type { Class } from './shape.ts';

/** What a member may be allowed to do; who is, is the server's to say. */
export const ACTIONS = ['read', 'cite', 'own', 'mark', 'edit', 'gather', 'arrange', 'steer'] as const;
export type Action = (typeof ACTIONS)[number];

export interface Route<P extends string = string, B = unknown, Q = unknown, R = unknown> {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  /** Below /api; a path under /w/:workspace speaks of one workspace. Every parameter is an id. */
  path: P;
  /** `signed in` for one's own session; `anyone` before signing in. */
  may: Action | 'signed in' | 'anyone';
  /** A key made for gathering opens it as well as a session does. */
  byKey?: true;
  summary: string;
  body?: Class<B>;
  /** The most bytes a body may have; a few kilobytes where nothing is said. */
  most?: number;
  /** It takes long, or much: few of them are done at once. Likewise what is about very many sources. */
  heavy?: true;
  /**
   * It also serves a member who sees only part of the workspace, and tells them nothing outside of that part. Every other route
   * refuses them.
   */
  bounded?: true;
  /** An answer that goes on for as long as someone looks. */
  stays?: true;
  query?: Class<Q>;
  reply?: Class<R>;
  /** The media type of the answer where it is not JSON. */
  produces?: string;
}

/** Bodies that name very many sources. */
export const MANY_IDS = 8 * 1024 ** 2;
/** Bodies that hold a record, which may have a long abstract. */
export const RECORDS = 1024 ** 2;

/** An action is allowed to a member of the workspace in the path: without one there is nobody to ask. */
type MayAt<P extends string> = P extends `/w/:workspace${string}` ? Action : 'signed in' | 'anyone';

export const route = <const P extends string, B = undefined, Q = undefined, R = undefined>(
  spec: Route<P, B, Q, R> & { may: MayAt<P> },
): Route<P, B, Q, R> => spec;

/** The names of the parameters of a path. */
export type ParamOf<P extends string> = P extends `${string}:${infer N}/${infer Rest}`
  ? N | ParamOf<Rest>
  : P extends `${string}:${infer N}`
    ? N
    : never;
