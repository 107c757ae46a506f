import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A way to sign in. One account may stand behind a person in several workspaces. */
@Entity({ name: 'account' })
export class Account {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  email!: string;
  @Column({ name: 'password_hash', type: 'text' })
  passwordHash!: string;
}

@Entity({ name: 'person' })
export class Person {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ name: 'account_id', type: 'uuid', nullable: true })
  accountId!: string | null;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  role!: string;
  @Column({ name: 'is_manager', type: 'boolean' })
  isManager!: boolean;
  /** Minutes of work on a working day. */
  @Column({ name: 'capacity_minutes', type: 'integer' })
  capacityMinutes!: number;
}
