import { Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** What somebody said about a task. */
@Entity({ name: 'task_comment' })
@OfWorkspace('task_comment')
@Names('task_comment', 'TaskRecord', ['taskId'], { onDelete: 'CASCADE' })
@Names('task_comment', 'Person', ['by'])
@Unique('task_comment_workspace_id_send_key_key', ['workspaceId', 'sendKey'])
@Index('task_comment_of_task', ['workspaceId', 'taskId', 'id'])
export class CommentRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Made by the sender for each, so that sending it again says it once. */
  @Column({ type: 'uuid' })
  sendKey!: string;
  @Column({ type: 'uuid' })
  taskId!: string;
  @Column({ type: 'text' })
  text!: string;
  @Column({ type: 'timestamptz' })
  at!: Date;
  @Column({ type: 'uuid' })
  by!: string;
}
