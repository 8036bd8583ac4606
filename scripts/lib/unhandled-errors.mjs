/** A reporter for Vitest: what failed outside of any test, which its JSON does not say though it fails the run. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './folders.mjs';

export const UNHANDLED_ERRORS = 'unhandled-errors.json';

export default class UnhandledErrors {
  /** @param errors those no test caught, and those of Vitest's own workers */
  onTestRunEnd(_modules, errors) {
    mkdirSync(join(ROOT, 'test-results'), { recursive: true });
    const said = errors.map((e) => [e.VITEST_TEST_PATH ?? e.type ?? 'unknown file', e.stack ?? e.message].join('\n'));
    writeFileSync(join(ROOT, 'test-results', UNHANDLED_ERRORS), JSON.stringify(said));
  }
}
