import { Column, Entity, Index, PrimaryColumn } from 'typeorm';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

@Entity({ name: 'client' })
@OfWorkspace('client')
@Index('client_by_words', { synchronize: false })
@Index('client_with_words', { synchronize: false })
export class Client {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  name!: string;
  /** The name in plain words, kept by the database. */
  @Column({ type: 'text', insert: false, update: false, select: false })
  readonly words?: string;
}

/** A thing that work is done on: a client's, or the workspace's own where there is no client. */
@Entity({ name: 'asset' })
@OfWorkspace('asset')
@Index('asset_by_words', { synchronize: false })
@Index('asset_with_words', { synchronize: false })
@Index('asset_found_by', { synchronize: false })
@Index('asset_by_client', ['workspaceId', 'clientId'])
@Names('asset', 'Client', ['clientId'])
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
  /** The name in plain words, kept by the database. */
  @Column({ type: 'text', insert: false, update: false, select: false })
  readonly words?: string;
  /** Name, place and tag in plain words, kept by the database. */
  @Column({ type: 'text', insert: false, update: false, select: false })
  readonly foundBy?: string;
}
