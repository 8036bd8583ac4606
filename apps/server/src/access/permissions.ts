/** Who may: one table of role and action, which every route names. */
import type { Role } from '@pandecta/contract';

export const ACTIONS = {
  read: ['reader', 'contributor', 'steward'],
  cite: ['reader', 'contributor', 'steward'],
  mark: ['contributor', 'steward'],
  edit: ['contributor', 'steward'],
  gather: ['contributor', 'steward'],
  arrange: ['contributor', 'steward'],
} as const satisfies Record<string, readonly Role[]>;

export type Action = keyof typeof ACTIONS;

export const may = (role: Role, action: Action): boolean => (ACTIONS[action] as readonly Role[]).includes(role);
