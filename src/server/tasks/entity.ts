import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { CheckLine } from '../../contract/index.ts';
import type { TaskState } from '../../core/index.ts';

/** When a check line was ticked, and by whom. */
export interface Tick {
  readonly at: string;
  readonly by: string | null;
}

@Entity({ name: 'task' })
export class Task {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ name: 'template_id', type: 'uuid' })
  templateId!: string;
  @Column({ name: 'schedule_id', type: 'uuid', nullable: true })
  scheduleId!: string | null;
  /** The date the rule gave, before any move: with schedule, step and head it makes the task unique. */
  @Column({ name: 'nominal_date', type: 'date', nullable: true })
  nominalDate!: string | null;
  @Column({ name: 'step_key', type: 'text' })
  stepKey!: string;
  @Column({ type: 'text' })
  head!: string;
  @Column({ type: 'text' })
  title!: string;
  @Column({ type: 'text' })
  instructions!: string;
  @Column({ name: 'check_lines', type: 'jsonb' })
  checkLines!: CheckLine[];
  /** Ticks by key of their check line. */
  @Column({ type: 'jsonb' })
  ticks!: Record<string, Tick>;
  @Column({ type: 'text' })
  note!: string;
  @Column({ name: 'estimate_minutes', type: 'integer' })
  estimateMinutes!: number;
  @Column({ name: 'client_id', type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ name: 'asset_id', type: 'uuid', nullable: true })
  assetId!: string | null;
  @Column({ name: 'assignee_id', type: 'uuid', nullable: true })
  assigneeId!: string | null;
  @Column({ type: 'text' })
  state!: TaskState;
  /** The day it is worked. */
  @Column({ name: 'work_on', type: 'date' })
  workOn!: string;
  @Column({ name: 'appears_on', type: 'date' })
  appearsOn!: string;
  @Column({ name: 'starts_on', type: 'date' })
  startsOn!: string;
  @Column({ name: 'due_on', type: 'date' })
  dueOn!: string;
  @Column({ name: 'start_time', type: 'text', nullable: true })
  startTime!: string | null;
  @Column({ name: 'due_time', type: 'text', nullable: true })
  dueTime!: string | null;
  /** IANA zone in which its dates and times are meant; null for the workspace's. */
  @Column({ type: 'text', nullable: true })
  zone!: string | null;
  @Column({ name: 'started_at', type: 'timestamptz', nullable: true })
  startedAt!: Date | null;
  @Column({ name: 'done_at', type: 'timestamptz', nullable: true })
  doneAt!: Date | null;
  @Column({ name: 'done_by', type: 'uuid', nullable: true })
  doneBy!: string | null;
  @Column({ name: 'made_at', type: 'timestamptz' })
  madeAt!: Date;
}
