/** Who is signed in, and the workspace they work in. */
import { promiseTimeout } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { routes, type Action, type FirstAccount, type SessionInfo, type WorkspaceSummary } from '@pandecta/contract';
import { firstOf } from '@pandecta/core/text';
import { ask, ApiError, onSignedOut, setCaller } from '../api/client.ts';

/** In seconds: where the server does not say. */
const AGAIN_S = 2;

export const useSession = defineStore('session', () => {
  const user = ref<SessionInfo | null>(null);
  const workspace = ref<WorkspaceSummary | null>(null);
  const asked = ref(false);
  /** Whether the first answer is waited for, since there was none just now. */
  const away = ref(false);

  function take(info: SessionInfo | null): void {
    user.value = info;
    const wanted = localStorage.getItem('workspace');
    workspace.value = info?.workspaces.find((w) => w.id === wanted) ?? info?.workspaces[0] ?? null;
    setCaller(info?.csrf ?? '', workspace.value?.id ?? '');
  }

  /** Learns who is signed in. Who cannot be told just now is not signed out: it is asked again until it is known. */
  async function ensure(): Promise<void> {
    while (!asked.value) {
      try {
        take(await ask(routes.access.session, {}));
        asked.value = true;
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        if (error.status === 401) {
          take(null);
          asked.value = true;
        } else {
          away.value = true;
          await promiseTimeout((error.retryAfter ?? AGAIN_S) * 1000);
        }
      }
    }
    away.value = false;
  }

  async function signIn(email: string, password: string): Promise<void> {
    take(await ask(routes.access.signIn, { body: { email, password } }));
  }

  async function beginFirst(body: FirstAccount): Promise<void> {
    take(await ask(routes.access.first, { body }));
  }

  async function signOut(): Promise<void> {
    await ask(routes.access.signOut, {});
    sessionStorage.clear();
    location.assign('/sign-in');
  }

  function choose(id: string): void {
    localStorage.setItem('workspace', id);
    // What was not saved yet is of its own workspace, and is sent when one comes back.
    for (const key of Object.keys(sessionStorage)) if (!key.startsWith('unsent ')) sessionStorage.removeItem(key);
    location.assign('/sources');
  }

  /** Whether the page goes by itself, for one to sign in anew. */
  const leaving = ref(false);
  onSignedOut(() => {
    leaving.value = true;
    if (user.value) location.assign(`/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`);
  });

  /** Whether one may do this here: the server says so. */
  const may = (action: Action): boolean => workspace.value?.may.includes(action) ?? false;
  const initials = computed(() => user.value?.name.split(/\s+/).map(firstOf).slice(0, 2).join('') ?? '');

  return { user, workspace, away, leaving, may, initials, ensure, signIn, beginFirst, signOut, choose };
});
