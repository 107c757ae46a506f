import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { WebhookDelivery, WebhookEvent } from '../../contract/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** A program that is told of what happens to tasks, at an address of its own. */
@Entity({ name: 'webhook' })
@OfWorkspace('webhook')
@Names('webhook', 'Person', ['madeBy'])
export class WebhookRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  url!: string;
  /** Shared with the receiver: each delivery is signed by it. */
  @Column({ type: 'text' })
  secret!: string;
  @Column({ type: 'text', array: true })
  events!: WebhookEvent[];
  @Column({ type: 'boolean' })
  isOn!: boolean;
  @Column({ type: 'timestamptz' })
  madeAt!: Date;
  @Column({ type: 'uuid', nullable: true })
  madeBy!: string | null;
}

/** One thing that it is told, as the task was then; noted by the database (migration `webhooks.ts`). */
@Entity({ name: 'webhook_delivery' })
@OfWorkspace('webhook_delivery')
@Names('webhook_delivery', 'WebhookRecord', ['webhookId'], { onDelete: 'CASCADE' })
@Check('webhook_delivery_state_check', `state in ('waiting', 'sent', 'failed')`)
@Index('webhook_delivery_of', ['workspaceId', 'webhookId', 'at', 'id'])
@Index('webhook_delivery_waiting', ['tryAt'], { where: `state = 'waiting'` })
@Index('webhook_delivery_not_sent', ['workspaceId', 'webhookId', 'at'], { where: `state <> 'sent'` })
@Index('webhook_delivery_late', ['workspaceId', 'webhookId', 'taskId'], { where: `event = 'task.late'` })
export class WebhookDeliveryRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  webhookId!: string;
  @Column({ type: 'text' })
  event!: WebhookEvent;
  @Column({ type: 'uuid' })
  taskId!: string;
  @Column({ type: 'jsonb' })
  task!: Readonly<Record<string, unknown>>;
  @Column({ type: 'timestamptz' })
  at!: Date;
  @Column({ type: 'text' })
  state!: WebhookDelivery['state'];
  @Column({ type: 'integer' })
  tries!: number;
  @Column({ type: 'timestamptz' })
  tryAt!: Date;
  @Column({ type: 'text', nullable: true })
  said!: string | null;
}
