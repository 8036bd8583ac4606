/** Where a collection goes by keys: among those beside it, under the one above it, out of the one it stands under. */
import type { Branch, usePlaces } from '../../places/store.ts';

type Places = ReturnType<typeof usePlaces>;

/** Those a branch stands among, in their order. */
function besideOf(tree: Branch[], placement: string): Branch[] {
  if (tree.some((b) => b.placement === placement)) return tree;
  for (const b of tree) {
    const found = besideOf(b.children, placement);
    if (found.length) return found;
  }
  return [];
}

/** What stands right behind it; null where it is the last. */
export function behind(tree: Branch[], placement: string): string | null {
  const beside = besideOf(tree, placement);
  return beside[beside.findIndex((b) => b.placement === placement) + 1]?.placement ?? null;
}

function parentOf(tree: Branch[], placement: string): Branch | undefined {
  for (const b of tree) {
    if (b.children.some((c) => c.placement === placement)) return b;
    const found = parentOf(b.children, placement);
    if (found) return found;
  }
  return undefined;
}

/** @returns false where it cannot go further */
export function stepped(places: Places, branch: Branch, key: string): boolean {
  const beside = besideOf(places.tree, branch.placement);
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
      const parent = parentOf(places.tree, branch.placement);
      if (!parent) return false;
      void places.place({ ...moved, parent: parent.parent, before: behind(places.tree, parent.placement) });
      return true;
    }
    default:
      return false;
  }
}
