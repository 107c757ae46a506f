import { type ChildProcess, fork } from 'node:child_process';
import { setPriority } from 'node:os';
import type { Logger } from 'pino';

/** Further processes of this server: the front answers what must be quick, they do what takes a while. */
export type PartName = 'heavy' | 'worker';

/** Niceness of a part (setpriority(2)): where all cores are busy, the front comes first. */
const NICENESS = 5;
const PAUSE_MS = 500;
/** A part that ends by itself is begun again, but not for ever: so many times in so long. */
const MOST_STARTS = 10;
const STARTS_MS = 60_000;
const STOP_MS = 20_000;

export interface Part {
  /** Where it listens, on loopback; null while it is being started, and for one that serves nothing. */
  readonly port: number | null;
  stop(): Promise<void>;
}

interface PartOptions {
  readonly name: PartName;
  /** The program of this process, begun again as that part. */
  readonly program: string;
  readonly env: Readonly<Record<string, string | undefined>>;
  readonly log: Logger;
  /** Told when it can't be kept going. */
  readonly onLost: (error: Error) => void;
}

/** Starts a part, waits until it is ready, and begins it again when it ends by itself. */
export async function startPart({ name, program, env, log, onLost }: PartOptions): Promise<Part> {
  let child: ChildProcess | null = null;
  let port: number | null = null;
  let isStopped = false;
  const starts: number[] = [];

  const begin = () =>
    new Promise<void>((resolve, reject) => {
      const begun = fork(program, [], { env: { ...process.env, ...env, JOLLY_PART: name }, stdio: 'inherit' });
      child = begun;
      if (begun.pid !== undefined) setPriority(begun.pid, NICENESS);
      begun.once('message', (message: { port: number | null }) => {
        port = message.port;
        resolve();
      });
      begun.once('error', reject);
      begun.once('exit', (code, signal) => {
        port = null;
        reject(new Error(`The part “${name}” ended (${signal ?? code}).`));
        if (!isStopped) again(new Error(`The part “${name}” ended by itself (${signal ?? code}).`));
      });
    });

  const again = (error: Error) => {
    const now = Date.now();
    starts.push(now);
    if (starts.filter((at) => now - at < STARTS_MS).length > MOST_STARTS) return onLost(error);
    log.error({ err: error }, 'a part of the server is begun again');
    setTimeout(() => {
      // What goes wrong with this start is told by its exit, and begun again from there.
      if (!isStopped) begin().catch((failure: unknown) => log.warn({ err: failure }, 'a part did not start'));
    }, PAUSE_MS);
  };

  await begin();
  return {
    get port() {
      return port;
    },
    async stop() {
      isStopped = true;
      const ending = child;
      if (!ending || ending.exitCode !== null || ending.signalCode !== null) return;
      const ended = new Promise((resolve) => ending.once('exit', resolve));
      ending.kill('SIGTERM');
      const timer = setTimeout(() => ending.kill('SIGKILL'), STOP_MS);
      await ended;
      clearTimeout(timer);
    },
  };
}
