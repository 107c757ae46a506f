import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import type { Priority } from '../../../contract/index.ts';
import type { Answer, Offer, TaskState, Why } from '../../../core/index.ts';
import { Names, OfWorkspace } from '../../platform/db/keys.ts';
import type { Content } from './content.ts';

/** When a check line was ticked, and by whom: somebody here, or by name a client's contact who came by a link. */
export interface Tick {
  readonly at: string;
  readonly by: string | null;
  readonly contact?: string;
}

/** An answer, with when and by whom it was given. */
export interface GivenAnswer extends Answer, Tick {}

/** Finished work that was sent back instead of being signed. */
export interface SentBack {
  readonly at: string;
  readonly by: string | null;
  readonly reason: string;
}

@Entity({ name: 'task' })
@OfWorkspace('task')
@Names('task', 'Template', ['templateId'])
@Names('task', 'Schedule', ['scheduleId'])
@Names('task', 'Client', ['clientId'])
@Names('task', 'Asset', ['assetId'])
@Names('task', 'Person', ['assigneeId', 'doneBy', 'signedBy', 'heldBy', 'nudgedBy'])
@Names('task', 'WorkContent', ['contentId'], { name: 'task_content' })
@Check('task_check1', 'schedule_id is null or nominal_date is not null')
@Check('task_done_when', `(state in ('done', 'toCheck')) = (done_at is not null)`)
@Check('task_held_check', '(held_until is null) = (held_reason is null) and (held_until is null) = (held_at is null)')
@Check('task_estimate_minutes_check', 'estimate_minutes >= 1')
@Check('task_priority_check', `priority in ('low', 'normal', 'high', 'urgent')`)
@Check('task_state_check', `state in ('open', 'underWay', 'toCheck', 'done', 'skipped', 'lapsed')`)
@Unique('task_made_once', ['workspaceId', 'scheduleId', 'nominalDate', 'stepKey', 'head'])
@Index('task_answered', ['workspaceId', 'dueOn'], { where: `answers <> '{}'` })
@Index('task_by_asset', { synchronize: false })
@Index('task_by_client', { synchronize: false })
@Index('task_by_done', ['workspaceId', 'doneAt'], { where: 'done_at is not null' })
@Index('task_by_due', { synchronize: false })
@Index('task_by_person', ['workspaceId', 'assigneeId', 'dueOn'])
@Index('task_by_run', ['workspaceId', 'runId', 'workOn'], { where: 'run_id is not null' })
@Index('task_by_set', ['workspaceId', 'setId'], { where: 'schedule_id is null' })
@Index('task_by_template', ['workspaceId', 'templateId', 'workOn'])
@Index('task_for_client', ['workspaceId', 'dueOn'], {
  where: `offered_to->>'of' = 'client' and assignee_id is null and state in ('open', 'underWay')`,
})
@Index('task_held_up', ['workspaceId', 'heldUntil'], {
  where: `held_until is not null and state in ('open', 'underWay')`,
})
@Index('task_of_nobody', ['workspaceId', 'dueOn'], {
  where: `assignee_id is null and state in ('open', 'underWay')`,
})
@Index('task_of_nobody_by_run', ['workspaceId', 'runId'], {
  where: 'run_id is not null and assignee_id is null and offered_to is null',
})
@Index('task_done_by_person', ['workspaceId', 'assigneeId', 'doneAt'], { where: 'done_at is not null' })
@Index('task_unfinished_of', { synchronize: false })
@Index('task_unfinished_of_schedule', ['workspaceId', 'scheduleId'], {
  where: `schedule_id is not null and state in ('open', 'underWay', 'toCheck')`,
})
@Index('task_unfinished_of_template', ['workspaceId', 'templateId'], {
  where: `state in ('open', 'underWay', 'toCheck')`,
})
@Index('task_over_by_day', { synchronize: false })
@Index('task_by_priority', ['workspaceId', 'priority', 'dueOn'], { where: "priority <> 'normal'" })
@Index('task_to_visit', ['workspaceId', 'workOn'], {
  where: `client_id is not null and state in ('open', 'underWay')`,
})
@Index('task_to_check', ['workspaceId', 'dueOn'], { where: `state = 'toCheck'` })
@Index('task_under_way', ['workspaceId', 'startedAt'], { where: `state = 'underWay'` })
@Index('task_unfinished', ['workspaceId', 'dueOn'], { where: `state in ('open', 'underWay', 'toCheck')` })
export class TaskRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  /** Null for a task that was captured. */
  @Column({ type: 'uuid', nullable: true })
  templateId!: string | null;
  /** The template's version when the task was made from it. */
  @Column({ type: 'integer', nullable: true })
  templateVersion!: number | null;
  /** All tasks of one occurrence share it. */
  @Column({ type: 'uuid' })
  setId!: string;
  /** The set's date: the day of its main task as it was planned. */
  @Column({ type: 'date' })
  setOn!: string;
  /** Its place among the template's tasks; 0 is the main one. */
  @Column({ type: 'integer' })
  setIndex!: number;
  @Column({ type: 'uuid', nullable: true })
  scheduleId!: string | null;
  /** The date the rule gave, before any move: with schedule, step and head it makes the task unique. */
  @Column({ type: 'date', nullable: true })
  nominalDate!: string | null;
  @Column({ type: 'text' })
  stepKey!: string;
  @Column({ type: 'text' })
  head!: string;
  @Column({ type: 'text' })
  title!: string;
  /** What it says that is the same for many. */
  @Column({ type: 'uuid' })
  contentId!: string;
  @Column({ type: 'text' })
  priority!: Priority;
  @Column({ type: 'integer' })
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
  @Column({ type: 'boolean' })
  notePinned!: boolean;
  @Column({ type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  assetId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  assigneeId!: string | null;
  /** Of whom any one may take it; null where it is nobody's offer. */
  @Column({ type: 'jsonb', nullable: true })
  offeredTo!: Offer | null;
  /** Why its schedule gave it to whoever has it; null where no schedule did, or it was made before that was kept. */
  @Column({ type: 'jsonb', nullable: true })
  why!: Why | null;
  @Column({ type: 'text' })
  state!: TaskState;
  /** The day it is worked. */
  @Column({ type: 'date' })
  workOn!: string;
  @Column({ type: 'date' })
  appearsOn!: string;
  @Column({ type: 'date' })
  startsOn!: string;
  @Column({ type: 'date' })
  dueOn!: string;
  @Column({ type: 'text', nullable: true })
  startTime!: string | null;
  @Column({ type: 'text', nullable: true })
  dueTime!: string | null;
  /** IANA zone in which its dates and times are meant; null for the workspace's. */
  @Column({ type: 'text', nullable: true })
  zone!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  startedAt!: Date | null;
  /** When the work was finished, also while it waits to be checked. */
  @Column({ type: 'timestamptz', nullable: true })
  doneAt!: Date | null;
  /** Whether that was by when it was due, by the clock of its zone; null while it is not finished. Kept by the database. */
  @Column({ type: 'boolean', nullable: true, insert: false, update: false })
  onTime!: boolean | null;
  @Column({ type: 'uuid', nullable: true })
  doneBy!: string | null;
  /** A client's contact who finished it by a link: by name, as contacts come and go. */
  @Column({ type: 'text', nullable: true })
  doneByContact!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  signedAt!: Date | null;
  @Column({ type: 'uuid', nullable: true })
  signedBy!: string | null;
  @Column({ type: 'jsonb' })
  sentBack!: SentBack[];
  /** The day on which it can go on, where somebody said that it can't for now; what holds it up, and when and by whom that was said. */
  @Column({ type: 'date', nullable: true })
  heldUntil!: string | null;
  @Column({ type: 'text', nullable: true })
  heldReason!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  heldAt!: Date | null;
  @Column({ type: 'uuid', nullable: true })
  heldBy!: string | null;
  /** When whoever has it was reminded of it last, and by whom. */
  @Column({ type: 'timestamptz', nullable: true })
  nudgedAt!: Date | null;
  @Column({ type: 'uuid', nullable: true })
  nudgedBy!: string | null;
  /** Names of the fields that were changed by hand. */
  @Column({ type: 'jsonb' })
  edited!: string[];
  /** The run that made it; null where saving a schedule or a person did. */
  @Column({ type: 'uuid', nullable: true })
  runId!: string | null;
  @Column({ type: 'timestamptz' })
  madeAt!: Date;
}

/** What a task has of its own when nothing holds it up. */
export const NOT_HELD = { heldUntil: null, heldReason: null, heldAt: null, heldBy: null } as const;

/** A task with what it says. */
export type Task = TaskRecord & Content;
