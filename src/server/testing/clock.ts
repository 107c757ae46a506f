import { instantOf } from '../../core/index.ts';
import type { Clock } from '../platform/clock.ts';

/** The moment of every test that does not say otherwise: a Tuesday morning. */
export const TEST_NOW = '2026-11-24T10:40';

export interface TestClock extends Clock {
  set(moment: string): void;
}

/** A clock that stands until it is set, in civil time of London. */
export function testClock(moment: string): TestClock {
  let at = 0;
  const set = (next: string) => {
    const [date = '', time = ''] = next.split('T');
    at = instantOf(date, time, 'Europe/London');
  };
  set(moment);
  return { now: () => at, stands: true, set };
}
