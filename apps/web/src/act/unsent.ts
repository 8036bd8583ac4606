/**
 * What one wrote that could not be saved: kept in this window, over reloads too. Where the server did not answer or the session
 * had ended it is sent as soon as it may be; where it was refused, or another had written there meanwhile, it waits for one's word.
 */
import { useEventListener, useSessionStorage, useTimeoutFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { routes, type Changed } from '@pandecta/contract';
import { ApiError, ask, mayComeLater } from '../api/client.ts';
import { useLive } from '../data/live.ts';
import { useSession } from '../session/store.ts';
import { useChanges } from './changes.ts';

/** Where something is written. */
type Where = { of: 'record'; source: string; field: string } | { of: 'gloss'; mark: string };
/** An edit as it is sent, with what stood there when one began. */
export type Edit = Where &
  ({ of: 'record'; value: unknown; before: unknown } | { of: 'gloss'; value: string; before: string });

export interface Unsent {
  edit: Edit;
  /** As it was typed. */
  text: string;
  /** What it is, in words: “Title of Tides”. */
  says: string;
  /** Where it can be written on. */
  to: string;
  /** Why it was refused: it is not sent again by itself. */
  error?: string;
  /** What another wrote there meanwhile, of which one is to choose: neither is it sent again. */
  met?: { by: string; yours: unknown; theirs: unknown };
}

const AGAIN_MS = 3000;
const isSame = (a: Where, b: Where): boolean =>
  a.of === 'record'
    ? b.of === 'record' && a.source === b.source && a.field === b.field
    : b.of === 'gloss' && a.mark === b.mark;
const send = (edit: Edit): Promise<Changed> =>
  edit.of === 'record'
    ? ask(routes.sources.edit, {
        source: edit.source,
        body: { fields: { [edit.field]: edit.value }, seen: { [edit.field]: edit.before } },
      })
    : ask(routes.marks.edit, { mark: edit.mark, body: { gloss: edit.value, seen: { gloss: edit.before } } });

export const useUnsent = defineStore('unsent', () => {
  const session = useSession();
  const changes = useChanges();
  const live = useLive();
  // What one wrote is no other's who signs in here.
  const kept = useSessionStorage<Unsent[]>(`unsent ${session.user?.userId} ${session.workspace?.id}`, []);
  const waiting = computed(() => kept.value.filter((one) => !one.error && !one.met));

  const ofRecord = (source: string): (Unsent & { edit: { of: 'record' } })[] =>
    kept.value.filter(
      (one): one is Unsent & { edit: { of: 'record' } } => one.edit.of === 'record' && one.edit.source === source,
    );
  const ofMark = (mark: string): Unsent | undefined => kept.value.find((one) => one.edit.of === 'gloss' && one.edit.mark === mark); // prettier-ignore

  function letGo(where: Where): void {
    kept.value = kept.value.filter((one) => !isSame(one.edit, where));
  }
  /** The last that was saved, at once or after it was kept. */
  const saved = shallowRef<Unsent | null>(null);
  const again = useTimeoutFn(() => void sendAll(), AGAIN_MS, { immediate: waiting.value.length > 0 });
  /** Keeps what was refused, with why. @returns what is to be said of it */
  function keep({ edit, text, says, to }: Unsent, error: unknown): string {
    const one: Unsent = { edit, text, says, to };
    const moved = error instanceof ApiError ? error.conflict?.moved[0] : undefined;
    if (moved) one.met = { by: (error as ApiError).conflict!.by, yours: moved.yours, theirs: moved.theirs };
    else if (!mayComeLater(error)) one.error = (error as Error).message;
    kept.value = [...kept.value.filter((k) => !isSame(k.edit, edit)), one];
    if (moved) live.tell({ everything: true, kinds: {} });
    if (moved) return '';
    if (one.error) return one.error;
    again.start();
    return 'The server does not answer. What you wrote is kept, and saved as soon as it does.';
  }

  /** Saves an edit; where that cannot be, it is kept. */
  async function save(one: Unsent): Promise<void> {
    const done = await changes.change(
      () => send(one.edit),
      (error) => keep(one, error),
    );
    if (!done) return;
    saved.value = one;
    letGo(one.edit);
  }

  /** What may have become possible since. What was written on meanwhile stands on what was sent. */
  async function sendAll(): Promise<void> {
    for (const one of waiting.value) {
      const now = (): Unsent | undefined => kept.value.find((k) => isSame(k.edit, one.edit));
      try {
        const done = await send(one.edit);
        const newer = now();
        if (newer) saved.value = one;
        if (newer?.text === one.text) letGo(one.edit);
        else if (newer) newer.edit.before = one.edit.value as never;
        changes.happened(done);
      } catch (error) {
        if (now()?.text === one.text) keep(one, error);
        if (mayComeLater(error)) break;
      }
    }
    if (waiting.value.length) again.start();
  }

  /** Whether nothing would be left behind; says so where it would. */
  function mayLeave(): boolean {
    if (kept.value.length)
      changes.tell(
        'Unsaved changes would be lost. Wait until they are saved, or discard them, then sign out.',
        null,
        true,
      );
    return !kept.value.length;
  }
  useEventListener('beforeunload', (event) => {
    if (kept.value.length && !session.leaving) event.preventDefault();
  });

  return { kept, saved, ofRecord, ofMark, letGo, save, sendAll, mayLeave };
});
