import { Refusal } from '../refusal.ts';

export interface TurnLimits {
  /** Pieces of work of one person that go on at once, and of everybody together. */
  readonly each: number;
  readonly all: number;
  /** How many more of one person may wait. */
  readonly waiting: number;
}

/** Ends a turn; more than once is as good as once. */
export type EndTurn = () => void;

interface Queue {
  going: number;
  /** When it was served last, counted in turns; never, for whoever has just come. */
  served: number;
  readonly waiting: (() => void)[];
}

/**
 * A fair share of one kind of work: each person has so many pieces of it going on at once, the next wait, and whoever
 * has too many waiting is refused. Where all places are taken, people take turns: the one with a thousand requests
 * waiting is served no sooner than the one with a single one.
 */
export class Turns {
  private readonly people = new Map<string, Queue>();
  private going = 0;
  private count = 0;

  constructor(private readonly limits: TurnLimits) {}

  /**
   * Waits for a turn.
   * @param signal ends the waiting of somebody who has gone
   * @throws Refusal where too much of this person is waiting already, or the signal ended it
   */
  async enter(who: string, signal?: AbortSignal): Promise<EndTurn> {
    const queue = this.people.get(who) ?? { going: 0, served: 0, waiting: [] };
    this.people.set(who, queue);
    if (queue.waiting.length >= this.limits.waiting) throw tooManyAtOnce();
    await new Promise<void>((resolve, reject) => {
      const begin = () => {
        signal?.removeEventListener('abort', leave);
        resolve();
      };
      const leave = () => {
        const at = queue.waiting.indexOf(begin);
        if (at !== -1) queue.waiting.splice(at, 1);
        this.forget(who, queue);
        reject(new Refusal('gone', 'Whoever asked did not wait for the answer.'));
      };
      if (signal?.aborted) return leave();
      signal?.addEventListener('abort', leave, { once: true });
      queue.waiting.push(begin);
      this.callNext();
    });
    let ended = false;
    return () => {
      if (ended) return;
      ended = true;
      queue.going--;
      this.going--;
      this.forget(who, queue);
      this.callNext();
    };
  }

  /** Calls whoever may begin, who was served longest ago first, for as long as there are places. */
  private callNext(): void {
    while (this.going < this.limits.all) {
      let next: Queue | null = null;
      for (const queue of this.people.values())
        if (queue.waiting.length > 0 && queue.going < this.limits.each && (next === null || queue.served < next.served))
          next = queue;
      if (next === null) return;
      next.going++;
      next.served = ++this.count;
      this.going++;
      next.waiting.shift()?.();
    }
  }

  private forget(who: string, queue: Queue): void {
    if (queue.going === 0 && queue.waiting.length === 0) this.people.delete(who);
  }
}

function tooManyAtOnce(): Refusal {
  return new Refusal(
    'too-many',
    'Too much is being asked for you at once. Nothing was saved by this; wait a moment and try again.',
    { headers: { 'Retry-After': '2' } },
  );
}
