import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Category, Run as RunAnswer } from '../../contract/index.ts';
import type { Weekday } from '../../core/index.ts';

@Entity({ name: 'workspace' })
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
  @Column({ name: 'working_weekdays', type: 'jsonb' })
  workingWeekdays!: Weekday[];
  @Column({ type: 'jsonb' })
  categories!: Category[];
  /** Types of work that a template may be of. */
  @Column({ name: 'work_types', type: 'jsonb' })
  workTypes!: string[];
  @Column({ name: 'horizon_days', type: 'integer' })
  horizonDays!: number;
  /** Civil time of day of the daily making, HH:MM. */
  @Column({ name: 'make_time', type: 'text' })
  makeTime!: string;
  /** The last day whose making ran to its end. */
  @Column({ name: 'made_on', type: 'date', nullable: true })
  madeOn!: string | null;
  @Column({ name: 'is_demo', type: 'boolean' })
  isDemo!: boolean;
}

@Entity({ name: 'holiday' })
export class Holiday {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'date' })
  date!: string;
  @Column({ type: 'text' })
  name!: string;
}

/** One making of tasks: when, why, how long, what came of it. */
@Entity({ name: 'run' })
export class Run {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  why!: RunAnswer['why'];
  @Column({ name: 'started_at', type: 'timestamptz' })
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
  @Column({ name: 'left_out', type: 'jsonb' })
  leftOut!: RunAnswer['leftOut'];
  /** Tasks that lapsed because the next one came. */
  @Column({ type: 'integer' })
  lapsed!: number;
  /** Who asked for it; null for one of the server's own. */
  @Column({ name: 'by_id', type: 'uuid', nullable: true })
  byId!: string | null;
  /** The period of a fill; of a run of one schedule only the first, as of which day. */
  @Column({ name: 'from_date', type: 'date', nullable: true })
  fromDate!: string | null;
  @Column({ name: 'to_date', type: 'date', nullable: true })
  toDate!: string | null;
  /** The schedules of a fill that have something to make. */
  @Column({ name: 'schedule_ids', type: 'jsonb' })
  scheduleIds!: string[];
  @Column({ type: 'text' })
  state!: RunAnswer['state'];
  /** How many tasks a fill is to make. */
  @Column({ type: 'integer' })
  total!: number;
}
