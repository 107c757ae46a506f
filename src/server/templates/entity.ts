import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Dot, Link, Priority } from '../../contract/index.ts';
import type { Demand, SignOff, Step } from '../../core/index.ts';

@Entity({ name: 'template' })
export class Template {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'integer' })
  version!: number;
  @Column({ type: 'text' })
  name!: string;
  @Column({ name: 'title_pattern', type: 'text' })
  titlePattern!: string;
  @Column({ type: 'text', nullable: true })
  category!: string | null;
  @Column({ type: 'text' })
  summary!: string;
  /** The colour of its tag, where it differs from its category's. */
  @Column({ type: 'text', nullable: true })
  dot!: Dot | null;
  /** Who does it where a schedule does not say otherwise. */
  @Column({ name: 'assignee_id', type: 'uuid', nullable: true })
  assigneeId!: string | null;
  /** HTML, cleaned by `sanitiseInstructions` at every write. */
  @Column({ type: 'text' })
  instructions!: string;
  @Column({ type: 'jsonb' })
  links!: Link[];
  @Column({ type: 'text' })
  priority!: Priority;
  @Column({ name: 'work_type', type: 'text', nullable: true })
  workType!: string | null;
  @Column({ name: 'sign_off', type: 'jsonb', nullable: true })
  signOff!: SignOff | null;
  @Column({ name: 'finish_with_last', type: 'boolean' })
  finishWithLast!: boolean;
  @Column({ type: 'boolean' })
  numbered!: boolean;
  /** Proof of its main task. */
  @Column({ type: 'jsonb' })
  demands!: readonly Demand[];
  @Column({ name: 'estimate_minutes', type: 'integer' })
  estimateMinutes!: number;
  @Column({ type: 'jsonb' })
  steps!: readonly Step[];
  /** Since when it makes nothing more; null while it is in use. */
  @Column({ name: 'archived_at', type: 'timestamptz', nullable: true })
  archivedAt!: Date | null;
  @Column({ name: 'changed_at', type: 'timestamptz' })
  changedAt!: Date;
  @Column({ name: 'changed_by', type: 'uuid', nullable: true })
  changedBy!: string | null;
}

/** A template that one person has marked as a favourite. */
@Entity({ name: 'favourite' })
export class Favourite {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ name: 'person_id', type: 'uuid' })
  personId!: string;
  @PrimaryColumn({ name: 'template_id', type: 'uuid' })
  templateId!: string;
}
