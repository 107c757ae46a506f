import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { FieldValues, Prefers } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

@Entity({ name: 'client' })
@OfWorkspace('client')
@Index('client_by_words', { synchronize: false })
@Index('client_with_words', { synchronize: false })
@Index('client_in_use_by_words', { synchronize: false })
@Names('client', 'Person', ['usualPersonId'])
export class Client {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  address!: string;
  /** Whoever mostly works for them. */
  @Column({ type: 'uuid', nullable: true })
  usualPersonId!: string | null;
  @Column({ type: 'text' })
  notes!: string;
  /** What the workspace keeps of its clients besides, by the key of the field. */
  @Column({ type: 'jsonb' })
  fields!: FieldValues;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'timestamptz', nullable: true })
  archivedAt!: Date | null;
  /** The name in plain words, kept by the database. */
  @Column({ type: 'text', insert: false, update: false, select: false })
  readonly words?: string;
}

/** Somebody at a client's: how they are reached. */
@Entity({ name: 'contact' })
@OfWorkspace('contact')
@Check('contact_prefers_check', "prefers in ('mail', 'telephone', 'post')")
@Index('contact_by_client', ['workspaceId', 'clientId', 'position'])
@Index('contact_found_by', { synchronize: false })
@Index('contact_by_email', { synchronize: false })
@Index('contact_never_rung', ['workspaceId', 'id'], { where: `not is_rung and telephone <> ''` })
@Names('contact', 'Client', ['clientId'], { onDelete: 'CASCADE' })
export class Contact {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  clientId!: string;
  /** Their place among the contacts of the client, from 0. */
  @Column({ type: 'integer' })
  position!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  role!: string;
  @Column({ type: 'text' })
  email!: string;
  @Column({ type: 'text' })
  telephone!: string;
  /** How they would rather be reached; null where that is not said. */
  @Column({ type: 'text', nullable: true })
  prefers!: Prefers | null;
  /** Name, address and number in plain words, kept by the database. */
  @Column({ type: 'text', insert: false, update: false, select: false })
  readonly foundBy?: string;
  /** Whether anybody ever rang them, kept by the database. */
  @Column({ type: 'boolean', insert: false, update: false, select: false })
  readonly isRung?: boolean;
}

/** A thing that work is done on: a client's, or the workspace's own where there is no client. */
@Entity({ name: 'asset' })
@OfWorkspace('asset')
@Index('asset_by_words', { synchronize: false })
@Index('asset_with_words', { synchronize: false })
@Index('asset_found_by', { synchronize: false })
@Index('asset_by_client', ['workspaceId', 'clientId'])
@Index('asset_by_site', { synchronize: false })
@Index('asset_by_tag', { synchronize: false })
@Names('asset', 'Client', ['clientId'])
@Names('asset', 'Asset', ['siteId'])
@Check('asset_serves_check', 'serves_from <= serves_until')
export class Asset {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid', nullable: true })
  clientId!: string | null;
  @Column({ type: 'text' })
  name!: string;
  /** Where it lies or stands, in a few words. */
  @Column({ type: 'text' })
  place!: string;
  /** What stands on its tag; null where it has none. */
  @Column({ type: 'text', nullable: true })
  tag!: string | null;
  /** Whether it is a place that others stand at, and at which of them it stands itself. */
  @Column({ type: 'boolean' })
  isSite!: boolean;
  @Column({ type: 'uuid', nullable: true })
  siteId!: string | null;
  @Column({ type: 'jsonb' })
  fields!: FieldValues;
  /** Its first and its last day in service; null where there is no such end. */
  @Column({ type: 'date', nullable: true })
  servesFrom!: string | null;
  @Column({ type: 'date', nullable: true })
  servesUntil!: string | null;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'timestamptz', nullable: true })
  archivedAt!: Date | null;
  /** The name in plain words, kept by the database. */
  @Column({ type: 'text', insert: false, update: false, select: false })
  readonly words?: string;
  /** Name, place and tag in plain words, kept by the database. */
  @Column({ type: 'text', insert: false, update: false, select: false })
  readonly foundBy?: string;
}
