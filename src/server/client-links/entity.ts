import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import { ASK_KINDS, type AskKind } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** A link by which a contact of a client does what is the client's to do. Of what stands in the link a digest is kept. */
@Entity({ name: 'client_link' })
@OfWorkspace('client_link')
@Names('client_link', 'Client', ['clientId'])
@Names('client_link', 'Person', ['madeBy'])
@Unique('client_link_digest', ['digest'])
@Index('client_link_by_client', ['workspaceId', 'clientId', 'id'])
export class ClientLink {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Whose contact it was sent to; whose the contact is by now is asked of the contact. */
  @Column({ type: 'uuid' })
  clientId!: string;
  /** The contact; it may be gone since, and the link with it. */
  @Column({ type: 'uuid' })
  contactId!: string;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  email!: string;
  /** The one task that it opens; null for all that is open of the client. */
  @Column({ type: 'uuid', nullable: true })
  taskId!: string | null;
  @Column({ type: 'text' })
  digest!: string;
  @Column({ type: 'boolean' })
  needsCode!: boolean;
  @Column({ type: 'timestamptz' })
  madeAt!: Date;
  /** Who sent it by hand; null where it went by itself. */
  @Column({ type: 'uuid', nullable: true })
  madeBy!: string | null;
  /** Its last day, as the task was due when it was made. */
  @Column({ type: 'date' })
  endsOn!: string;
  @Column({ type: 'timestamptz', nullable: true })
  openedAt!: Date | null;
  @Column({ type: 'timestamptz', nullable: true })
  withdrawnAt!: Date | null;
  /** The code that was sent last, as a digest; how often it was tried, and how many were sent. */
  @Column({ type: 'text', nullable: true })
  codeDigest!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  codeAt!: Date | null;
  @Column({ type: 'integer' })
  codeTries!: number;
  @Column({ type: 'integer' })
  codesSent!: number;
  /** Digests of what devices show on which a code was entered. */
  @Column({ type: 'jsonb' })
  passes!: readonly string[];
}

/** That a task was asked for by the mail of a link. */
@Entity({ name: 'client_ask' })
@OfWorkspace('client_ask')
@Names('client_ask', 'ClientLink', ['linkId'])
@Check('client_ask_kind_check', `kind in (${ASK_KINDS.map((kind) => `'${kind}'`).join(', ')})`)
@Index('client_ask_by_task', ['workspaceId', 'taskId', 'id'])
@Index('client_ask_by_link', ['workspaceId', 'linkId'])
@Index('client_ask_once', ['workspaceId', 'taskId'], { unique: true, where: "kind = 'asked'" })
export class ClientAsk {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid' })
  linkId!: string;
  @Column({ type: 'uuid' })
  taskId!: string;
  @Column({ type: 'text' })
  kind!: AskKind;
  /** The day on which it went, and on which the task was due then. */
  @Column({ type: 'date' })
  askedOn!: string;
  @Column({ type: 'date' })
  dueOn!: string;
  @Column({ type: 'timestamptz' })
  at!: Date;
}
