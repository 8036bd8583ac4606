/** Stores without a page: a router of their own, and a server that answers what a test says. */
import { createPinia, setActivePinia } from 'pinia';
import { createApp } from 'vue';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { vi } from 'vitest';

export interface Asked {
  method: string;
  path: string;
  query: URLSearchParams;
  body: unknown;
  signal: AbortSignal | undefined;
}

/** What a server answers: a value becomes JSON, a Response goes as it is. */
export type Answer = (asked: Asked) => unknown;

/** @returns how to make stores, the router they live with, and what was asked of the server so far */
export async function withoutPage(
  answer: Answer,
): Promise<{ make<T>(use: () => T): T; router: Router; asked: Asked[] }> {
  const asked: Asked[] = [];
  vi.stubGlobal('window', globalThis);
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}): Promise<Response> => {
    const { pathname, searchParams } = new URL(url, 'http://pandecta.example');
    const one: Asked = {
      method: init.method ?? 'GET',
      path: pathname.replace(/^\/api\/w\/[^/]*/, ''),
      query: searchParams,
      body: typeof init.body === 'string' ? JSON.parse(init.body) : undefined,
      signal: init.signal ?? undefined,
    };
    asked.push(one);
    const reply = await answer(one);
    if (one.signal?.aborted) throw new DOMException('aborted', 'AbortError');
    return reply instanceof Response ? reply : Response.json(reply);
  });
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/sources', name: 'sources', component: {} }],
  });
  const pinia = createPinia();
  const app = createApp({}).use(pinia).use(router);
  setActivePinia(pinia);
  await router.push('/sources');
  return { make: (use) => app.runWithContext(use), router, asked };
}

/** Lets all that waits only for promises run. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 30; i += 1) await Promise.resolve();
  await new Promise((resolve) => setTimeout(resolve, 0));
}
