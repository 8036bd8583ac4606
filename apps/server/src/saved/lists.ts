import type { ListKind, ListsOf } from '../lists/kinds.ts';
import { refuseLocked } from './folders.ts';

/** What lies in a locked folder, and the folder itself, is altered by stewards alone. */
const guarded: ListKind = {
  refuse: (db, { role, ...actor }, values) => refuseLocked({ db }, { actor, workspace: { role } }, values),
};

export const savedLists: ListsOf<'saved' | 'folder'> = { saved: guarded, folder: guarded };
