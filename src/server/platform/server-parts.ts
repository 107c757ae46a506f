import type pg from 'pg';
import type { Logger } from 'pino';
import type { Clock } from './clock.ts';
import type { Addresses } from './http/addresses.ts';
import type { HeavyLane } from './http/heavy-lane.ts';
import type { Sources } from './http/route.ts';
import type { LiveStream } from './live.ts';

/** What the routes of a server are made of. */
export interface ServerParts extends Sources {
  readonly pool: pg.Pool;
  readonly sessionPool: pg.Pool;
  readonly clock: Clock;
  readonly live: LiveStream;
  readonly log: Logger;
  readonly sessionSecret: string;
  readonly addresses: Addresses;
  /** Opens the first page while there is no workspace; null where nobody may begin one. */
  readonly setupKey: string | null;
  /** Whether mail goes to the stand-in: no mail server outside is set. */
  readonly mailEndsHere: boolean;
  /** Whether programs inside our own network are told of what happens. */
  readonly tellsInside: boolean;
  /** The folder in which backups lie. */
  readonly backups: string;
  /** Where heavy work is done; null where it is done here. */
  readonly lane: HeavyLane | null;
}
