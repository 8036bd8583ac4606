/** Who calls, and as whom they do what they do. */
import type { Role } from '@pandecta/contract';

export interface Caller {
  user: { id: string; name: string; email: string; csrf: string };
  workspace: Workspace;
}

/** A member with bounds sees part of the workspace: this collection, those below it, and the sources filed in them. */
export interface Bounds {
  collection: string;
}

/** Who does a thing, and where. */
export interface Actor {
  workspaceId: string;
  userId: string;
  /** Missing where they see the whole workspace. */
  bounds?: Bounds;
}

/** Who reads or does something, where, and with which role: what may be seen follows from it (`subjects/registry.ts`). */
export interface Access extends Actor {
  role: Role;
}

/** Whoever reads something. Without a role they have the fewest rights. */
export type Viewer = Actor & Partial<Pick<Access, 'role'>>;

/** Who calls, and as whom they do what they do. */
export interface Acting extends Caller {
  actor: Access;
}

export interface Workspace {
  id: string;
  /** Leads every lexeme of the workspace. */
  number: number;
  name: string;
  role: Role;
  bounds?: Bounds;
}
