/** Speaks to a Pandecta by a key for gathering. */
import type { Clip, Clipped, KeyHolder, PlacesReply } from '@pandecta/contract';

/** Where and by which key, as the application shows it: "http://host/w/WORKSPACE#KEY". */
export interface Connection {
  origin: string;
  workspace: string;
  key: string;
}

export function readConnection(text: string): Connection | undefined {
  const m = /^(https?:\/\/[^/\s]+)\/w\/([0-9a-f-]{36})#([\w-]{20,})$/i.exec(text.trim());
  return m ? { origin: m[1]!, workspace: m[2]!, key: m[3]! } : undefined;
}

/** Nobody answered: it can be tried again. */
export class Away extends Error {}

async function call<R>(
  { origin, workspace, key }: Connection,
  method: string,
  path: string,
  body?: unknown,
): Promise<R> {
  let response: Response;
  try {
    response = await fetch(`${origin}/api/w/${workspace}${path}`, {
      method,
      credentials: 'omit',
      headers: { authorization: `Bearer ${key}`, ...(body !== undefined && { 'content-type': 'application/json' }) },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
  } catch {
    throw new Away('Pandecta does not answer. It is kept here and sent when it does.');
  }
  const reply = (await response.json().catch(() => ({}))) as R & { detail?: string };
  if (response.status >= 500) throw new Away(reply.detail ?? 'Pandecta is in trouble. It is kept here and sent later.');
  if (!response.ok) throw new Error(reply.detail ?? `Pandecta answered ${response.status}.`);
  return reply;
}

export const holder = (to: Connection): Promise<KeyHolder> => call(to, 'GET', '/gathering-key');
export const places = (to: Connection): Promise<PlacesReply> => call(to, 'GET', '/places');
export const clip = (to: Connection, what: Clip): Promise<Clipped> => call(to, 'POST', '/clips', what);
