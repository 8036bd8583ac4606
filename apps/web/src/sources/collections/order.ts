/** Where a collection goes by keys: among those beside it, under the one above it, out of the one it stands under. */
import type { Branch, usePlaces } from '../../places/store.ts';

type Places = ReturnType<typeof usePlaces>;

/** Those a branch stands among, in their order. */
const besideOf = (places: Places, { above }: Branch): Branch[] => above?.children ?? places.tree;

/** What stands right behind it; null where it is the last. */
export function behind(places: Places, branch: Branch): string | null {
  const beside = besideOf(places, branch);
  return beside[beside.findIndex((b) => b.placement === branch.placement) + 1]?.placement ?? null;
}

/** @returns false where it cannot go further */
export function stepped(places: Places, branch: Branch, key: string): boolean {
  const beside = besideOf(places, branch);
  const at = beside.findIndex((b) => b.placement === branch.placement);
  const moved = { collection: branch.collection.id, movedFrom: branch.placement };
  switch (key) {
    case 'ArrowUp':
      if (at < 1) return false;
      void places.place({ ...moved, parent: branch.parent, before: beside[at - 1]!.placement });
      return true;
    case 'ArrowDown':
      if (at === beside.length - 1) return false;
      void places.place({ ...moved, parent: branch.parent, before: beside[at + 2]?.placement ?? null });
      return true;
    case 'ArrowRight':
      if (at < 1) return false;
      void places.place({ ...moved, parent: beside[at - 1]!.collection.id });
      return true;
    case 'ArrowLeft': {
      const { above } = branch;
      if (!above) return false;
      void places.place({ ...moved, parent: above.parent, before: behind(places, above) });
      return true;
    }
    default:
      return false;
  }
}
