/** Going through pages: what is said of each by a key, which were looked at, and what is left. */
import { useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { routes, type SortedPage, type SortPage } from '@pandecta/contract';
import { offeredSenses, type Sense } from '@pandecta/core/marks';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import { useTabs } from '../tabs.ts';

/** These are taken: used, and check again. */
export const TAKEN_LETTERS = ['u', 'g'];

export function useSorting(at: () => { source: string; file: string; pages: number; senses: Sense[] }) {
  const { change } = useChanges();
  const tabs = useTabs();
  /** The tag each letter gives. */
  const letters = useLocalStorage<Record<string, string>>('letters for pages', {});
  const { data, reload } = useAsked({
    question: () => ({ source: at().source, file: at().file }),
    fetch: async (of, signal) => (await ask(routes.files.sortedPages, { ...of, signal })).pages,
    concerns: (touched) => concerns(touched, ['source'], at().source),
  });
  /** Said just now, until the server says the same. */
  const said = ref(new Map<number, Partial<SortedPage>>());
  const states = computed(() => {
    const all = new Map((data.value ?? []).map((p) => [p.page, p]));
    for (const [page, state] of said.value)
      all.set(page, { page, used: false, check: false, sense: null, tags: [], ...all.get(page), ...state });
    return all;
  });

  let last: Promise<unknown> = Promise.resolve();
  /** How many of what was said of a page the server has not answered yet. */
  const waiting = new Map<number, number>();
  async function say(page: number, body: Omit<SortPage, 'page'>): Promise<void> {
    const now = states.value.get(page);
    const { tag, ...rest } = body;
    const tags = now?.tags ?? [];
    const after = {
      ...rest,
      ...(tag && { tags: tags.includes(tag) ? tags.filter((t) => t !== tag) : [...tags, tag] }),
    };
    said.value = new Map(said.value).set(page, { ...said.value.get(page), ...after });
    const { source, file } = at();
    waiting.set(page, (waiting.get(page) ?? 0) + 1);
    // One after another: each says what it is on top of what was said before.
    const sent = last.then(() => change(() => ask(routes.files.sortPage, { source, file, body: { page, ...body } })));
    last = sent.catch(() => undefined);
    await sent;
    waiting.set(page, waiting.get(page)! - 1);
    if (waiting.get(page)) return;
    await reload();
    // Where it was refused, what the server has is shown again.
    if (waiting.get(page)) return;
    const left = new Map(said.value);
    left.delete(page);
    said.value = left;
  }

  /** @returns whether the key says something of a page */
  function key(page: number, pressed: string): boolean {
    const now = states.value.get(page);
    const tag = letters.value[pressed.toLowerCase()];
    const sense = offeredSenses(at().senses).find((s) => s.key === Number(pressed));
    if (pressed === 'u') void say(page, { used: !now?.used });
    else if (pressed === 'g') void say(page, { check: !now?.check });
    else if (sense) void say(page, { sense: now?.sense === sense.id ? null : sense.id });
    else if (tag) void say(page, { tag });
    else return false;
    return true;
  }

  /** The pages that were passed, as runs. */
  const runs = computed(() => tabs.placeOf(at().file)?.looked ?? []);
  const isLooked = (page: number): boolean => {
    for (let i = 0; i < runs.value.length; i += 2)
      if (page >= runs.value[i]! && page <= runs.value[i + 1]!) return true;
    return states.value.has(page);
  };
  const left = computed(() => {
    let n = 0;
    for (let page = 1; page <= at().pages; page += 1) if (!isLooked(page)) n += 1;
    return n;
  });
  function look(page: number): void {
    const { file } = at();
    tabs.keep({ file, page, looked: withPage(runs.value, page) });
  }

  function give(letter: string, tag: string): void {
    letters.value = { ...letters.value, [letter]: tag };
  }
  function forget(letter: string): void {
    const { [letter]: _, ...rest } = letters.value;
    letters.value = rest;
  }

  return { states, letters, give, forget, key, left, isLooked, look };
}

/** Runs of numbers, first and last of each in their order, with one more. */
export function withPage(runs: readonly number[], page: number): number[] {
  const out: number[] = [];
  let [from, to] = [page, page];
  for (let i = 0; i < runs.length; i += 2) {
    const [a, b] = [runs[i]!, runs[i + 1]!];
    if (b < from - 1) out.push(a, b);
    else if (a > to + 1) {
      out.push(from, to);
      [from, to] = [a, b];
    } else [from, to] = [Math.min(from, a), Math.max(to, b)];
  }
  return [...out, from, to];
}
