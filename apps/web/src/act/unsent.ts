/**
 * What one wrote that could not be saved, since the server did not answer or the session had ended: kept in this window, over
 * reloads too, and sent as soon as it may be. What is refused then stays until one has seen it.
 */
import { useEventListener, useSessionStorage, useTimeoutFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { routes, type Changed } from '@pandecta/contract';
import { ask, mayComeLater } from '../api/client.ts';
import { useSession } from '../session/store.ts';
import { useChanges } from './changes.ts';

/** An edit as it is sent, with what stood there when one began. */
export type Edit =
  | { of: 'record'; source: string; field: string; value: unknown; before: unknown }
  | { of: 'gloss'; mark: string; value: string; before: string };

export interface Unsent {
  edit: Edit;
  /** As it was typed. */
  text: string;
  /** What it is, in words: “Title of Tides”. */
  says: string;
  /** Where it can be written on. */
  to: string;
  /** Why it was refused: it is not sent again by itself. */
  trouble?: string;
}

const AGAIN_MS = 3000;
const isSame = (a: Edit, b: Edit): boolean =>
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
  // What one wrote is no other's who signs in here.
  const kept = useSessionStorage<Unsent[]>(`unsent ${session.user?.userId} ${session.workspace?.id}`, []);
  const waiting = computed(() => kept.value.filter((one) => !one.trouble));

  const ofRecord = (source: string): (Unsent & { edit: { of: 'record' } })[] =>
    kept.value.filter(
      (one): one is Unsent & { edit: { of: 'record' } } => one.edit.of === 'record' && one.edit.source === source,
    );
  const ofMark = (mark: string): Unsent | undefined => kept.value.find((one) => one.edit.of === 'gloss' && one.edit.mark === mark); // prettier-ignore

  function letGo(edit: Edit): void {
    kept.value = kept.value.filter((one) => !isSame(one.edit, edit));
  }
  /** The last that was saved, at once or after it was kept. */
  const saved = shallowRef<Unsent | null>(null);
  function isSaved(one: Unsent): void {
    saved.value = one;
    letGo(one.edit);
  }
  const again = useTimeoutFn(() => void sendAll(), AGAIN_MS, { immediate: waiting.value.length > 0 });
  function keep(one: Unsent): void {
    kept.value = [...kept.value.filter((k) => !isSame(k.edit, one.edit)), one];
    again.start();
  }

  /** Saves an edit; where it cannot be now, it is kept. */
  async function save(one: Unsent, met: NonNullable<Parameters<typeof changes.change>[1]>): Promise<void> {
    const done = await changes.change(
      () => send(one.edit),
      met,
      () => keep(one),
    );
    if (done) isSaved(one);
  }

  async function sendAll(): Promise<void> {
    for (const one of waiting.value) {
      try {
        const done = await send(one.edit);
        isSaved(one);
        changes.happened(done);
      } catch (error) {
        if (mayComeLater(error)) break;
        kept.value = kept.value.map((k) => (isSame(k.edit, one.edit) ? { ...k, trouble: (error as Error).message } : k)); // prettier-ignore
      }
    }
    if (waiting.value.length) again.start();
  }

  /** Whether nothing would be left behind; says so where it would. */
  function mayLeave(): boolean {
    if (kept.value.length)
      changes.tell(
        'What is not saved yet would be lost. Let it be saved, or let it go, and sign out then.',
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
