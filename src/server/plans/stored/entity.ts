import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { PlanItem } from '../../../core/index.ts';
import { Names, OfWorkspace } from '../../platform/db/keys.ts';

/** A named set of recurring work that clients are put on. */
@Entity({ name: 'service_plan' })
@OfWorkspace('service_plan')
@Check('service_plan_rolls_on_check', `rolls_on in ('itself', 'asks')`)
export class PlanRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  note!: string;
  @Column({ type: 'text' })
  rollsOn!: 'itself' | 'asks';
  @Column({ type: 'jsonb' })
  items!: readonly PlanItem[];
  @Column({ type: 'timestamptz', nullable: true })
  archivedAt!: Date | null;
}

/** An item that a client does without, or one of the client's assets does. */
export interface LeftOut {
  readonly item: string;
  readonly assetId: string | null;
  readonly why: string;
}

/** The time of a client on a plan. */
@Entity({ name: 'on_plan' })
@OfWorkspace('on_plan')
@Names('on_plan', 'PlanRecord', ['planId'])
@Names('on_plan', 'Client', ['clientId'])
@Index('on_plan_by_plan', ['workspaceId', 'planId', 'offOn'], { where: 'undone_at is null' })
@Index('on_plan_by_client', ['workspaceId', 'clientId'], { where: 'undone_at is null' })
export class OnPlan {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'uuid' })
  planId!: string;
  @Column({ type: 'uuid' })
  clientId!: string;
  @Column({ type: 'date' })
  fromOn!: string;
  /** The last day of its year, where the plan asks before it goes on. */
  @Column({ type: 'date', nullable: true })
  untilOn!: string | null;
  /** The first day without it. */
  @Column({ type: 'date', nullable: true })
  offOn!: string | null;
  @Column({ type: 'jsonb' })
  leftOut!: readonly LeftOut[];
  /** When putting the client on it was taken back: it never was. */
  @Column({ type: 'timestamptz', nullable: true })
  undoneAt!: Date | null;
}
