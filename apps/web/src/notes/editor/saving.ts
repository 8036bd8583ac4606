/** Saving a note as it is written: soon after the last letter, one after the other, against what stood there. */
import { useDebounceFn } from '@vueuse/core';
import { onScopeDispose, ref } from 'vue';
import { routes, type EditNote, type NewNote } from '@pandecta/contract';
import type { DocNode } from '@pandecta/core/notes';
import { ApiError, ask } from '../../api/client.ts';
import { useChanges } from '../../act/changes.ts';
import { useLive } from '../../data/live.ts';

const AFTER_MS = 700;

export interface Written {
  title: string;
  text: DocNode;
}

export function useSaving(now: () => Written, made: (id: string) => void) {
  const changes = useChanges();
  const live = useLive();
  let id: string | null = null;
  let begins: NewNote = {};
  /** What the server has, as far as this window knows. */
  let stands: Written | null = null;
  let going: Promise<void> | null = null;
  /** How often something was sent or answered: what was asked for before the last of them is older than what stands here. */
  let turns = 0;
  /** `saved`, `writing` until it is sent, or why it is not saved. */
  const state = ref<'saved' | 'writing' | 'conflict' | 'failed'>('saved');

  /** What is written from here on belongs to this note; null for one that is not there yet. */
  function follow(note: string | null, of: Written | null, begin: NewNote = {}): void {
    [id, stands, begins] = [note, of, begin];
    state.value = 'saved';
  }
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

  async function send(force: boolean): Promise<void> {
    const written = JSON.parse(JSON.stringify(now())) as Written;
    const told = (done: { changeId: string | null }): void =>
      live.tell({ kinds: { note: [id!] }, ...(done.changeId && { changeId: done.changeId }) });
    if (!id) {
      if (!written.title.trim() && same(written.text, stands?.text)) return;
      const done = await ask(routes.notes.make, { body: { ...begins, ...written } });
      id = done.id!;
      stands = written;
      told(done);
      made(id);
      return;
    }
    const body: EditNote = { seen: {} };
    if (written.title !== stands!.title) Object.assign(body, { title: written.title });
    if (!same(written.text, stands!.text)) Object.assign(body, { text: written.text });
    if (body.title === undefined && !body.text) return;
    // `seen` is left out only where the person chose to write over another’s version.
    if (!force) body.seen = { ...(body.text && { text: stands!.text }), ...(body.title !== undefined && { title: stands!.title }) }; // prettier-ignore
    const done = await ask(routes.notes.edit, { note: id, body });
    stands = written;
    told(done);
  }

  async function save(force = false): Promise<void> {
    while (going) await going;
    turns += 1;
    going = send(force)
      .then(
        () => void (state.value = 'saved'),
        (error: unknown) => {
          state.value = error instanceof ApiError && error.conflict ? 'conflict' : 'failed';
          if (state.value === 'failed') changes.tell((error as Error).message, null, true);
        },
      )
      .finally(() => {
        turns += 1;
        going = null;
      });
    await going;
  }
  const soon = useDebounceFn(() => state.value === 'writing' && save(), AFTER_MS);
  function typed(): void {
    if (state.value !== 'conflict') state.value = 'writing';
    void soon();
  }
  /** Saves what is not saved yet. @returns whether all is */
  async function settle(): Promise<boolean> {
    if (state.value === 'writing' || state.value === 'failed') await save();
    return state.value === 'saved';
  }
  onScopeDispose(() => void settle());
  const isWriting = (): boolean => state.value !== 'saved';
  return { state, follow, typed, settle, save, isWriting, turns: () => turns };
}
