import { problemType } from '../../../contract/problems.ts';
import type { AnswerValue } from '../../../core/index.ts';
import { ProblemError } from '../../kit/api.ts';
import { mayPass, placeOf } from './link-api.ts';

/** What stands in a field and is not with the server: as it was typed, and as it is sent once it can be. */
export interface Writing {
  readonly text: string;
  readonly value: AnswerValue | null;
  readonly remark: string;
  /** What stood there when it was begun, where nothing that another wrote may be written over; else empty. */
  readonly was: string;
}

export interface Kept extends Writing {
  /**
   * Typed on; typed, and such that it can't be read yet; on its way; waiting for a connection; refused, until somebody writes
   * it otherwise; or refused because another wrote there meanwhile.
   */
  readonly state: 'typed' | 'unread' | 'sending' | 'waiting' | 'refused' | 'meanwhile';
  /** Why it is not there, where it is not. */
  readonly said: string | null;
}

const CONFLICT = problemType('changed-meanwhile');

/** What goes as soon as there is a connection. */
const GOES: Readonly<Record<Kept['state'], boolean>> = {
  ...{ typed: true, sending: true, waiting: true },
  ...{ unread: false, refused: false, meanwhile: false },
};

const RETRY_MS = [2_000, 5_000, 15_000, 30_000] as const;

/**
 * What is written on a page that was opened by a link, kept on this device under the link until the server has it: over a closed
 * page, a flat battery, a lost connection. Sent in the order in which it was written; what does not get through is tried again.
 */
export class KeptWriting {
  private readonly listeners = new Set<() => void>();
  private all: Readonly<Record<string, Kept>>;
  private readonly timers = new Map<string, number>();
  private line: Promise<void> = Promise.resolve();
  private tries = 0;

  constructor(
    private readonly name: string,
    /** @returns what stands there then, where that is told by words */
    private readonly send: (field: string, writing: Writing) => Promise<string>,
  ) {
    this.all = read(placeOf(name));
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly snapshot = (): Readonly<Record<string, Kept>> => this.all;

  /** Begins with what an earlier visit left unsent, and goes on whenever there is a connection. */
  begin(): () => void {
    const again = () => void this.sendAll();
    window.addEventListener('online', again);
    again();
    return () => {
      window.removeEventListener('online', again);
      for (const timer of this.timers.values()) clearTimeout(timer);
      this.timers.clear();
    };
  }

  /** @param after milliseconds until it is sent; null where it can't be read yet, and is only kept */
  put(field: string, writing: Writing, after: number | null): void {
    clearTimeout(this.timers.get(field));
    this.set(field, { ...writing, state: after === null ? 'unread' : 'typed', said: null });
    if (after !== null)
      this.timers.set(
        field,
        window.setTimeout(() => void this.sendOne(field), after),
      );
  }

  /** Sends all that can be read, at once. @returns whether nothing is left here */
  async sendAll(): Promise<boolean> {
    for (const [field, { state }] of Object.entries(this.all)) if (GOES[state]) void this.sendOne(field);
    await this.line;
    return Object.keys(this.all).length === 0;
  }

  /** Lets go of what can't be sent, as one with a figure that can't be read. */
  forget(field: string): void {
    this.set(field, null);
  }

  private sendOne(field: string): Promise<void> {
    clearTimeout(this.timers.get(field));
    this.timers.delete(field);
    this.line = this.line.then(() => this.sendNow(field));
    return this.line;
  }

  private async sendNow(field: string): Promise<void> {
    const writing = this.all[field];
    if (writing === undefined || writing.state === 'sending' || !GOES[writing.state]) return;
    this.set(field, { ...writing, state: 'sending' });
    try {
      const was = await this.send(field, writing);
      this.tries = 0;
      // What was typed meanwhile is newer than what has gone, and stands on that.
      const newer = this.all[field];
      if (newer !== undefined) this.set(field, newer.state === 'sending' ? null : { ...newer, was });
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      const passes = mayPass(error);
      if (this.all[field]?.state === 'sending')
        this.set(field, { ...writing, state: passes ? 'waiting' : refusedAs(error), said: error.message });
      if (passes) this.retry(field);
    }
  }

  private retry(field: string): void {
    const after = RETRY_MS[Math.min(this.tries++, RETRY_MS.length - 1)];
    clearTimeout(this.timers.get(field));
    this.timers.set(
      field,
      window.setTimeout(() => void this.sendOne(field), after),
    );
  }

  private set(field: string, kept: Kept | null): void {
    const { [field]: _, ...others } = this.all;
    this.all = kept === null ? others : { ...this.all, [field]: kept };
    const place = placeOf(this.name);
    if (Object.keys(this.all).length === 0) localStorage.removeItem(place);
    else localStorage.setItem(place, JSON.stringify(this.all));
    for (const listener of this.listeners) listener();
  }
}

const refusedAs = ({ problem }: ProblemError) =>
  problem.type === CONFLICT ? ('meanwhile' as const) : ('refused' as const);

/** What an earlier visit left; of another form than ours nothing. */
function read(place: string): Readonly<Record<string, Kept>> {
  const found = localStorage.getItem(place);
  if (found === null) return {};
  try {
    const all = JSON.parse(found) as Record<string, Partial<Kept>>;
    return Object.fromEntries(
      Object.entries(all).flatMap(([field, { text, value, remark, was, state }]) =>
        typeof text === 'string' && value !== undefined
          ? [[field, { text, value, remark: remark ?? '', was: was ?? '', state: begun(state), said: null }]]
          : [],
      ),
    );
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return {};
  }
}

const begun = (state: Kept['state'] | undefined) => (state === 'unread' ? ('unread' as const) : ('typed' as const));
