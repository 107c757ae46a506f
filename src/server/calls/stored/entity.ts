import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import type { CallStanding, Outcome, Pause, Quota, WhyListed } from '../../../core/index.ts';
import { Names, OfWorkspace } from '../../platform/db/keys.ts';

/** How many calls somebody is to make, to whom, and when. */
@Entity({ name: 'call_quota' })
@OfWorkspace('call_quota')
export class CallQuota {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'date' })
  startsOn!: string;
  /** Its last day; null where it goes on. */
  @Column({ type: 'date', nullable: true })
  endsOn!: string | null;
  @Column({ type: 'jsonb' })
  pauses!: readonly Pause[];
  /** What it says from which day on, the oldest first. */
  @Column({ type: 'jsonb' })
  terms!: Quota['terms'];
  /** The last day of which lists were made. */
  @Column({ type: 'date', nullable: true })
  madeOn!: string | null;
}

/** That the list of somebody for a day was made: once, whatever falls in between. */
@Entity({ name: 'call_list' })
@OfWorkspace('call_list')
@Names('call_list', 'CallQuota', ['quotaId'])
@Names('call_list', 'Person', ['personId'])
@Unique('call_list_once', ['workspaceId', 'quotaId', 'personId', 'listOn'])
@Index('call_list_by_person', ['workspaceId', 'personId', 'listOn'])
export class CallList {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  quotaId!: string;
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'date' })
  listOn!: string;
  /** How many were to be on it, those carried over apart from what there was nobody for. */
  @Column({ type: 'integer' })
  wanted!: number;
  @Column({ type: 'timestamptz' })
  madeAt!: Date;
}

/** To be made; made; gone over to the list of a later day; let go; taken off the list by hand. */
export const CALL_STATES = ['open', 'rung', 'carried', 'dropped', 'off'] as const;
export type CallState = (typeof CALL_STATES)[number];

/** One call of a list. */
@Entity({ name: 'call' })
@OfWorkspace('call')
@Names('call', 'CallList', ['listId'])
@Names('call', 'Client', ['clientId'])
@Names('call', 'Person', ['rungBy'])
@Check('call_state_check', `state in (${CALL_STATES.map((state) => `'${state}'`).join(', ')})`)
@Index('call_by_list', ['workspaceId', 'listId', 'place'])
@Index('call_open', ['workspaceId', 'listOn'], { where: "state = 'open'" })
@Index('call_by_contact', ['workspaceId', 'contactId', 'listOn'])
@Index('call_by_client', ['workspaceId', 'clientId'])
@Index('call_once_a_day', ['workspaceId', 'listOn', 'contactId'], { unique: true })
export class Call {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'uuid' })
  listId!: string;
  @Column({ type: 'date' })
  listOn!: string;
  @Column({ type: 'integer' })
  place!: number;
  /** Contacts are written anew with their client, by the same ids: none is named by a key. */
  @Column({ type: 'uuid' })
  contactId!: string;
  @Column({ type: 'uuid' })
  clientId!: string;
  @Column({ type: 'jsonb' })
  why!: WhyListed;
  @Column({ type: 'text' })
  state!: CallState;
  /** The number that was rung, or is to be. */
  @Column({ type: 'text' })
  number!: string;
  /** How it ended, as the workspace said of that then. */
  @Column({ type: 'jsonb', nullable: true })
  outcome!: Outcome | null;
  @Column({ type: 'text' })
  note!: string;
  @Column({ type: 'timestamptz', nullable: true })
  rungAt!: Date | null;
  @Column({ type: 'uuid', nullable: true })
  rungBy!: string | null;
  @Column({ type: 'jsonb', nullable: true })
  callBack!: CallStanding['callBack'];
  /** What was known of the contact before it. */
  @Column({ type: 'jsonb', nullable: true })
  standingBefore!: CallStanding | null;
}

/** What is known of the calls to a contact. */
@Entity({ name: 'call_standing' })
@OfWorkspace('call_standing')
@Index('call_standing_again', ['workspaceId', 'againOn'], { where: 'again_on is not null' })
@Index('call_standing_by_last', ['workspaceId', 'lastRungOn'])
@Index('call_standing_promised', ['workspaceId', 'callBackQuota', 'callBackOn'], { where: 'call_back_on is not null' })
export class CallStandingRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  contactId!: string;
  @Column({ type: 'date', nullable: true })
  lastRungOn!: string | null;
  @Column({ type: 'integer' })
  tries!: number;
  @Column({ type: 'date', nullable: true })
  againOn!: string | null;
  @Column({ type: 'date', nullable: true })
  aloneUntil!: string | null;
  @Column({ type: 'date', nullable: true })
  callBackOn!: string | null;
  @Column({ type: 'text', nullable: true })
  callBackAt!: string | null;
  @Column({ type: 'uuid', nullable: true })
  callBackBy!: string | null;
  /** On whose lists the promised call stands. */
  @Column({ type: 'uuid', nullable: true })
  callBackQuota!: string | null;
  @Column({ type: 'boolean' })
  isNeverCalled!: boolean;
  @Column({ type: 'text', nullable: true })
  wrongNumber!: string | null;
}
