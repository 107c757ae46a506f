import { ProblemError } from '../../kit/api.ts';

/** Something that was typed or pressed and that the server has not taken yet. */
export interface Unsent {
  /** The one field it stands in: what is typed there next takes its place. */
  readonly field: string;
  /** How it is sent. */
  readonly kind: string;
  readonly value: unknown;
  /** For people: "the note on Fire points, Long Quay". */
  readonly about: string;
  /** The page where it stands. */
  readonly to: string;
  /** When it was typed, in milliseconds since 1970. */
  readonly at: number;
  /** A draft can't be sent as it is; what waits is sent by itself; what was refused is somebody's to decide. */
  readonly state: 'draft' | 'waiting' | 'refused';
  /** Why it was refused, or what it waits for. */
  readonly said: string | null;
  /** The type of the problem it was refused with. */
  readonly type: string | null;
}

const STATES: readonly unknown[] = ['draft', 'waiting', 'refused'] satisfies readonly Unsent['state'][];

/** One as it is kept; null for what was written by another version of this page, or by somebody's hand. Told without a schema: every page has an outbox from the start. */
function readUnsent(kept: unknown): Unsent | null {
  if (typeof kept !== 'object' || kept === null) return null;
  const { type = null, said, ...item } = kept as Readonly<Partial<Record<keyof Unsent, unknown>>>;
  const isOne =
    [item.field, item.kind, item.about, item.to].every((text) => typeof text === 'string') &&
    typeof item.at === 'number' &&
    STATES.includes(item.state) &&
    [said, type].every((text) => text === null || typeof text === 'string');
  return isOne ? ({ ...item, said, type } as Unsent) : null;
}

export interface Sender<T> {
  /** @throws ProblemError when it is refused or does not get through */
  readonly send: (value: T) => Promise<unknown>;
  /** What was typed further while the rest was on its way, on top of what has arrived now. */
  readonly onTopOf?: (value: T, sent: T) => T;
  /** Told when it is refused for good; true where it need not be kept, since nothing typed is lost by it. */
  readonly onRefused?: (value: T, problem: ProblemError) => boolean;
}

/** A type of its own for each kind, so that what is put is what its sender takes. */
export interface Kind<T> {
  readonly name: string;
  readonly sender: Sender<T>;
}

/** As much of a browser's storage as is needed. */
export type Storage = Pick<globalThis.Storage, 'getItem' | 'setItem' | 'removeItem'>;

const PLACE = 'jolly-rota.unsent.';
const FIRST_RETRY_MS = 2000;
const LAST_RETRY_MS = 60_000;

/** Whether sending the same again may go well: no connection, signed out, too much at once, or a fault of the server. */
function mayGoThrough(status: number): boolean {
  return status === 0 || status === 401 || status === 408 || status === 429 || status >= 500;
}

const WAITS_FOR: Readonly<Record<number, string>> = {
  0: 'It is sent by itself when the connection is back.',
  401: 'It is sent by itself once you are signed in again.',
};

/**
 * What is on its way from one person's fields to the server. It is kept in this browser until the server has it: over a
 * closed sheet, a reload, an outage and a session that has ended, and sends itself again. Nobody else's is touched.
 */
export class Outbox {
  private items: ReadonlyMap<string, Unsent> = new Map();
  private person: string | null = null;
  private readonly kinds = new Map<string, Kind<unknown>>();
  private readonly listeners = new Set<() => void>();
  private readonly pauses = new Map<string, ReturnType<typeof setTimeout>>();
  private sending: Promise<void> | null = null;
  private retryMs = FIRST_RETRY_MS;
  private retry: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly storage: Storage) {}

  /** Says how a kind is sent; once, before anything of it is put. What was left here of it is sent now. */
  register<T>(kind: Kind<T>): Kind<T> {
    this.kinds.set(kind.name, kind as Kind<unknown>);
    if ([...this.items.values()].some((item) => item.kind === kind.name)) void this.flush();
    return kind;
  }

  /** Takes up what this person has left here, and sends it. */
  open(person: string): void {
    if (this.person === person) return;
    this.person = person;
    this.items = new Map(this.stored(person).map((item) => [item.field, item]));
    this.tell();
    void this.flush();
  }

  /** Takes up again what another page of this browser has changed. */
  look(): void {
    if (this.person === null) return;
    this.items = new Map(this.stored(this.person).map((item) => [item.field, item]));
    this.tell();
  }

  private stored(person: string): Unsent[] {
    const text = this.storage.getItem(PLACE + person);
    if (text === null) return [];
    try {
      const kept: unknown = JSON.parse(text);
      const read = Array.isArray(kept) ? kept.map(readUnsent) : [null];
      return read.some((one) => one === null) ? [] : read.filter((one) => one !== null);
    } catch (error) {
      // There is nothing of ours in it.
      if (error instanceof SyntaxError) return [];
      throw error;
    }
  }

  /**
   * Keeps a value of a field and sends it.
   * @param after milliseconds without another value after which it is sent; `null` for one that can't be sent as it is
   */
  put<T>(kind: Kind<T>, item: { field: string; value: T; about: string; to: string }, after: number | null = 0): void {
    clearTimeout(this.pauses.get(item.field));
    const { name } = kind;
    const state = after === null ? 'draft' : 'waiting';
    this.set({ ...item, kind: name, at: Date.now(), state, said: null, type: null });
    if (after === 0) void this.flush();
    else if (after !== null)
      this.pauses.set(
        item.field,
        setTimeout(() => {
          this.pauses.delete(item.field);
          void this.flush();
        }, after),
      );
  }

  get(field: string): Unsent | null {
    return this.items.get(field) ?? null;
  }

  get all(): ReadonlyMap<string, Unsent> {
    return this.items;
  }

  /** Lets a value go: what the server has stands. */
  discard(field: string): void {
    clearTimeout(this.pauses.get(field));
    this.pauses.delete(field);
    if (!this.items.has(field)) return;
    const items = new Map(this.items);
    items.delete(field);
    this.items = items;
    this.keep();
  }

  /** Lets go all that this person has here. */
  discardAll(): void {
    for (const field of [...this.items.keys()]) this.discard(field);
  }

  /** Sends now what waits; resolves when all of it was tried once. */
  async flush(field?: string): Promise<void> {
    if (field !== undefined) {
      clearTimeout(this.pauses.get(field));
      this.pauses.delete(field);
    }
    // One after the other: two at once would send the same thing twice.
    this.sending = (this.sending ?? Promise.resolve()).then(() => this.sendAll());
    await this.sending;
  }

  /**
   * The browser says that the connection is back. It may say so a moment too soon: what fails now is tried again soon, and
   * not only after the long pauses that an outage has come to.
   */
  async connected(): Promise<void> {
    this.retryMs = FIRST_RETRY_MS;
    await this.flush();
  }

  private async sendAll(): Promise<void> {
    clearTimeout(this.retry);
    let isHeldUp = false;
    for (const item of [...this.items.values()].sort((a, b) => a.at - b.at)) {
      if (item.state !== 'waiting' || this.pauses.has(item.field)) continue;
      isHeldUp = (await this.sendOne(item)) === 'held up';
      if (isHeldUp) break;
    }
    if (!isHeldUp) {
      this.retryMs = FIRST_RETRY_MS;
      return;
    }
    this.retry = setTimeout(() => void this.flush(), this.retryMs);
    this.retryMs = Math.min(this.retryMs * 2, LAST_RETRY_MS);
  }

  private async sendOne(item: Unsent): Promise<'done' | 'held up'> {
    const kind = this.kinds.get(item.kind);
    if (!kind) return 'done';
    const of = this.person;
    try {
      await kind.sender.send(item.value);
      if (this.person !== of) return 'held up';
      const now = this.items.get(item.field);
      if (now && now !== item) this.set({ ...now, value: kind.sender.onTopOf?.(now.value, item.value) ?? now.value });
      else this.discard(item.field);
      return 'done';
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (this.person !== of) return 'held up';
      const now = this.items.get(item.field);
      if (!now) return 'done';
      const { type, status, detail } = error.problem;
      if (mayGoThrough(status)) {
        this.set({ ...now, said: WAITS_FOR[status] ?? detail, type });
        return 'held up';
      }
      if (now !== item) return 'done';
      if (kind.sender.onRefused?.(item.value, error)) this.discard(item.field);
      else this.set({ ...now, state: 'refused', said: detail, type });
      return 'done';
    }
  }

  private set(item: Unsent): void {
    this.items = new Map(this.items).set(item.field, item);
    this.keep();
  }

  private keep(): void {
    if (this.person === null) return;
    const place = PLACE + this.person;
    if (this.items.size === 0) this.storage.removeItem(place);
    else this.storage.setItem(place, JSON.stringify([...this.items.values()]));
    this.tell();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private tell(): void {
    for (const listener of this.listeners) listener();
  }

  /** Whether a change in a browser's storage is of what is kept here. */
  isOwn(key: string | null): boolean {
    return this.person !== null && key === PLACE + this.person;
  }
}
