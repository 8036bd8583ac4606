import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** What takes longest begins first, so that nobody waits for it alone at the end. */
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const isLong = (f: TestSpecification): boolean => f.moduleId.includes('/faults/');
    return [...sorted.filter(isLong), ...sorted.filter((f) => !isLong(f))];
  }
}

export default defineConfig({
  oxc: { decorator: { legacy: true } },
  test: {
    // The machines tests run on are shared, and stand still now and then.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    // Two cores are what a machine has at least. Files that run in one worker share its modules, those of the page apart, and
    // server tests one server (apps/server/src/testing/server.ts).
    maxWorkers: 2,
    sequence: { sequencer: LongestFirst },
    setupFiles: ['./vitest.setup.ts'],
    // A line written as a file ends would be on its way to nobody, which fails the run though no test did.
    disableConsoleIntercept: true,
    projects: [
      {
        extends: true,
        plugins: [vue()],
        // What the page's tests share sets up each file anew (apps/web/src/testing.ts).
        test: { name: 'page', include: ['apps/web/src/**/*.test.ts'] },
      },
      {
        extends: true,
        test: {
          name: 'unit',
          isolate: false,
          include: [
            'packages/*/src/**/*.test.ts',
            'apps/{cli,standins}/src/**/*.test.ts',
            'demo/**/*.test.ts',
            'scripts/**/*.test.mjs',
          ],
        },
      },
      {
        extends: true,
        test: { name: 'server', isolate: false, include: ['apps/server/src/**/*.test.ts'] },
      },
    ],
  },
});
