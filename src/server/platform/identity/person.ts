import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { OfWorkspace } from '../db/keys.ts';

/** A way to sign in. One account may stand behind a person in several workspaces. */
@Entity({ name: 'account' })
// By lower(email).
@Index('account_email', { synchronize: false })
export class Account {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  email!: string;
  @Column({ type: 'text' })
  passwordHash!: string;
}

@Entity({ name: 'person' })
@OfWorkspace('person')
@ForeignKey('Account', ['accountId'], ['id'], { name: 'person_account_id_fkey', onDelete: 'SET NULL' })
@Check('person_capacity_minutes_check', 'capacity_minutes between 0 and 1440')
@Unique('person_workspace_id_account_id_key', ['workspaceId', 'accountId'])
export class Person {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'uuid', nullable: true })
  accountId!: string | null;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  role!: string;
  @Column({ type: 'boolean' })
  isManager!: boolean;
  /** Minutes of work on a working day. */
  @Column({ type: 'integer' })
  capacityMinutes!: number;
}
