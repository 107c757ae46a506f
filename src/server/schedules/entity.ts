import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { AssignmentRule, Exception, Overlap, Pause, Recurrence, Revision, Timing } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

@Entity({ name: 'schedule' })
@OfWorkspace('schedule')
@Names('schedule', 'Template', ['templateId'])
@Names('schedule', 'Client', ['clientId'])
@Names('schedule', 'Asset', ['assetId'])
@Names('schedule', 'OnPlan', ['onPlanId'])
@Check('schedule_plan_check', '(on_plan_id is null) = (plan_item is null)')
@Index('schedule_of_plan', ['workspaceId', 'onPlanId'], { where: 'on_plan_id is not null' })
@Index('schedule_by_asset', ['workspaceId', 'assetId'], { where: 'asset_id is not null' })
@Index('schedule_by_client', ['workspaceId', 'clientId'], { where: 'client_id is not null' })
@Index('schedule_by_template', { synchronize: false })
export class Schedule {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'uuid' })
  templateId!: string;
  @Column({ type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  assetId!: string | null;
  /** The client's time on a service plan that it belongs to, and which item of the plan it is. */
  @Column({ type: 'uuid', nullable: true })
  onPlanId!: string | null;
  @Column({ type: 'text', nullable: true })
  planItem!: string | null;
  /** Who does it; the people it names are looked after by `held.ts` and `takeOutMember`. */
  @Column({ type: 'jsonb' })
  assignment!: AssignmentRule;
  /** Versioned by its `v` field; read by `storedRecurrence`. */
  @Column({ type: 'jsonb' })
  recurrence!: Recurrence & { readonly v: 1 };
  @Column({ type: 'jsonb' })
  timing!: Timing & { readonly v: 1 };
  /** What is done when the next comes while the last one is still open. */
  @Column({ type: 'jsonb' })
  overlap!: Overlap;
  @Column({ type: 'jsonb' })
  pauses!: Pause[];
  @Column({ type: 'jsonb' })
  exceptions!: Exception[];
  @Column({ type: 'jsonb' })
  revisions!: Revision[];
  /** Every occurrence worked before this day is settled: made, or from before the schedule was set up. */
  @Column({ type: 'date' })
  settledTo!: string;
  /** Why its tasks could not be made at the last run. */
  @Column({ type: 'text', nullable: true })
  problem!: string | null;
  @Column({ type: 'timestamptz' })
  createdAt!: Date;
  /** When it was taken out on purpose; its tasks keep it for their history. */
  @Column({ type: 'timestamptz', nullable: true })
  deletedAt!: Date | null;
}

/** Two turns of a schedule that one asks another to swap. */
@Entity({ name: 'turn_swap' })
@OfWorkspace('turn_swap')
@Names('turn_swap', 'Schedule', ['scheduleId'])
@Names('turn_swap', 'Person', ['askedBy', 'askedOf', 'decidedBy'])
@Check('turn_swap_state_check', `state in ('asked', 'agreed', 'done', 'refused', 'withdrawn')`)
@Index('turn_swap_by_asker', ['workspaceId', 'askedBy'])
@Index('turn_swap_by_asked', ['workspaceId', 'askedOf'])
// Those that wait.
@Index('turn_swap_waiting', { synchronize: false })
export class TurnSwap {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'uuid' })
  scheduleId!: string;
  /** A nominal date of the turn that is given away, the first of it, and of the one that is taken for it. */
  @Column({ type: 'date' })
  gives!: string;
  @Column({ type: 'date' })
  takes!: string;
  @Column({ type: 'uuid' })
  askedBy!: string;
  @Column({ type: 'uuid' })
  askedOf!: string;
  @Column({ type: 'text' })
  note!: string;
  @Column({ type: 'text' })
  state!: 'asked' | 'agreed' | 'done' | 'refused' | 'withdrawn';
  @Column({ type: 'timestamptz' })
  askedAt!: Date;
  @Column({ type: 'uuid', nullable: true })
  decidedBy!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  decidedAt!: Date | null;
}
