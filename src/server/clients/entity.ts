import { Column, Entity, PrimaryColumn } from 'typeorm';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

@Entity({ name: 'client' })
@OfWorkspace('client')
export class Client {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  name!: string;
}

/** A thing that work is done on: a client's, or the workspace's own where there is no client. */
@Entity({ name: 'asset' })
@OfWorkspace('asset')
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
}
