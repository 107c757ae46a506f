import { type ChildProcess, fork } from 'node:child_process';
import { setPriority } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Refusal } from '../../platform/refusal.ts';
import type { PictureAnswer, PictureQuestion } from './picture-maker.ts';

/** Longer than this no picture takes that is worth waiting for. */
const LONGEST_MS = 30_000;
/** Pictures that may wait for their turn, of everybody together. */
const MOST_WAITING = 40;
/** Niceness of the process: pictures come after everything that somebody waits for. */
const NICENESS = 10;

export type Made = 'made' | 'no picture' | 'too large';

/** Has pictures decoded by a process of its own, one at a time; it is started by the first and ends with us. */
export class Pictures {
  private child: ChildProcess | null = null;
  private last: Promise<unknown> = Promise.resolve();
  private waiting = 0;
  private count = 0;

  /** @throws Refusal where too many wait already, or this one takes too long */
  async make(from: string, whole: string, small: string): Promise<Made> {
    if (this.waiting >= MOST_WAITING)
      throw new Refusal(
        'busy',
        'Too many pictures are being added just now. Nothing was kept of this one; send it again in a moment.',
        { headers: { 'Retry-After': '10' } },
      );
    this.waiting++;
    const made = this.last.then(() => this.ask({ id: ++this.count, from, whole, small }));
    // What goes wrong with one does not stop the next.
    this.last = made.catch(() => undefined);
    try {
      return await made;
    } finally {
      this.waiting--;
    }
  }

  private ask(question: PictureQuestion): Promise<Made> {
    const child = this.running();
    return new Promise((resolve, reject) => {
      const done = () => {
        clearTimeout(timer);
        child.off('message', onAnswer);
        child.off('exit', onExit);
      };
      const refuse = (detail: string) => {
        done();
        reject(new Refusal('invalid', detail, { errors: [{ path: 'file', message: detail }] }));
      };
      const onAnswer = (answer: PictureAnswer) => {
        if (answer.id !== question.id) return;
        done();
        if (answer.kind === 'failed') reject(Object.assign(new Error(answer.message), { code: answer.code }));
        else resolve(answer.kind);
      };
      const onExit = () =>
        refuse('This picture could not be read. Save it anew with another program, or choose another.');
      const timer = setTimeout(() => {
        child.kill('SIGKILL');
        refuse('This picture takes too long to read. Save it smaller, or choose another.');
      }, LONGEST_MS);
      child.on('message', onAnswer);
      child.once('exit', onExit);
      child.send(question);
    });
  }

  private running(): ChildProcess {
    if (this.child?.connected) return this.child;
    // Beside this file while it is run as it was written, beside the bundle once it is built.
    const isSource = import.meta.url.endsWith('.ts');
    const program = fileURLToPath(new URL(isSource ? './picture-maker.ts' : './picture-maker.js', import.meta.url));
    const child = fork(program, [], {
      execArgv: isSource ? ['--import', 'tsx'] : [],
      // It needs nothing of ours but the way to its libraries: no address of a database, no key.
      env: { PATH: process.env['PATH'], NODE_ENV: process.env['NODE_ENV'] },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    if (child.pid !== undefined) setPriority(child.pid, NICENESS);
    // It never keeps the server from ending.
    child.unref();
    child.channel?.unref();
    this.child = child;
    return child;
  }

  close(): void {
    this.child?.kill();
    this.child = null;
  }
}
