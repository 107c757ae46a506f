import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import type { Half, LeaveCover, Swap } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** Asks somebody to sign in for the first time; its link works once, and not for ever. */
@Entity({ name: 'invitation' })
@OfWorkspace('invitation')
@Names('invitation', 'Person', ['personId'], { onDelete: 'CASCADE' })
@Unique('invitation_digest', ['digest'])
@Index('invitation_of_person', { synchronize: false })
export class Invitation {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  personId!: string;
  /** Of what stands in the link, which itself is kept nowhere but in the mail. */
  @Column({ type: 'text' })
  digest!: string;
  @Column({ type: 'text' })
  email!: string;
  @Column({ type: 'timestamptz' })
  sentAt!: Date;
  @Column({ type: 'timestamptz' })
  endsAt!: Date;
  @Column({ type: 'timestamptz', nullable: true })
  usedAt!: Date | null;
  @Column({ type: 'timestamptz', nullable: true })
  withdrawnAt!: Date | null;
}

/** A link for the owner of an account: to a new password, or to another address. */
@Entity({ name: 'account_link' })
@ForeignKey('Account', ['accountId'], ['id'], { name: 'account_link_account_id_fkey', onDelete: 'CASCADE' })
@Check('account_link_kind_check', "kind in ('password', 'address')")
@Unique('account_link_digest', ['digest'])
@Index('account_link_by_account', ['accountId'])
export class AccountLink {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  accountId!: string;
  @Column({ type: 'text' })
  kind!: 'password' | 'address';
  @Column({ type: 'text' })
  digest!: string;
  /** The address it was sent to. */
  @Column({ type: 'text' })
  email!: string;
  @Column({ type: 'timestamptz' })
  endsAt!: Date;
  @Column({ type: 'timestamptz', nullable: true })
  usedAt!: Date | null;
}

/** A swap in the turns of a schedule that a leave has made. */
export interface HeldExchange extends Swap {
  readonly scheduleId: string;
}

/** Days on which somebody is away: asked for, given or refused. */
@Entity({ name: 'leave' })
@OfWorkspace('leave')
@Names('leave', 'Person', ['personId', 'decidedBy'])
@Check('leave_days_check', 'from_on <= to_on')
@Check('leave_half_check', `half in ('morning', 'afternoon')`)
@Check('leave_state_check', `state in ('asked', 'given', 'refused')`)
@Index('leave_by_person', ['workspaceId', 'personId', 'toOn'])
export class Leave {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'uuid' })
  personId!: string;
  /** The first and the last day of it. */
  @Column({ type: 'date' })
  fromOn!: string;
  @Column({ type: 'date' })
  toOn!: string;
  /** Null for whole days. */
  @Column({ type: 'text', nullable: true })
  half!: Half | null;
  /** Who takes over then; null where it is as the work itself says. */
  @Column({ type: 'jsonb', nullable: true })
  cover!: LeaveCover | null;
  /** Turns that were given to others by it for later ones of theirs; null where none were. */
  @Column({ type: 'jsonb', nullable: true })
  exchanges!: readonly HeldExchange[] | null;
  @Column({ type: 'text' })
  state!: 'asked' | 'given' | 'refused';
  @Column({ type: 'text' })
  note!: string;
  @Column({ type: 'timestamptz' })
  askedAt!: Date;
  @Column({ type: 'uuid', nullable: true })
  decidedBy!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  decidedAt!: Date | null;
}

/** A stretch for which somebody says to be at work, or a manager for them. */
@Entity({ name: 'clocking' })
@OfWorkspace('clocking')
@Names('clocking', 'Person', ['personId', 'onBy', 'offBy'])
@Check('clocking_times_check', 'on_at <= off_at')
@Index('clocking_by_person', ['workspaceId', 'personId', 'onAt'])
// Nobody is on twice.
@Index('clocking_open', { synchronize: false })
export class Clocking {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'timestamptz' })
  onAt!: Date;
  /** Null for whoever is on now. */
  @Column({ type: 'timestamptz', nullable: true })
  offAt!: Date | null;
  @Column({ type: 'uuid' })
  onBy!: string;
  @Column({ type: 'uuid', nullable: true })
  offBy!: string | null;
}
