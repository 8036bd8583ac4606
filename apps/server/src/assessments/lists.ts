import type { ListsOf } from '../lists/kinds.ts';
import { stateFacets } from './facets.ts';
import { labelled } from './store.ts';

export const stateLists: ListsOf<'label'> = {
  label: {
    async follows(tx, workspaceId, label) {
      return { some: [{ of: stateFacets, sources: await labelled(tx, workspaceId, label) }] };
    },
  },
};
