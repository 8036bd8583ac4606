/** Notes what is asked in Sources in the log of searches, where one wants that: once one has rested on an answer. */
import { watchDebounced } from '@vueuse/core';
import { routes } from '@pandecta/contract';
import { ask as send } from '../../api/client.ts';
import { usePlaces } from '../../places/store.ts';
import { useAsk } from '../ask.ts';
import { useLedger } from '../ledger/store.ts';
import { useWords } from './words.ts';

/** Longer than one pauses while one writes. */
const RESTED_MS = 3000;

export function useAskedLog(): void {
  const ask = useAsk();
  const ledger = useLedger();
  const places = usePlaces();
  const inWords = useWords();
  /** Whether one logs what one asks: asked once there is something to note. */
  let logs: boolean | undefined;
  watchDebounced(
    () => [JSON.stringify(ask.body), ledger.total, ledger.state] as const,
    async () => {
      const words = inWords(ask.params);
      if (!words || ledger.state !== 'ready') return;
      // All members read the log: what names a collection of one's own stands in none.
      const isOwn = (places.reply?.collections ?? []).some(
        (c) => c.mine && (c.id === ask.collection || words.includes(c.name)),
      );
      if (isOwn) return;
      const { typing: _typing, ...asked } = ask.body as typeof ask.params;
      const found = ledger.total;
      try {
        logs ??= (await send(routes.saved.asked, {})).logs;
        if (logs) await send(routes.saved.note, { body: { ask: asked, words, found } });
      } catch {
        // It stands in nobody's way: a question that could not be noted is asked all the same.
      }
    },
    { debounce: RESTED_MS },
  );
}
