import { Check, Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import type { OwnWaysSet } from '../../../contract/index.ts';
import type { Access, OwnWays, PatternShift, ShiftChange, WeekMinutes } from '../../../core/index.ts';
import { Names, OfWorkspace } from '../db/keys.ts';

/** One's own ways as they are stored: those that are not the usual ones. */
export type StoredWays = OwnWays & Partial<Pick<OwnWaysSet, 'startsAt'>>;

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
@Names('person', 'Person', ['deputyId'])
@Check('person_deputy_check', 'deputy_id <> id')
@Check('person_access_check', "access in ('manager', 'planner', 'member', 'viewer')")
@Check('person_weeks_check', 'jsonb_array_length(weeks) between 1 and 2')
@Check('person_works_check', 'works_from <= works_until')
// By workspace and lower(email).
@Index('person_email', { synchronize: false })
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
  access!: Access;
  /** What they are here; the first leads. */
  @Column({ type: 'jsonb' })
  roles!: string[];
  @Column({ type: 'text', nullable: true })
  team!: string | null;
  /** Where mails reach them; whoever has an account signs in with its own. */
  @Column({ type: 'text', nullable: true })
  email!: string | null;
  @Column({ type: 'text' })
  telephone!: string;
  /** Minutes of work on each weekday, Monday first: of one week, or of two that take turns. */
  @Column({ type: 'jsonb' })
  weeks!: WeekMinutes[];
  /** A day in the first of the weeks. */
  @Column({ type: 'date' })
  weeksFrom!: string;
  /** When those hours lie, where that is said: then the minutes follow from it. */
  @Column({ type: 'jsonb' })
  shifts!: PatternShift[];
  /** What they work instead on single days, in the order of the days. */
  @Column({ type: 'jsonb' })
  shiftChanges!: ShiftChange[];
  /** Their first and their last day here; null where there is no such end. */
  @Column({ type: 'date', nullable: true })
  worksFrom!: string | null;
  @Column({ type: 'date', nullable: true })
  worksUntil!: string | null;
  /** How they like to see dates and times, where not as the workspace does; and where they begin. */
  @Column({ type: 'jsonb' })
  ways!: StoredWays;
  /** Whoever takes over for them while they are away; null for nobody. */
  @Column({ type: 'uuid', nullable: true })
  deputyId!: string | null;
  /** Qualifications that they hold, some until a last day. */
  @Column({ type: 'jsonb' })
  tickets!: { readonly name: string; readonly until: string | null }[];
  @Column({ type: 'integer' })
  version!: number;
}
