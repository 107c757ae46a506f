import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Priority } from '../../contract/index.ts';
import type { Answer, TaskState } from '../../core/index.ts';
import type { Content } from './content.ts';

/** When a check line was ticked, and by whom. */
export interface Tick {
  readonly at: string;
  readonly by: string | null;
}

/** An answer, with when and by whom it was given. */
export interface GivenAnswer extends Answer {
  readonly at: string;
  readonly by: string | null;
}

/** Finished work that was sent back instead of being signed. */
export interface SentBack {
  readonly at: string;
  readonly by: string | null;
  readonly reason: string;
}

@Entity({ name: 'task' })
export class TaskRecord {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  /** Null for a task that was captured. */
  @Column({ name: 'template_id', type: 'uuid', nullable: true })
  templateId!: string | null;
  /** The template's version when the task was made from it. */
  @Column({ name: 'template_version', type: 'integer', nullable: true })
  templateVersion!: number | null;
  /** All tasks of one occurrence share it. */
  @Column({ name: 'set_id', type: 'uuid' })
  setId!: string;
  /** The set's date: the day of its main task as it was planned. */
  @Column({ name: 'set_on', type: 'date' })
  setOn!: string;
  /** Its place among the template's tasks; 0 is the main one. */
  @Column({ name: 'set_index', type: 'integer' })
  setIndex!: number;
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
  /** What it says that is the same for many. */
  @Column({ name: 'content_id', type: 'uuid' })
  contentId!: string;
  @Column({ type: 'text' })
  priority!: Priority;
  @Column({ name: 'estimate_minutes', type: 'integer' })
  estimateMinutes!: number;
  /** Answers by key of their demand. */
  @Column({ type: 'jsonb' })
  answers!: Record<string, GivenAnswer>;
  /** Ticks by key of their check line. */
  @Column({ type: 'jsonb' })
  ticks!: Record<string, Tick>;
  @Column({ type: 'text' })
  note!: string;
  /** The note stands on the later ones of its series too. */
  @Column({ name: 'note_pinned', type: 'boolean' })
  notePinned!: boolean;
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
  /** When the work was finished, also while it waits to be checked. */
  @Column({ name: 'done_at', type: 'timestamptz', nullable: true })
  doneAt!: Date | null;
  @Column({ name: 'done_by', type: 'uuid', nullable: true })
  doneBy!: string | null;
  @Column({ name: 'signed_at', type: 'timestamptz', nullable: true })
  signedAt!: Date | null;
  @Column({ name: 'signed_by', type: 'uuid', nullable: true })
  signedBy!: string | null;
  @Column({ name: 'sent_back', type: 'jsonb' })
  sentBack!: SentBack[];
  /** Names of the fields that were changed by hand. */
  @Column({ type: 'jsonb' })
  edited!: string[];
  /** The run that made it; null where saving a schedule or a person did. */
  @Column({ name: 'run_id', type: 'uuid', nullable: true })
  runId!: string | null;
  @Column({ name: 'made_at', type: 'timestamptz' })
  madeAt!: Date;
}

/** A task with what it says. */
export type Task = TaskRecord & Content;
