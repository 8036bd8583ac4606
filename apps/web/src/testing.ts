/** Stores without a page: a router of their own, and a server that answers what a test says. */
import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia';
import { enableAutoUnmount, mount, type VueWrapper } from '@vue/test-utils';
import { createApp, type Component } from 'vue';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { afterEach, vi } from 'vitest';

export interface Asked {
  method: string;
  path: string;
  query: URLSearchParams;
  body: unknown;
  signal: AbortSignal | undefined;
}

/** What a server answers: a value becomes JSON, a Response goes as it is. */
export type Answer = (asked: Asked) => unknown;

interface Around {
  /** Makes a store. */
  make<T>(use: () => T): T;
  /** Puts a component into the document, among the stores; only where there is one (`@vitest-environment happy-dom`). */
  show(component: Component, props?: object): VueWrapper;
  router: Router;
  /** What was asked of the server so far. */
  asked: Asked[];
}

if (typeof document === 'undefined') (globalThis as { window?: unknown }).window = globalThis;

/** The stores of a test end with it: what they wait for comes to nobody, and asks no server that is not there. */
let stores: Pinia | undefined;
enableAutoUnmount(afterEach);
afterEach(() => {
  if (stores) disposePinia(stores);
  stores = undefined;
});

export async function withoutPage(answer: Answer): Promise<Around> {
  const asked: Asked[] = [];
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
    routes: [
      { path: '/sources', name: 'sources', component: {} },
      { path: '/:all(.*)', component: {} },
    ],
  });
  const pinia = (stores = createPinia());
  const app = createApp({}).use(pinia).use(router);
  setActivePinia(pinia);
  await router.push('/sources');
  return {
    make: (use) => app.runWithContext(use),
    show: (component, props = {}) =>
      mount(component, { props, attachTo: document.body, global: { plugins: [pinia, router] } }),
    router,
    asked,
  };
}

/** Lets all that waits only for promises run. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 30; i += 1) await Promise.resolve();
  await new Promise((resolve) => setTimeout(resolve, 0));
}
