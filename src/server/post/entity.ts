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
@Check('mail_state_check', "state in ('waiting', 'sent', 'refused')")
@Unique('mail_reason', ['workspaceId', 'reason'])
@Index('mail_by_state', ['workspaceId', 'state', 'id'])
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
