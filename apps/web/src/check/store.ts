/** The three queues of Check: what they hold, and what is done with it. */
import { defineStore } from 'pinia';
import { computed, ref, shallowReactive, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { routes, type DuplicateGroup, type RuleCount } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useCiting } from '../citing/store.ts';
import { useAsked } from '../data/asked.ts';
import { useHeld } from '../data/held.ts';
import { concerns } from '../data/live.ts';

export const QUEUES = ['duplicates', 'proofing', 'filing'] as const;
export type Queue = (typeof QUEUES)[number];

/** How much is left of what proofing found. */
export const thingsLeft = (rules: readonly RuleCount[] = []): number => rules.reduce((sum, r) => sum + r.count, 0);

export const useCheck = defineStore('check', () => {
  const route = useRoute();
  const router = useRouter();
  const citing = useCiting();
  const { attempt, change, tell, together } = useChanges();
  const seen = (): boolean => route.path.startsWith('/check');
  const queue = computed<Queue>(() => QUEUES.find((q) => q === route.params.queue) ?? 'duplicates');
  /** The rule whose findings are looked at, and the queue of loose ends. */
  const rule = ref('');
  /** Whether what was set aside of the rule is looked at. */
  const aside = ref(false);
  /** The collection whose sources are proofed; all of them where none is chosen. */
  const collection = ref('');
  const loose = ref('');
  /** Groups that were put off until one comes back to Check. */
  const later = shallowReactive(new Set<string>());

  const found = useAsked({
    question: () => (seen() ? 'duplicates' : null),
    fetch: (_, signal) => ask(routes.check.duplicates, { signal }),
    concerns: (touched) => concerns(touched, ['source', 'pair']),
    seen,
  });
  const proof = useAsked({
    question: () =>
      seen()
        ? {
            style: citing.style.id,
            // Until one is looked at, how much each finds is enough.
            rule: rule.value || 'none',
            ...(collection.value && { collection: collection.value }),
            ...(aside.value && { only: 'aside' as const }),
          }
        : null,
    fetch: (query, signal) => ask(routes.check.findings, { query, signal }),
    concerns: (touched) => concerns(touched, ['source']),
    seen,
  });
  const ends = useAsked({
    question: () => (seen() ? 'loose' : null),
    fetch: (_, signal) => ask(routes.check.loose, { signal }),
    concerns: (touched) => concerns(touched, ['source', 'tag', 'collection']),
    seen,
  });

  /** Sources that were chosen in the ledger to be laid beside each other; they lead the list until they are dealt with. */
  const these = computed<DuplicateGroup | null>(() => {
    const ids = typeof route.query.these === 'string' ? route.query.these.split(',').filter(Boolean) : [];
    if (!seen() || ids.length < 2) return null;
    const title = `${ids.length} chosen in Sources`;
    return {
      id: `these ${ids.join(' ')}`,
      members: ids,
      title,
      probability: 0,
      class: 'look closely',
      versions: false,
      reasons: [],
    };
  });
  const groups = computed(() => {
    const all = found.data.value?.groups ?? [];
    return [
      ...(these.value ? [these.value] : []),
      ...all.filter((g) => !later.has(g.id)),
      ...all.filter((g) => later.has(g.id)),
    ];
  });
  const { id: at, place, current: group, go, step } = useHeld(() => groups.value);
  watch(these, (now) => now && (at.value = now.id), { immediate: true });
  const after = computed(() => groups.value[place.value + 1]);
  const certain = computed(() => groups.value.filter((g) => g.class === 'certain'));
  const counts = computed(() => ({
    duplicates: found.data.value && groups.value.length,
    proofing: proof.data.value && thingsLeft(proof.data.value.rules),
    // A source may lie loose in several ways: how many stand in no collection is told, as in Sources.
    filing: ends.data.value && (ends.data.value.queues.find((q) => q.id === 'no-collection')?.count ?? 0),
  }));
  /** What is left in all three, once they were looked at. */
  const count = computed(() => {
    const { duplicates, proofing, filing } = counts.value;
    return duplicates === null || proofing === null || filing === null ? undefined : duplicates + proofing + filing;
  });

  /** Goes on to the one after this, and comes back to it where it was not done. */
  async function andOn(does: () => Promise<unknown>): Promise<void> {
    const was = at.value;
    go(after.value ? place.value + 1 : place.value - 1);
    const done = await does();
    if (!done) at.value = was;
    // What was chosen to be compared is dealt with.
    else if (was === these.value?.id) await router.replace({ path: route.path });
  }

  const merge = (into: string, sources: string[], take: Record<string, string>): Promise<void> =>
    andOn(() => change(() => ask(routes.check.merge, { body: { into, sources, take } })));
  async function mergeCertain(which: DuplicateGroup[]): Promise<void> {
    const body = { groups: which.map(({ members }) => ({ members })) };
    const done = await attempt(() => ask(routes.check.mergeMany, { body }));
    if (done) together(done.changeIds, done.says);
  }
  const relate = (sources: string[], as: 'other than' | 'version of'): Promise<void> =>
    andOn(() => change(() => ask(routes.check.relate, { body: { sources, as, present: true } })));
  const compareAgain = (): Promise<unknown> => change(() => ask(routes.check.compare, {}));
  function putOff(): void {
    const one = group.value;
    if (!one) return;
    const next = after.value?.id;
    later.add(one.id);
    at.value = next ?? groups.value[0]!.id;
    tell('Postponed: it is now at the end of the list');
  }
  function look(at: { rule: string; aside: boolean }): void {
    rule.value = at.rule;
    aside.value = at.aside;
  }

  return {
    queue,
    rule,
    aside,
    collection,
    look,
    loose,
    at,
    later,
    duplicates: found.data,
    troubled: computed(() => found.error.value || proof.error.value || ends.error.value),
    findings: proof.data,
    /** Whether the findings are those of the rule that is looked at. */
    isFound: computed(() => proof.isCurrent()),
    ends: ends.data,
    groups,
    group,
    after,
    certain,
    counts,
    count,
    step,
    merge,
    mergeCertain,
    relate,
    compareAgain,
    putOff,
  };
});
