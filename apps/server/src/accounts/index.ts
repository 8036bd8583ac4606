/** Signing in and out, and who may do what. */
import type { Capability } from '../capability.ts';
import { forgetOldAttempts } from '../access/attempts.ts';
import { accountRoutes } from './routes.ts';
import { forgetOldSessions } from '../access/store.ts';

export const accounts = {
  routes: accountRoutes,
  regular: {
    'access.forget': {
      at: '17 * * * *',
      work: async ({ db }) => {
        await forgetOldAttempts(db);
        await forgetOldSessions(db);
      },
    },
  },
} satisfies Capability;
