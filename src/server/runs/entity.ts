import { Check, Column, Entity, PrimaryColumn } from 'typeorm';
import type { Run as RunAnswer, RunDetails } from '../../contract/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** One making of tasks: when, why, how long, what came of it. */
@Entity({ name: 'run' })
@OfWorkspace('run')
@Names('run', 'Person', ['byId'])
@Check('run_state_check', `state in ('running', 'done', 'undone')`)
@Check('run_why_check', `why in ('daily', 'startup', 'byHand', 'fill')`)
export class Run {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  why!: RunAnswer['why'];
  @Column({ type: 'timestamptz' })
  startedAt!: Date;
  @Column({ type: 'integer' })
  milliseconds!: number;
  @Column({ type: 'integer' })
  made!: number;
  /** For how many schedules it made something. */
  @Column({ type: 'integer' })
  schedules!: number;
  @Column({ type: 'integer' })
  already!: number;
  @Column({ type: 'jsonb' })
  problems!: RunDetails['problems'];
  /** Schedules whose next has waited too long for one that is still open. */
  @Column({ type: 'jsonb' })
  waits!: RunDetails['waits'];
  @Column({ type: 'jsonb' })
  leftOut!: RunDetails['leftOut'];
  /** Tasks that lapsed because the next one came. */
  @Column({ type: 'integer' })
  lapsed!: number;
  /** Who asked for it; null for one of the server's own. */
  @Column({ type: 'uuid', nullable: true })
  byId!: string | null;
  /** The period of a fill; of a run of one schedule only the first, as of which day. */
  @Column({ type: 'date', nullable: true })
  fromDate!: string | null;
  @Column({ type: 'date', nullable: true })
  toDate!: string | null;
  /** The schedules of a fill that have something to make. */
  @Column({ type: 'jsonb' })
  scheduleIds!: string[];
  @Column({ type: 'text' })
  state!: RunAnswer['state'];
  /** How many tasks a fill is to make. */
  @Column({ type: 'integer' })
  total!: number;
}
