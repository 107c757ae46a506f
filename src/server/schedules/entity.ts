import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Exception, Overlap, Pause, Recurrence, Revision, Timing } from '../../core/index.ts';

@Entity({ name: 'schedule' })
export class Schedule {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ name: 'template_id', type: 'uuid' })
  templateId!: string;
  @Column({ name: 'client_id', type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ name: 'asset_id', type: 'uuid', nullable: true })
  assetId!: string | null;
  @Column({ name: 'assignee_id', type: 'uuid', nullable: true })
  assigneeId!: string | null;
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
  @Column({ name: 'settled_to', type: 'date' })
  settledTo!: string;
  /** Why its tasks could not be made at the last run. */
  @Column({ type: 'text', nullable: true })
  problem!: string | null;
  @Column({ name: 'created_at', type: 'timestamptz' })
  createdAt!: Date;
  /** When it was taken out on purpose; its tasks keep it for their history. */
  @Column({ name: 'deleted_at', type: 'timestamptz', nullable: true })
  deletedAt!: Date | null;
}
