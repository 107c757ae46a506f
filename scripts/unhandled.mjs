import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { root } from './root.mjs';

export const UNHANDLED_REPORT = join(root, '.cache', 'vitest-unhandled.json');

/**
 * A reporter of what went wrong beside every test, as a promise that nobody waited for: Vitest fails a run for it, and its
 * report of the tests does not say so.
 */
export default class Unhandled {
  onTestRunEnd(_modules, errors) {
    mkdirSync(dirname(UNHANDLED_REPORT), { recursive: true });
    writeFileSync(UNHANDLED_REPORT, JSON.stringify(errors.map(({ message, stack }) => ({ message, stack }))));
  }
}
