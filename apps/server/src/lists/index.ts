/** The short lists of a workspace: what happens to an entry of any of them. */
import type { Capability } from '../capability.ts';
import { listChanges } from './change.ts';

export const lists = { changes: listChanges } satisfies Capability;
