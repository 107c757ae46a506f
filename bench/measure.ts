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
