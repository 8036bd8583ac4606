/** The question the Sources stage shows the answer of. It lives in the address, so it survives a reload and can be sent. */
import { defineStore } from 'pinia';
import { useSessionStorage } from '@vueuse/core';
import { computed, shallowRef, watch } from 'vue';
import { useRoute, useRouter, type LocationQuery } from 'vue-router';
import { nothingSought, parseQuery, soughtIn, TEXT_FIELDS } from '@pandecta/core/query';
import { LOOK_IN, type Ask, type LookIn, type Scope } from '@pandecta/contract';

/** The kind of a facet, and its value. */
export function facetParts(facet: string): [type: string, key: string] {
  const at = facet.indexOf('=');
  return [facet.slice(0, at), facet.slice(at + 1)];
}

/** How long a pause in typing is before counts and the whole order are asked for: longer than from key to key. */
export const AFTER_TYPING_MS = 300;

/** The address of the answer as a page to print or keep; its question stands as in Sources. */
const LIST = /^\/sources\/list/;

export type Facet = `${string}=${string}`;

const list = (value: LocationQuery[string] | undefined): string[] =>
  (Array.isArray(value) ? value : [value]).filter((v): v is string => Boolean(v));
const single = (value: LocationQuery[string] | undefined): string | undefined => list(value)[0];

export const useAsk = defineStore('ask', () => {
  const route = useRoute();
  const router = useRouter();
  /** Where one was in Sources: kept while one is elsewhere, and over a reload, so that one comes back to it. */
  const address = useSessionStorage('sources address', '/sources');
  const isAsked = (): boolean => route.name === 'sources' || route.name === 'list';
  const query = shallowRef<LocationQuery>(isAsked() ? route.query : {});
  watch(
    () => route.fullPath,
    () => {
      if (!isAsked()) return;
      query.value = route.query;
      address.value = route.fullPath.replace(LIST, '/sources');
    },
    { immediate: true, flush: 'sync' },
  );
  const text = computed(() => single(query.value.q) ?? '');
  const include = computed(() => list(query.value.include));
  const exclude = computed(() => list(query.value.exclude));
  const collection = computed(() => single(query.value.collection));
  const scope = computed(() => (single(query.value.scope) ?? 'live') as Scope);
  const sort = computed(() => single(query.value.sort) ?? '');
  /** What the lines stand in groups of. */
  const group = computed(() => single(query.value.group));
  /** Where words are looked for that name no field. */
  const look = computed<LookIn>(() => LOOK_IN.find((l) => l === single(query.value.look)) ?? 'all');
  /** Only sources filed directly in the collection, without what stands below it. */
  const alone = computed(() => single(query.value.alone) === '1');
  /** The saved search one set out from. */
  const saved = computed(() => single(query.value.saved));
  /** The overview as a picture, in place of the list: which. */
  const picture = computed(() => single(query.value.picture));
  const years = computed<[number | undefined, number | undefined]>(() => {
    const n = (v: string | undefined): number | undefined => (v && /^-?\d+$/.test(v) ? Number(v) : undefined);
    return [n(single(query.value.from)), n(single(query.value.to))];
  });
  /** True when words are asked for, by which the answer is ranked and shown with where they stand. */
  const ranked = computed(
    () => Boolean(text.value) && !nothingSought(soughtIn(parseQuery(text.value).tree, TEXT_FIELDS)),
  );
  /** A source to go to, given by a link. */
  const at = computed(() => single(query.value.at));
  /** The record of the source the address names is to be filled in. */
  const editing = computed(() => Boolean(at.value) && single(query.value.edit) === '1');

  function set(changes: Record<string, string | string[] | undefined>, replace = false): void {
    const next: Record<string, string | string[]> = {};
    const all = { ...query.value, at: undefined, edit: undefined, ...changes } as Record<
      string,
      string | string[] | undefined
    >;
    for (const [k, v] of Object.entries(all)) if (v?.length) next[k] = v as string | string[];
    void router[replace ? 'replace' : 'push']({ path: '/sources', query: next });
  }

  /** The address names no source any more, once one has gone on from it; what is asked stays. */
  function leaveAt(): void {
    if (at.value && isAsked()) set({}, true);
  }

  /** The form is closed: the address leads to the source, and opens it no more. */
  function endEditing(): void {
    if (editing.value && isAsked()) set({ at: at.value }, true);
  }

  /** What goes to the server. */
  const params = computed<Ask>(() => ({
    q: text.value || undefined,
    // A word may go on as long as nothing follows it.
    typing: /\S$/.test(text.value) || undefined,
    include: include.value,
    exclude: exclude.value,
    collection: collection.value,
    below: collection.value && alone.value ? false : undefined,
    look: look.value === 'all' ? undefined : look.value,
    scope: scope.value === 'live' ? undefined : scope.value,
    yearFrom: years.value[0],
    yearTo: years.value[1],
    sort: sort.value || undefined,
    group: group.value,
  }));
  /** The same as a body, where lists of nothing are left out. */
  const body = computed(() =>
    Object.fromEntries(
      Object.entries(params.value).filter(([, v]) => v !== undefined && !(Array.isArray(v) && !v.length)),
    ),
  );

  /** True when something besides words and the bin narrows the answer: what stands in the ask line as chips. */
  const hasChips = computed(() =>
    Boolean(
      include.value.length ||
      exclude.value.length ||
      collection.value ||
      scope.value === 'loose' ||
      years.value.some((y) => y !== undefined),
    ),
  );
  const isNarrowed = computed(() => Boolean(text.value) || hasChips.value || scope.value !== 'live');

  /** Click: include; again: exclude; again: neither. */
  function turn(facet: string): void {
    if (include.value.includes(facet))
      set({ include: include.value.filter((f) => f !== facet), exclude: [...exclude.value, facet] });
    else if (exclude.value.includes(facet)) set({ exclude: exclude.value.filter((f) => f !== facet) });
    else set({ include: [...include.value, facet] });
  }

  /** Includes it, or leaves it out, whatever it was before. */
  const narrowTo = (facet: string, within: boolean): void =>
    set({
      include: [...include.value.filter((f) => f !== facet), ...(within ? [facet] : [])],
      exclude: [...exclude.value.filter((f) => f !== facet), ...(within ? [] : [facet])],
    });
  const drop = (facet: string): void =>
    set({ include: include.value.filter((f) => f !== facet), exclude: exclude.value.filter((f) => f !== facet) });
  const listAddress = computed(() => address.value.replace(/^\/sources/, '/sources/list'));
  const setText = (q: string): void => set({ q: q.trim() ? q : undefined }, true);
  const setCollection = (id: string | undefined): void =>
    set({ collection: id === collection.value ? undefined : id, scope: undefined, alone: undefined });
  const setScope = (s: Scope): void => set({ scope: s === 'live' ? undefined : s, collection: undefined });
  const setYears = (from: number | undefined, to: number | undefined): void =>
    set({ from: from === undefined ? undefined : String(from), to: to === undefined ? undefined : String(to) });
  const clear = (): void =>
    set({
      q: undefined,
      include: undefined,
      exclude: undefined,
      collection: undefined,
      scope: undefined,
      from: undefined,
      to: undefined,
      alone: undefined,
      look: undefined,
      saved: undefined,
    });
  const setLook = (l: LookIn): void => set({ look: l === 'all' ? undefined : l });
  const setAlone = (only: boolean): void => set({ alone: only ? '1' : undefined });
  const setPicture = (p: string | undefined): void => set({ picture: p });
  /** The whole question as words, in place of chips and words. */
  const setWhole = (q: string): void => {
    const { sort: by, group: groups, saved: from, look: where, picture: shown } = query.value;
    const rest = { sort: by, group: groups, saved: from, look: where, picture: shown } as Record<
      string,
      string | undefined
    >;
    const next = Object.fromEntries(Object.entries({ ...rest, q: q || undefined }).filter(([, v]) => v));
    void router.replace({ path: '/sources', query: next as Record<string, string> });
  };
  /** Asks just this. */
  const go = (asked: Ask): void => void router.push({ path: '/sources', query: addressOfAsk(asked) });
  /** Asks what a saved search asks, from there on. */
  const open = ({ id, ask: asked }: { id: string; ask: Ask }): void =>
    void router.push({ path: '/sources', query: addressOfAsk(asked, { saved: id }) });
  const setSort = (s: string): void => set({ sort: s || undefined });
  const setGroup = (by: string | undefined): void => set({ group: by });

  return {
    text,
    include,
    exclude,
    collection,
    scope,
    sort,
    years,
    at,
    editing,
    leaveAt,
    endEditing,
    address,
    listAddress,
    ranked,
    params,
    body,
    hasChips,
    isNarrowed,
    turn,
    narrowTo,
    drop,
    setText,
    setCollection,
    setScope,
    setYears,
    clear,
    setSort,
    group,
    setGroup,
    look,
    alone,
    saved,
    picture,
    setLook,
    setAlone,
    setPicture,
    setWhole,
    go,
    open,
  };
});

/** Whether two questions have the same answer, in whatever order it is shown. */
export function asksTheSame(a: Ask, b: Ask): boolean {
  const asked = ({ q, include, exclude, collection, below, look, scope, yearFrom, yearTo }: Ask): string => {
    const list = (facets: string[] = []): string[] => [...facets].sort();
    const where = [collection ?? '', below ?? true, look ?? 'all', scope ?? 'live', yearFrom ?? '', yearTo ?? ''];
    return JSON.stringify([q?.trim() ?? '', list(include), list(exclude), ...where]);
  };
  return asked(a) === asked(b);
}

/** A question as it stands in the address of Sources. */
export function addressOfAsk(ask: Ask, more: Record<string, string> = {}): Record<string, string | string[]> {
  const { q, include, exclude, collection, below, look, scope, yearFrom, yearTo, sort, group } = ask;
  const all = {
    q,
    include,
    exclude,
    collection,
    alone: below === false ? '1' : undefined,
    look,
    scope,
    from: yearFrom === undefined ? undefined : String(yearFrom),
    to: yearTo === undefined ? undefined : String(yearTo),
    sort,
    group,
    ...more,
  };
  return Object.fromEntries(Object.entries(all).filter(([, v]) => v?.length)) as Record<string, string | string[]>;
}
