import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** A mail that came in answer to one of ours, or to the address for answers. */
@Entity({ name: 'answer' })
@OfWorkspace('answer')
@Names('answer', 'Mail', ['mailId'], { onDelete: 'SET NULL' })
@Names('answer', 'TaskRecord', ['taskId'], { onDelete: 'SET NULL' })
@Names('answer', 'Client', ['clientId'])
@Check('answer_kind_check', "kind in ('person', 'automatic')")
@Unique('answer_message_id', ['workspaceId', 'messageId'])
@Index('answer_of_task', ['workspaceId', 'taskId', 'id'], { where: 'task_id is not null' })
@Index('answer_of_client', ['workspaceId', 'clientId', 'id'], { where: 'client_id is not null' })
@Index('answer_of_mail', ['workspaceId', 'mailId'])
@Index('answer_to_place', ['workspaceId', 'id'], {
  where: "kind = 'person' and client_id is null and away_at is null",
})
@Index('answer_automatic', ['workspaceId', 'id'], { where: "kind = 'automatic'" })
export class AnswerRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** The mail that it answers, where that is known. */
  @Column({ type: 'uuid', nullable: true })
  mailId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  taskId!: string | null;
  /** Null until somebody has said whose it is. */
  @Column({ type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ type: 'text' })
  kind!: 'person' | 'automatic';
  @Column({ type: 'text' })
  fromName!: string;
  @Column({ type: 'text' })
  fromEmail!: string;
  @Column({ type: 'text' })
  subject!: string;
  /** As text; how it was set is not kept. */
  @Column({ type: 'text' })
  text!: string;
  @Column({ type: 'text' })
  messageId!: string;
  @Column({ type: 'timestamptz' })
  at!: Date;
  /** Since when it was put away as nothing to keep in sight. */
  @Column({ type: 'timestamptz', nullable: true })
  awayAt!: Date | null;
}

/** A file that came with an answer: nothing is made of its bytes until somebody takes it. */
@Entity({ name: 'answer_part' })
@OfWorkspace('answer_part')
@Names('answer_part', 'AnswerRecord', ['answerId'], { onDelete: 'CASCADE' })
@Unique('answer_part_by_answer', ['workspaceId', 'answerId', 'position'])
export class AnswerPart {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  answerId!: string;
  @Column({ type: 'integer' })
  position!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'integer' })
  size!: number;
  /** Null where it was too large to keep, or has lain there too long. */
  @Column({ type: 'bytea', nullable: true })
  bytes!: Buffer | null;
  /** The file of a task that it has become; that may be gone since. */
  @Column({ type: 'uuid', nullable: true })
  fileId!: string | null;
}
