import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { NoticePage } from '../../contract/index.ts';
import type { LetterBlock, LetterLanguage } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** A letter that announces visits, with tokens to be filled in for each. */
@Entity({ name: 'notice_letter' })
@OfWorkspace('notice_letter')
export class NoticeLetterRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  name!: string;
  /** For which type of work it is meant; null for any. */
  @Column({ type: 'text', nullable: true })
  workType!: string | null;
  @Column({ type: 'text' })
  language!: LetterLanguage;
  @Column({ type: 'text' })
  subject!: string;
  @Column({ type: 'jsonb' })
  body!: readonly LetterBlock[];
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'timestamptz', nullable: true })
  deletedAt!: Date | null;
}

/**
 * A notice as it was written for a visit, or the word that none is needed. What it says stays as it is, which the database
 * sees to; only that it went is added.
 */
@Entity({ name: 'notice' })
@OfWorkspace('notice')
@Names('notice', 'Client', ['clientId'])
@Names('notice', 'Person', ['writtenBy'])
@Check('notice_page_check', '(way is null) = (page is null) and (way is null) = (letter_name is null)')
@Index('notice_by_task', ['workspaceId', 'taskId', 'id'])
@Index('notice_by_client', ['workspaceId', 'clientId', 'id'])
@Index('notice_by_batch', ['workspaceId', 'batchId'])
@Index('notice_sent', ['workspaceId', 'sentOn', 'id'], { where: 'sent_on is not null' })
export class Notice {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Those that were written in one go. */
  @Column({ type: 'uuid' })
  batchId!: string;
  /** The visit; it may have been deleted since. */
  @Column({ type: 'uuid' })
  taskId!: string;
  @Column({ type: 'uuid' })
  clientId!: string;
  @Column({ type: 'text', nullable: true })
  letterName!: string | null;
  /** By which way it goes; null for the word that none is needed. */
  @Column({ type: 'text', nullable: true })
  way!: string | null;
  /** Why none is needed; empty of one that is written. */
  @Column({ type: 'text' })
  reason!: string;
  /** The day of the visit that it tells of. */
  @Column({ type: 'date' })
  visitOn!: string;
  @Column({ type: 'jsonb', nullable: true })
  page!: NoticePage | null;
  @Column({ type: 'date' })
  issuedOn!: string;
  @Column({ type: 'date', nullable: true })
  sentOn!: string | null;
  /** The mail that it left by. */
  @Column({ type: 'uuid', nullable: true })
  mailId!: string | null;
  /** The one that had gone before, whose place it takes. */
  @Column({ type: 'uuid', nullable: true })
  replacesId!: string | null;
  @Column({ type: 'timestamptz' })
  writtenAt!: Date;
  @Column({ type: 'uuid', nullable: true })
  writtenBy!: string | null;
}
