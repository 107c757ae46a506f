import { Column, Entity, PrimaryColumn } from 'typeorm';
import { OfWorkspace } from '../platform/db/keys.ts';

/** What was let go because it is not kept any longer: how much, and before when it was due. */
@Entity({ name: 'letting_go' })
@OfWorkspace('letting_go')
export class LettingGoRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  /** Finished work that was due earlier is gone. */
  @PrimaryColumn({ type: 'date' })
  before!: string;
  /** For how many years it was kept. */
  @Column({ type: 'integer' })
  years!: number;
  @Column({ type: 'timestamptz' })
  begunAt!: Date;
  /** Null while some of it may still be there. */
  @Column({ type: 'timestamptz', nullable: true })
  endedAt!: Date | null;
  @Column({ type: 'integer' })
  tasks!: number;
  @Column({ type: 'integer' })
  files!: number;
  @Column({ type: 'integer' })
  calls!: number;
}
