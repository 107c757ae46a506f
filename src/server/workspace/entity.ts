import { Check, Column, Entity, PrimaryColumn } from 'typeorm';
import type { Category, Run as RunAnswer } from '../../contract/index.ts';
import type { Weekday } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

@Entity({ name: 'workspace' })
@Check('workspace_horizon_days_check', 'horizon_days between 1 and 366')
@Check('workspace_make_time_check', `make_time ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'`)
export class Workspace {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  tagline!: string;
  /** IANA zone; the workspace's dates are civil dates of it. */
  @Column({ type: 'text' })
  zone!: string;
  @Column({ type: 'jsonb' })
  workingWeekdays!: Weekday[];
  @Column({ type: 'jsonb' })
  categories!: Category[];
  /** Types of work that a template may be of. */
  @Column({ type: 'jsonb' })
  workTypes!: string[];
  @Column({ type: 'integer' })
  horizonDays!: number;
  /** Civil time of day of the daily making, HH:MM. */
  @Column({ type: 'text' })
  makeTime!: string;
  /** The last day whose making ran to its end. */
  @Column({ type: 'date', nullable: true })
  madeOn!: string | null;
  @Column({ type: 'boolean' })
  isDemo!: boolean;
}

@Entity({ name: 'holiday' })
@OfWorkspace('holiday')
export class Holiday {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'date' })
  date!: string;
  @Column({ type: 'text' })
  name!: string;
}

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
  @Column({ type: 'integer' })
  already!: number;
  @Column({ type: 'jsonb' })
  problems!: RunAnswer['problems'];
  /** Schedules whose next has waited too long for one that is still open. */
  @Column({ type: 'jsonb' })
  waits!: RunAnswer['waits'];
  @Column({ type: 'jsonb' })
  leftOut!: RunAnswer['leftOut'];
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
