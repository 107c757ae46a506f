import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { MESSAGE_KINDS, MESSAGE_SIDES, type MessageKind, type MessageSide } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

const oneOf = (names: readonly string[]) => names.map((name) => `'${name}'`).join(', ');

/** Something that somebody is told of: on the bell, by mail, or by both. */
@Entity({ name: 'message' })
@OfWorkspace('message')
@Names('message', 'Person', ['personId', 'by'])
@Names('message', 'TaskRecord', ['taskId'], { onDelete: 'SET NULL' })
@Check('message_kind_check', `kind in (${oneOf(MESSAGE_KINDS)})`)
@Check('message_side_check', `side in (${oneOf(MESSAGE_SIDES)})`)
@Check('message_mail_check', `mail in ('undecided', 'no', 'waits', 'sent')`)
@Check('message_mail_when', `(mail = 'waits') = (mail_at is not null)`)
@Check('message_push_check', `push in ('no', 'undecided', 'waits', 'sent', 'failed')`)
@Check('message_push_when', `(push = 'waits') = (push_at is not null)`)
@Index('message_to_push', ['workspaceId', 'push', 'pushAt'], { where: `push in ('undecided', 'waits')` })
@Index('message_of_person', ['workspaceId', 'personId', 'id'])
@Index('message_of_task', ['workspaceId', 'taskId'])
@Index('message_unread', ['workspaceId', 'personId'], { where: 'here and read_at is null' })
@Index('message_to_mail', ['workspaceId', 'mail', 'mailAt'], { where: `mail in ('undecided', 'waits')` })
export class MessageRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Who is told. */
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'text' })
  kind!: MessageKind;
  @Column({ type: 'text' })
  side!: MessageSide;
  /** The task it is about, or the first of several; null for what is about none. */
  @Column({ type: 'uuid', nullable: true })
  taskId!: string | null;
  /** Tasks besides that one. */
  @Column({ type: 'integer' })
  more!: number;
  /** What it is about, and what became of it. */
  @Column({ type: 'text' })
  title!: string;
  @Column({ type: 'text' })
  text!: string;
  /** Where it leads; null to the task. */
  @Column({ type: 'text', nullable: true })
  path!: string | null;
  @Column({ type: 'timestamptz' })
  at!: Date;
  /** Who did it; null for nobody here. */
  @Column({ type: 'uuid', nullable: true })
  by!: string | null;
  /** Whether it stands on the bell. */
  @Column({ type: 'boolean' })
  here!: boolean;
  @Column({ type: 'timestamptz', nullable: true })
  readAt!: Date | null;
  /** Whether it goes by mail: to be decided by what they wish, not at all, once it may leave, or gone. */
  @Column({ type: 'text' })
  mail!: 'undecided' | 'no' | 'waits' | 'sent';
  /** When it may leave, where it waits. */
  @Column({ type: 'timestamptz', nullable: true })
  mailAt!: Date | null;
  /** Whether it goes to the devices of its person, and how far that is. */
  @Column({ type: 'text' })
  push!: 'no' | 'undecided' | 'waits' | 'sent' | 'failed';
  /** When it may go there. */
  @Column({ type: 'timestamptz', nullable: true })
  pushAt!: Date | null;
  /** Until when somebody is sending it, by the clock of the database. */
  @Column({ type: 'timestamptz', nullable: true })
  pushHeld!: Date | null;
}
