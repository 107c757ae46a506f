import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { Dot, Link, Priority } from '../../../contract/index.ts';
import type { DefaultRule, Demand, Escalation, SignOff, Step } from '../../../core/index.ts';
import { Names, OfWorkspace } from '../../platform/db/keys.ts';

@Entity({ name: 'template' })
@OfWorkspace('template')
@Names('template', 'Person', ['changedBy'])
@Check('template_estimate_minutes_check', 'estimate_minutes between 1 and 6000')
@Check('template_name_check', 'length(name) between 1 and 120')
@Check('template_priority_check', `priority in ('low', 'normal', 'high', 'urgent')`)
@Check('template_summary_check', 'length(summary) <= 120')
@Check('template_title_pattern_check', 'length(title_pattern) between 1 and 200')
// By lower(name), and id.
@Index('template_by_name', { synchronize: false })
export class Template {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  titlePattern!: string;
  @Column({ type: 'text', nullable: true })
  category!: string | null;
  @Column({ type: 'text' })
  summary!: string;
  /** The colour of its tag, where it differs from its category's. */
  @Column({ type: 'text', nullable: true })
  dot!: Dot | null;
  /** Who does it where a schedule does not say otherwise. */
  @Column({ type: 'jsonb' })
  assignment!: DefaultRule;
  /** HTML, cleaned by `sanitiseInstructions` at every write. */
  @Column({ type: 'text' })
  instructions!: string;
  @Column({ type: 'jsonb' })
  links!: Link[];
  @Column({ type: 'text' })
  priority!: Priority;
  @Column({ type: 'text', nullable: true })
  workType!: string | null;
  @Column({ type: 'jsonb', nullable: true })
  signOff!: SignOff | null;
  @Column({ type: 'boolean' })
  finishWithLast!: boolean;
  @Column({ type: 'boolean' })
  numbered!: boolean;
  /** Proof of its main task. */
  @Column({ type: 'jsonb' })
  demands!: readonly Demand[];
  @Column({ type: 'integer' })
  estimateMinutes!: number;
  /** Qualifications that whoever does the main task has to hold. */
  @Column({ type: 'jsonb' })
  tickets!: readonly string[];
  /** Who is told when it is late; null as the workspace says. */
  @Column({ type: 'jsonb', nullable: true })
  escalation!: Escalation | null;
  @Column({ type: 'jsonb' })
  steps!: readonly Step[];
  /** Since when it makes nothing more; null while it is in use. */
  @Column({ type: 'timestamptz', nullable: true })
  archivedAt!: Date | null;
  @Column({ type: 'timestamptz' })
  changedAt!: Date;
  @Column({ type: 'uuid', nullable: true })
  changedBy!: string | null;
}

/** A template that one person has marked as a favourite. */
@Entity({ name: 'favourite' })
@OfWorkspace('favourite')
@Names('favourite', 'Person', ['personId'], { onDelete: 'CASCADE' })
@Names('favourite', 'Template', ['templateId'], { onDelete: 'CASCADE' })
export class Favourite {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  personId!: string;
  @PrimaryColumn({ type: 'uuid' })
  templateId!: string;
}
