import { Column, type DataSource, Entity, Index, PrimaryColumn } from 'typeorm';
import { Names, OfWorkspace } from './db/keys.ts';

/** That something a device had kept has arrived, by the device's own key: what comes with the same key again is not done again. */
@Entity({ name: 'arrival' })
@OfWorkspace('arrival')
@Names('arrival', 'Person', ['personId'])
@Index('arrival_by_time', ['at'])
export class Arrival {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  personId!: string;
  @PrimaryColumn({ type: 'uuid' })
  key!: string;
  @Column({ type: 'timestamptz' })
  at!: Date;
}

/** What somebody did on a device, as it is told of a request. */
export interface Sent {
  /** Null for what is known again by a key of its own, as a file is. */
  readonly key: string | null;
  /** When it was done, as the server's clock has it. */
  readonly at: Date;
}

/** A device that was away for longer sends what others will have settled since. */
const KEPT_DAYS = 120;

/** Lets go of the keys that nothing will come with again; gives how many. */
export async function sweepArrivals(source: DataSource, now: Date): Promise<number> {
  const before = new Date(now.getTime() - KEPT_DAYS * 24 * 60 * 60 * 1000);
  const [, gone] = (await source.query('delete from arrival where at < $1', [before])) as [unknown, number];
  return gone;
}
