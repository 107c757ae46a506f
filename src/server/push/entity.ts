import { Column, Entity, PrimaryColumn, Unique } from 'typeorm';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** A browser that shows what happens to somebody though no page is open (RFC 8030): where it is reached, and its keys (RFC 8291). */
@Entity({ name: 'push_device' })
@OfWorkspace('push_device')
@Names('push_device', 'Person', ['personId'], { onDelete: 'CASCADE' })
@Unique('push_device_endpoint', ['workspaceId', 'personId', 'endpoint'])
export class PushDevice {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'text' })
  endpoint!: string;
  @Column({ type: 'text' })
  p256dh!: string;
  @Column({ type: 'text' })
  auth!: string;
  /** What it is, as far as it says so itself: "phone", "computer". */
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'timestamptz' })
  addedAt!: Date;
  @Column({ type: 'timestamptz', nullable: true })
  toldAt!: Date | null;
  /** Why the last thing did not reach it; null where it did. */
  @Column({ type: 'text', nullable: true })
  trouble!: string | null;
}
