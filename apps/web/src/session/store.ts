/** Who is signed in, and the workspace they work in. */
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { routes, type Action, type FirstAccount, type SessionInfo, type WorkspaceSummary } from '@pandecta/contract';
import { ask, ApiError, onSignedOut, setCaller } from '../api/client.ts';

export const useSession = defineStore('session', () => {
  const user = ref<SessionInfo | null>(null);
  const workspace = ref<WorkspaceSummary | null>(null);
  const asked = ref(false);

  function take(info: SessionInfo | null): void {
    user.value = info;
    const wanted = localStorage.getItem('workspace');
    workspace.value = info?.workspaces.find((w) => w.id === wanted) ?? info?.workspaces[0] ?? null;
    setCaller(info?.csrf ?? '', workspace.value?.id ?? '');
  }

  async function ensure(): Promise<void> {
    if (asked.value) return;
    try {
      take(await ask(routes.access.session, {}));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      take(null);
    }
    asked.value = true;
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
    sessionStorage.clear();
    location.assign('/sources');
  }

  onSignedOut(() => {
    if (user.value) location.assign(`/sign-in?to=${encodeURIComponent(location.pathname + location.search)}`);
  });

  /** Whether one may do this here: the server says so. */
  const may = (action: Action): boolean => workspace.value?.may.includes(action) ?? false;
  const initials = computed(
    () =>
      user.value?.name
        .split(/\s+/)
        .map((w) => w[0])
        .slice(0, 2)
        .join('') ?? '',
  );

  return { user, workspace, may, initials, ensure, signIn, beginFirst, signOut, choose };
});
