/** Who may: one table of action and roles. Every route names an action, every page is told what it may do. */
import { ACTIONS, ROLES, type Action, type Role } from '@pandecta/contract';

export const ROLES_OF: Record<Action, readonly Role[]> = {
  read: ROLES,
  cite: ROLES,
  /** What is each member's own: stars, reading states, taking back what one did oneself. */
  own: ROLES,
  mark: ['contributor', 'steward'],
  edit: ['contributor', 'steward'],
  gather: ['contributor', 'steward'],
  arrange: ['contributor', 'steward'],
  /** What holds for the whole workspace and reaches outside it: settings, catalogues. */
  steer: ['steward'],
};

/** What those may do at most who see only part of a workspace. */
export const WITHIN_BOUNDS: readonly Action[] = ['read', 'cite', 'own'];

export const may = (role: Role, action: Action): boolean => ROLES_OF[action].includes(role);

/** All a role may do. */
export const actionsOf = (role: Role): Action[] => ACTIONS.filter((action) => may(role, action));
