import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  oxc: { decorator: { legacy: true } },
  test: {
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // Two cores are what a machine has at least; each file of server tests has a database of its own.
    maxWorkers: 2,
    setupFiles: ['./vitest.setup.ts'],
    // A line written as a file ends would be on its way to nobody, which fails the run though no test did.
    disableConsoleIntercept: true,
    projects: [
      {
        extends: true,
        plugins: [vue()],
        test: {
          name: 'unit',
          include: [
            'packages/*/src/**/*.test.ts',
            'apps/{web,cli,standins}/src/**/*.test.ts',
            'demo/**/*.test.ts',
            'scripts/**/*.test.mjs',
          ],
        },
      },
      {
        extends: true,
        test: { name: 'server', include: ['apps/server/src/**/*.test.ts'] },
      },
    ],
  },
});
