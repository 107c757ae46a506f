import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { TaskColumn, TaskFilter, TaskGrouping, TaskOrder } from '../../contract/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** What somebody wants to see of all tasks, kept under a name. */
@Entity({ name: 'task_view' })
@OfWorkspace('task_view')
@Names('task_view', 'Person', ['personId'])
@Check('task_view_order_check', `"order" in ('due', 'latest', 'title', 'longest', 'shortest', 'urgent', 'finished')`)
@Index('task_view_of_person', ['workspaceId', 'personId'])
@Index('task_view_shared', ['workspaceId'], { where: 'is_shared' })
export class KeptView {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  /** Whoever keeps it. */
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'jsonb' })
  filter!: TaskFilter;
  /** Null for one that is not grouped. */
  @Column({ type: 'text', nullable: true })
  by!: TaskGrouping | null;
  @Column({ type: 'text' })
  order!: TaskOrder;
  /** Null for the plain ones. */
  @Column({ type: 'text', array: true, nullable: true })
  columns!: TaskColumn[] | null;
  /** Whether everybody of the workspace has it. */
  @Column({ type: 'boolean' })
  isShared!: boolean;
  @Column({ type: 'timestamptz' })
  keptAt!: Date;
}
