import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { BellKind } from '../../contract/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** Something that somebody is told of in the application. */
@Entity({ name: 'bell_line' })
@OfWorkspace('bell_line')
@Names('bell_line', 'Person', ['personId', 'by'])
@Names('bell_line', 'TaskRecord', ['taskId'], { onDelete: 'CASCADE' })
@Check('bell_line_kind_check', `kind in ('nudge', 'name')`)
@Index('bell_line_of_person', ['workspaceId', 'personId', 'id'])
@Index('bell_line_of_task', ['workspaceId', 'taskId'])
@Index('bell_line_unread', ['workspaceId', 'personId'], { where: 'read_at is null' })
export class BellRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Whose bell it is. */
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'text' })
  kind!: BellKind;
  @Column({ type: 'uuid' })
  taskId!: string;
  /** Tasks besides that one. */
  @Column({ type: 'integer' })
  more!: number;
  @Column({ type: 'text' })
  text!: string;
  @Column({ type: 'timestamptz' })
  at!: Date;
  @Column({ type: 'uuid' })
  by!: string;
  @Column({ type: 'timestamptz', nullable: true })
  readAt!: Date | null;
}
