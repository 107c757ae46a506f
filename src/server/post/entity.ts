import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import type { MailKind, MailState } from '../../contract/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** A mail that leaves, or has left. */
@Entity({ name: 'mail' })
@OfWorkspace('mail')
@Check(
  'mail_kind_check',
  "kind in ('invitation', 'password', 'address', 'notice', 'task', 'code', 'calls', 'summary', 'message')",
)
@Names('mail', 'Client', ['clientId'])
@Names('mail', 'TaskRecord', ['taskId'], { onDelete: 'SET NULL' })
@Names('mail', 'Person', ['authorId'])
@Check('mail_state_check', "state in ('waiting', 'sent', 'refused')")
@Unique('mail_reason', ['workspaceId', 'reason'])
@Index('mail_by_state', ['workspaceId', 'state', 'id'])
@Unique('mail_answer_key', ['answerKey'])
@Index('mail_of_task', ['workspaceId', 'taskId'], { where: 'task_id is not null' })
@Index('mail_of_client', ['workspaceId', 'clientId'], { where: 'client_id is not null' })
@Index('mail_by_id', ['id'])
@Index('mail_waiting', { synchronize: false })
/** By the address in small letters. */
@Index('mail_by_address', { synchronize: false })
export class Mail {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** What it is sent for: of one reason there is one mail, however often it is told. */
  @Column({ type: 'text' })
  reason!: string;
  @Column({ type: 'text' })
  kind!: MailKind;
  @Column({ type: 'text' })
  toName!: string;
  @Column({ type: 'text' })
  toEmail!: string;
  @Column({ type: 'text' })
  subject!: string;
  @Column({ type: 'text' })
  text!: string;
  @Column({ type: 'text' })
  html!: string;
  /** Holds a link that lets somebody in: not kept once it has left for a server outside. */
  @Column({ type: 'boolean' })
  isPrivate!: boolean;
  @Column({ type: 'text' })
  state!: MailState;
  @Column({ type: 'timestamptz' })
  createdAt!: Date;
  @Column({ type: 'integer' })
  tries!: number;
  /** Not tried again before this moment, by the clock of the database. */
  @Column({ type: 'timestamptz' })
  tryAt!: Date;
  /** What the mail server said when it last would not take it. */
  @Column({ type: 'text', nullable: true })
  trouble!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  sentAt!: Date | null;
  /** Stands in the address to answer at, and in that by which its mails are stopped: random, and of this mail alone. */
  @Column({ type: 'text' })
  answerKey!: string;
  /** The client to whose contact it went, and what it is about; null for mails to people here. */
  @Column({ type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  taskId!: string | null;
  /** Who had it sent; null where it went by itself. */
  @Column({ type: 'uuid', nullable: true })
  authorId!: string | null;
}

/** An address of a client's contact that takes no more mails, by its own wish. */
@Entity({ name: 'mail_stop' })
@OfWorkspace('mail_stop')
@Names('mail_stop', 'Client', ['clientId'])
@Unique('mail_stop_email', ['workspaceId', 'email'])
export class MailStop {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** In small letters. */
  @Column({ type: 'text' })
  email!: string;
  /** To whom the mail went by which they said so. */
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ type: 'timestamptz' })
  at!: Date;
}

/** A file that goes with a mail, as it goes. */
@Entity({ name: 'mail_part' })
@OfWorkspace('mail_part')
@Names('mail_part', 'Mail', ['mailId'], { onDelete: 'CASCADE' })
@Unique('mail_part_by_mail', ['workspaceId', 'mailId', 'position'])
export class MailPart {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  mailId!: string;
  @Column({ type: 'integer' })
  position!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  mediaType!: string;
  @Column({ type: 'bytea' })
  bytes!: Buffer;
}

/** What the stand-in has received, by Message-ID, as it came. */
@Entity({ name: 'received_mail' })
export class ReceivedMail {
  @PrimaryColumn({ type: 'text' })
  messageId!: string;
  @Column({ type: 'timestamptz' })
  receivedAt!: Date;
  /** How often it came: more than once only where we fell between handing it over and noting that. */
  @Column({ type: 'integer' })
  times!: number;
  @Column({ type: 'text' })
  raw!: string;
}
