import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { Backup, BackupTimes } from '../../contract/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** A backup that was asked for, by somebody or by plan. None of this is in a backup. */
@Entity({ name: 'backup' })
@OfWorkspace('backup')
@Names('backup', 'Person', ['askedBy'])
@Check('backup_state_check', `state in ('asked', 'done', 'failed')`)
@Index('backup_by_time', ['workspaceId', 'askedAt'])
export class BackupRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  state!: Backup['state'];
  @Column({ type: 'timestamptz' })
  askedAt!: Date;
  @Column({ type: 'uuid', nullable: true })
  askedBy!: string | null;
  /** Of the file, in the folder of backups. */
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'integer' })
  rows!: number;
  @Column({ type: 'integer' })
  files!: number;
  @Column({ type: 'bigint', nullable: true })
  bytes!: number | null;
  @Column({ type: 'jsonb' })
  missing!: readonly string[];
  @Column({ type: 'text', nullable: true })
  trouble!: string | null;
}

/** How often a workspace is backed up by itself; no row where it is not. */
@Entity({ name: 'backup_plan' })
@OfWorkspace('backup_plan')
@Names('backup_plan', 'Person', ['saidBy'])
@Check('backup_plan_every_check', `every in ('day', 'week')`)
export class BackupPlan {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @Column({ type: 'text' })
  every!: Exclude<BackupTimes, 'never'>;
  @Column({ type: 'integer' })
  keep!: number;
  @Column({ type: 'uuid', nullable: true })
  saidBy!: string | null;
}
