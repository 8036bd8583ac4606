/** The collections as a tree of placements, and as a flat list of paths. */
import { group } from 'd3-array';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import {
  routes,
  type Changed,
  type Chosen,
  type CollectionNode,
  type EditCollection,
  type PlaceCollection,
} from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { hasWords } from '../kit/words.ts';

export interface Branch {
  placement: string;
  collection: CollectionNode;
  parent: string | null;
  /** The branch it is a child of; null at the top. */
  above: Branch | null;
  /** True when the collection stands in other places too. */
  shared: boolean;
  /** True when it was put where it stands by hand. */
  byHand: boolean;
  children: Branch[];
}

/** A collection, or one to be made. */
export interface Offer {
  key: string;
  name: string;
  count?: number;
  id?: string;
  make?: string;
}

/** Whether the branch is of the collection, or stands below one that is. */
function isAbove(collection: string, branch: Branch | null): boolean {
  for (let at = branch; at; at = at.above) if (at.collection.id === collection) return true;
  return false;
}

/** Of one collection more ways to it are not told. */
const MOST_PATHS = 8;

export const usePlaces = defineStore('places', () => {
  const changes = useChanges();
  const { data: reply, reload: load } = useAsked({
    question: () => 'places',
    fetch: (_, signal) => ask(routes.places.places, { signal }),
    concerns: (touched) => concerns(touched, ['source', 'collection']),
  });

  const byId = computed(() => new Map((reply.value?.collections ?? []).map((c) => [c.id, c])));

  const tree = computed<Branch[]>(() => {
    const { placements = [], collections = [] } = reply.value ?? {};
    const order = new Map(collections.map((c, i) => [c.id, i]));
    const times = new Map<string, number>();
    for (const p of placements) times.set(p.collection, (times.get(p.collection) ?? 0) + 1);
    const below = group(
      placements.filter((p) => byId.value.has(p.collection)),
      (p) => p.parent ?? null,
    );
    const under = (parent: string | null, above: Branch | null): Branch[] =>
      [...(below.get(parent) ?? [])]
        .filter((p) => !isAbove(p.collection, above))
        .sort(
          // Of two without a rank the difference is no number, and their names decide.
          (a, b) => (a.rank ?? Infinity) - (b.rank ?? Infinity) || order.get(a.collection)! - order.get(b.collection)!,
        )
        .map((p) => {
          let children: Branch[] | undefined;
          const branch: Branch = {
            placement: p.id,
            collection: byId.value.get(p.collection)!,
            parent,
            above,
            shared: times.get(p.collection)! > 1,
            byHand: p.rank !== null,
            // Told when they are looked at: where all stand in two places, they double with each level.
            get children() {
              return (children ??= under(p.collection, branch));
            },
          };
          return branch;
        });
    return under(null, null);
  });

  const flat = computed(() => {
    const out: { id: string; name: string; path: string; count: number }[] = [];
    const paths = new Map<string, number>();
    const walk = (branches: Branch[], path: string): void => {
      for (const b of branches) {
        const known = paths.get(b.collection.id) ?? 0;
        if (known >= MOST_PATHS) continue;
        paths.set(b.collection.id, known + 1);
        const here = path ? `${path} › ${b.collection.name}` : b.collection.name;
        out.push({ id: b.collection.id, name: b.collection.name, path: here, count: b.collection.count });
        walk(b.children, here);
      }
    };
    walk(tree.value, '');
    return out;
  });

  const pathOf = (id: string): string => flat.value.find((c) => c.id === id)?.path ?? 'a collection';

  /** @param mine seen by oneself alone */
  const make = (name: string, parent?: string, mine = false): Promise<Changed | undefined> =>
    changes.change(() => ask(routes.places.make, { body: { name, ...(parent && { parent }), ...(mine && { mine }) } }));
  /** Those one filed in of late, the last first. */
  const lately = useLocalStorage<string[]>('collections filed in lately', []);
  const MOST_LATELY = 8;
  /**
   * The collections a name that is typed may mean, those filed in of late first; and one to be made of it where none
   * bears it.
   */
  function offers(typed: string): Offer[] {
    const name = typed.trim();
    const known = flat.value.some((c) => c.name.toLowerCase() === name.toLowerCase());
    const place = (id: string): number => (lately.value.includes(id) ? lately.value.indexOf(id) : Infinity);
    return [
      ...flat.value
        .filter((c) => hasWords(c.path, name))
        .map((c) => ({ key: c.path, name: c.path, count: c.count, id: c.id }))
        .sort((a, b) => (place(a.id) === place(b.id) ? 0 : place(a.id) - place(b.id))),
      ...(name && !known ? [{ key: 'new', name: `New collection “${name}”`, make: name }] : []),
    ];
  }
  /** The collection that is offered, made where it is not there yet. */
  const take = async ({ id, make: name }: Offer): Promise<string | undefined> =>
    id ?? (name ? (await make(name))?.id : undefined);
  const edit = (collection: string, body: EditCollection): Promise<Changed | undefined> =>
    changes.change(() => ask(routes.places.edit, { collection, body }));
  const place = (body: PlaceCollection): Promise<unknown> => changes.change(() => ask(routes.places.place, { body }));
  const orderByName = (parent: string | null): Promise<unknown> =>
    changes.change(() => ask(routes.places.byName, { body: { parent } }));
  const unplace = (placement: string): Promise<unknown> =>
    changes.change(() => ask(routes.places.unplace, { placement }));
  const copy = (collection: string): Promise<unknown> => changes.change(() => ask(routes.places.copy, { collection }));
  const merge = (into: string, others: string[]): Promise<unknown> =>
    changes.change(() => ask(routes.places.merge, { collection: into, body: { others } }));
  const toBin = (collection: string): Promise<unknown> =>
    changes.change(() => ask(routes.places.toBin, { collection }));
  /** @param from the collection they are moved out of */
  function file(
    chosen: Chosen,
    collections: string[],
    { present = true, from }: { present?: boolean; from?: string | undefined } = {},
  ): Promise<unknown> {
    if (present)
      lately.value = [...collections, ...lately.value.filter((c) => !collections.includes(c))].slice(0, MOST_LATELY);
    return changes.change(() =>
      ask(routes.places.file, { body: { ...chosen, collections, present, ...(from && { from }) } }),
    );
  }

  return {
    reply,
    byId,
    tree,
    flat,
    load,
    pathOf,
    make,
    offers,
    take,
    edit,
    place,
    orderByName,
    unplace,
    copy,
    merge,
    toBin,
    file,
  };
});
