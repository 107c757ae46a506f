import { monitorEventLoopDelay } from 'node:perf_hooks';

export interface Measured<T> {
  /** The shortest of the runs: what the machine can do when nothing else disturbs it. */
  readonly milliseconds: number;
  readonly result: T;
}

/** Runs something several times after some to warm up, and keeps the shortest. */
export function best<T>(runs: number, work: () => T, { warmUps = 2 } = {}): Measured<T> {
  let result: T | undefined;
  for (let i = 0; i < warmUps; i++) result = work();
  let milliseconds = Number.POSITIVE_INFINITY;
  for (let i = 0; i < runs; i++) {
    const from = performance.now();
    result = work();
    milliseconds = Math.min(milliseconds, performance.now() - from);
  }
  return { milliseconds, result: result as T };
}

export function line(what: string, milliseconds: number, remark: string): void {
  console.log(`  ${what.padEnd(52)} ${milliseconds.toFixed(2).padStart(9)} ms  ${remark}`);
}

const delay = monitorEventLoopDelay({ resolution: 1 });

/** Runs something long once, and says how long it took and how long the event loop stood still in it at most. */
export async function longStep<T>(
  what: string,
  work: () => Promise<T>,
  remark: (value: T) => string = () => '',
): Promise<{ readonly value: T; readonly seconds: number }> {
  delay.reset();
  delay.enable();
  const began = performance.now();
  const value = await work();
  const seconds = (performance.now() - began) / 1000;
  delay.disable();
  const held = `loop held up ${(delay.max / 1e6).toFixed(0)} ms at most`;
  console.log(`  ${what.padEnd(46)} ${seconds.toFixed(2).padStart(6)} s   ${remark(value).padEnd(12)} ${held}`);
  return { value, seconds };
}
