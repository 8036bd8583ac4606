/** Who calls, and as whom they do what they do. */
import type { Role } from '@pandecta/contract';

export interface Caller {
  user: { id: string; name: string; email: string; csrf: string };
  workspace: Workspace;
}

/** Who does a thing, and where. */
export interface Actor {
  workspaceId: string;
  userId: string;
}

/** Who reads or does something, where, and with which role: what may be seen follows from it (`subjects/registry.ts`). */
export interface Access extends Actor {
  role: Role;
}

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
}
