import { problemType } from '../../../contract/problems.ts';
import { type Done, ProblemError } from '../../kit/api.ts';
import { newKey } from '../../kit/new-key.ts';

/** Something that was typed or pressed and that the server has not taken yet. */
export interface Unsent {
  /** The one field it stands in: what is typed there next takes its place. */
  readonly field: string;
  /** Of this one thing: sent twice, it is done once. */
  readonly key: string;
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

/** One as it is kept; null for what another version of this page wrote in another way. Told without a schema: every page has an outbox from the start. */
function readUnsent(kept: unknown): Unsent | null {
  if (typeof kept !== 'object' || kept === null) return null;
  const { type = null, said, key = newKey(), ...item } = kept as Readonly<Partial<Record<keyof Unsent, unknown>>>;
  const isOne =
    [key, item.field, item.kind, item.about, item.to].every((text) => typeof text === 'string') &&
    typeof item.at === 'number' &&
    STATES.includes(item.state) &&
    [said, type].every((text) => text === null || typeof text === 'string');
  return isOne ? ({ ...item, key, said, type } as Unsent) : null;
}

/** How something is sent: under which key, how long after it was done, and whether it was told before that it waits. */
export interface Sending extends Done {
  readonly hasWaited: boolean;
}

export interface Sender<T> {
  /** @throws ProblemError when it is refused or does not get through */
  readonly send: (value: T, sending: Sending) => Promise<unknown>;
  /** Told when it turns out to have arrived before: the answer had not come back. */
  readonly onArrived?: (value: T) => void;
  /** Told when nothing is left to be sent of a value, however that came. */
  readonly onGone?: (value: T) => void;
  /** What was typed further while the rest was on its way, on top of what has arrived now. */
  readonly onTopOf?: (value: T, sent: T) => T;
  /** Told when it is refused for good; true where it need not be kept, since nothing typed is lost by it. */
  readonly onRefused?: (value: T, problem: ProblemError, sending: Sending) => boolean;
}

/** A type of its own for each kind, so that what is put is what its sender takes. */
export interface Kind<T> {
  readonly name: string;
  readonly sender: Sender<T>;
}

/** As much of a browser's storage as is needed. */
export type Storage = Pick<globalThis.Storage, 'getItem' | 'setItem' | 'removeItem'>;

/** A second place for the same, slower and written through to the disk: what the first one forgets in a power cut is there. */
export interface Mirror {
  readonly keep: (place: string, text: string | null) => void;
  readonly kept: (place: string) => Promise<string | null>;
}

/** What stands in a place: how it was left, and when that was. What can't be read is kept beside it for a version that can. */
interface Kept {
  readonly rev: number;
  readonly items: readonly Unsent[];
  readonly others: readonly unknown[];
}

const NOTHING: Kept = { rev: 0, items: [], others: [] };

function readKept(text: string | null): Kept {
  if (text === null) return NOTHING;
  try {
    const kept: unknown = JSON.parse(text);
    const { rev = 0, items = kept } = (typeof kept === 'object' && kept !== null ? kept : {}) as Record<
      string,
      unknown
    >;
    if (!Array.isArray(items)) return NOTHING;
    const read = items.map((item: unknown) => ({ item, unsent: readUnsent(item) }));
    return {
      rev: typeof rev === 'number' ? rev : 0,
      items: read.flatMap(({ unsent }) => unsent ?? []),
      others: read.flatMap(({ item, unsent }) => (unsent === null && item !== null ? [item] : [])),
    };
  } catch (error) {
    // There is nothing of ours in it.
    if (error instanceof SyntaxError) return NOTHING;
    throw error;
  }
}

const FRESH = { state: 'waiting', said: null, type: null } as const;

/** What became of something that was to be sent at once. */
export type Outcome = 'sent' | 'waiting' | 'refused';

const PLACE = 'jolly-rota.unsent.';
const ARRIVED = problemType('arrived-before');
const FIRST_RETRY_MS = 2000;
const LAST_RETRY_MS = 15_000;

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
  private others: readonly unknown[] = [];
  private rev = 0;
  private person: string | null = null;
  private readonly kinds = new Map<string, Kind<unknown>>();
  private readonly listeners = new Set<() => void>();
  private readonly pauses = new Map<string, ReturnType<typeof setTimeout>>();
  /** Of what is being delivered, by its key. */
  private readonly outcomes = new Map<string, Outcome>();
  private sending: Promise<void> | null = null;
  private retryMs = FIRST_RETRY_MS;
  private retry: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly storage: Storage,
    private readonly mirror: Mirror | null = null,
  ) {}

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
    this.take(readKept(this.storage.getItem(PLACE + person)));
    void this.flush();
    void this.takeFromMirror(person);
  }

  /** What the mirror has of a later moment was lost here; what has been typed since stands over it. */
  private async takeFromMirror(person: string): Promise<void> {
    const found = this.rev;
    const kept = readKept((await this.mirror?.kept(PLACE + person)) ?? null);
    if (this.person !== person || kept.rev <= found) return;
    this.take({ ...kept, items: [...kept.items, ...this.items.values()] });
    this.keep();
    void this.flush();
  }

  private take({ rev, items, others }: Kept): void {
    this.rev = rev;
    this.others = others;
    this.items = new Map(items.map((item) => [item.field, item]));
    this.tell();
  }

  /** Takes up again what another page of this browser has changed. */
  look(): void {
    if (this.person === null) return;
    this.take(readKept(this.storage.getItem(PLACE + this.person)));
  }

  /**
   * Keeps a value of a field and sends it.
   * @param after milliseconds without another value after which it is sent; `null` for one that can't be sent as it is
   */
  put<T>(kind: Kind<T>, item: { field: string; value: T; about: string; to: string }, after: number | null = 0): void {
    this.hurry(item.field);
    const { name } = kind;
    const state = after === null ? 'draft' : 'waiting';
    this.set({ ...item, ...FRESH, key: newKey(), kind: name, at: Date.now(), state });
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

  /** Puts what somebody has done and sends it at once, after all that was typed before it; tells what became of it. */
  async deliver<T>(
    kind: Kind<T>,
    item: { field: string; value: T; about: string; to: string },
    key: string = newKey(),
  ): Promise<Outcome> {
    for (const field of [...this.pauses.keys()]) this.hurry(field);
    this.outcomes.set(key, 'waiting');
    this.set({ ...item, ...FRESH, key, kind: kind.name, at: Date.now() });
    try {
      await this.flush();
      return this.outcomes.get(key) ?? 'waiting';
    } finally {
      this.outcomes.delete(key);
    }
  }

  private hurry(field: string): void {
    clearTimeout(this.pauses.get(field));
    this.pauses.delete(field);
  }

  get(field: string): Unsent | null {
    return this.items.get(field) ?? null;
  }

  get all(): ReadonlyMap<string, Unsent> {
    return this.items;
  }

  /** Lets a value go: what the server has stands. */
  discard(field: string): void {
    this.hurry(field);
    const gone = this.items.get(field);
    if (!gone) return;
    const items = new Map(this.items);
    items.delete(field);
    this.items = items;
    this.keep();
    this.kinds.get(gone.kind)?.sender.onGone?.(gone.value);
  }

  /** Lets go all that this person has here, also what this version can't read. */
  discardAll(): void {
    this.others = [];
    for (const field of [...this.items.keys()]) this.discard(field);
    this.keep();
  }

  /** How many things of this person are here, also those that this version can't read. */
  get count(): number {
    return this.items.size + this.others.length;
  }

  /** Sends now what waits; resolves when all of it was tried once. */
  async flush(field?: string): Promise<void> {
    if (field !== undefined) this.hurry(field);
    // One after the other: two at once would send the same thing twice.
    // A fault in one of them is told by whoever sent that, and keeps none of the others.
    this.sending = (this.sending ?? Promise.resolve()).catch(() => undefined).then(() => this.sendAll());
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
    const sending: Sending = { key: item.key, agoMs: Date.now() - item.at, hasWaited: item.said !== null };
    try {
      await kind.sender.send(item.value, sending);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (this.person !== of) return 'held up';
      if (error.problem.type !== ARRIVED) return this.notSent(kind, item, error, sending);
      kind.sender.onArrived?.(item.value);
    }
    if (this.person !== of) return 'held up';
    this.came(item, 'sent');
    const now = this.items.get(item.field);
    // By the key: what another page of this browser has written since is another object, and the same thing.
    if (now && now.key !== item.key)
      this.set({ ...now, value: kind.sender.onTopOf?.(now.value, item.value) ?? now.value });
    else this.discard(item.field);
    return 'done';
  }

  private notSent(kind: Kind<unknown>, item: Unsent, error: ProblemError, sending: Sending): 'done' | 'held up' {
    const now = this.items.get(item.field);
    if (!now) return 'done';
    const { type, status, detail } = error.problem;
    if (mayGoThrough(status)) {
      this.tellWaiting(WAITS_FOR[status] ?? detail, type);
      return 'held up';
    }
    this.came(item, 'refused');
    if (now.key !== item.key) return 'done';
    if (kind.sender.onRefused?.(item.value, error, sending)) this.discard(item.field);
    else this.set({ ...now, state: 'refused', said: detail, type });
    return 'done';
  }

  private came({ key }: Unsent, outcome: Outcome): void {
    if (this.outcomes.has(key)) this.outcomes.set(key, outcome);
  }

  /** What waits behind it waits for the same. */
  private tellWaiting(said: string, type: string): void {
    this.items = new Map(
      [...this.items].map(([field, one]) => [field, one.state === 'waiting' ? { ...one, said, type } : one]),
    );
    this.keep();
  }

  private set(item: Unsent): void {
    this.items = new Map(this.items).set(item.field, item);
    this.keep();
  }

  private keep(): void {
    if (this.person === null) return;
    const place = PLACE + this.person;
    this.rev = Math.max(this.rev + 1, Date.now());
    const items = [...this.items.values(), ...this.others];
    const text = JSON.stringify({ rev: this.rev, items });
    // That nothing is left is worth knowing where another place may say otherwise.
    if (items.length === 0 && this.mirror === null) this.storage.removeItem(place);
    else this.storage.setItem(place, text);
    this.mirror?.keep(place, items.length === 0 ? null : text);
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
