/**
 * What was touched in the workspace, as it happens: by others over the stream of the server, by oneself as soon as the
 * server has said so. Of several windows of one browser a single one keeps the stream and tells the others, since a
 * browser allows few lines to one server.
 */
import { useThrottleFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { onScopeDispose } from 'vue';
import { routes, type NewsKind, type Touched } from '@pandecta/contract';
import { addressOf } from '../api/client.ts';

type Hears = (touched: Touched) => void;

/** Changes remembered as heard of: one's own is told of twice, by its reply and by the stream. */
const REMEMBERED = 500;
const AGAIN_MS = 3000;

export const useLive = defineStore('live', () => {
  const listeners = new Set<Hears>();
  const heard = new Set<string>();
  let workspace = '';

  /** @returns what ends the listening */
  function listen(hears: Hears): () => void {
    listeners.add(hears);
    return () => void listeners.delete(hears);
  }

  function tell(touched: Touched): void {
    const { changeId } = touched;
    if (changeId) {
      if (heard.has(changeId)) return;
      heard.add(changeId);
      if (heard.size > REMEMBERED) heard.delete(heard.values().next().value!);
    }
    for (const hears of listeners) hears(touched);
  }

  /** Follows the workspace from now on; only the first call of a page does anything, since another loads a new one. */
  function follow(workspaceId: string): void {
    if (workspace || !workspaceId) return;
    workspace = workspaceId;
    const name = `pandecta ${workspaceId}`;
    const channel = new BroadcastChannel(name);
    channel.onmessage = ({ data }: MessageEvent<Touched>) => tell(data);
    // Held as long as this window lives: the next that gets it does not know what it missed.
    void navigator.locks.request(name, () => {
      const spread = (touched: Touched): void => (tell(touched), channel.postMessage(touched));
      stream(spread);
      return new Promise(() => {});
    });
  }

  function stream(spread: Hears): void {
    const source = new EventSource(addressOf(routes.live.stream, {}));
    let missed = false;
    source.addEventListener('touched', ({ data }: MessageEvent<string>) => spread(JSON.parse(data) as Touched));
    source.onopen = () => missed && (spread({ everything: true, kinds: {} }), (missed = false));
    source.onerror = () => {
      missed = true;
      // It tries again by itself, unless it was refused.
      if (source.readyState === EventSource.CLOSED) setTimeout(() => stream(spread), AGAIN_MS);
    };
  }

  return { listen, tell, follow };
});

/** Whether something of one of these kinds was touched; with an id, whether that one may have been. */
export function concerns(touched: Touched, kinds: NewsKind[], id?: string): boolean {
  if (touched.everything) return true;
  return kinds.some((kind) => {
    const ids = touched.kinds[kind];
    return ids === 'all' || (ids !== undefined && (id === undefined || ids.includes(id)));
  });
}

/** News come in bursts: after the first of them, those of so long are answered with one asking. */
const GATHER_MS = 200;

/** Has an answer looked at again when what was touched concerns it, as long as whoever asks is there. */
export function useNews(concerns: (touched: Touched) => boolean, look: () => unknown): void {
  let here = true;
  const gathered = useThrottleFn(() => (here ? look() : undefined), GATHER_MS, true, true);
  const silence = useLive().listen((touched) => void (concerns(touched) && gathered()));
  onScopeDispose(() => {
    here = false;
    silence();
  });
}
