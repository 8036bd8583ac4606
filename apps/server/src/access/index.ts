/** Signing in and out, and who may do what. */
import type { Capability } from '../capability.ts';
import { forgetOldAttempts } from './attempts.ts';
import { accessRoutes } from './routes.ts';
import { forgetOldSessions } from './store.ts';

export const access: Capability = {
  routes: accessRoutes,
  regular: {
    'access.forget': {
      at: '17 * * * *',
      work: async ({ db }) => {
        await forgetOldAttempts(db);
        await forgetOldSessions(db);
      },
    },
  },
};
