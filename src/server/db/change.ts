import { Column, Entity, PrimaryColumn } from 'typeorm';

export type FieldChanges = Record<string, { readonly from: unknown; readonly to: unknown }>;

/** Who changed what, when, from what to what: written with every change, and replayed backwards to undo it. */
@Entity({ name: 'change' })
export class Change {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'timestamptz' })
  at!: Date;
  @Column({ name: 'actor_id', type: 'uuid', nullable: true })
  actorId!: string | null;
  @Column({ type: 'text' })
  subject!: 'task' | 'schedule' | 'template';
  @Column({ name: 'subject_id', type: 'uuid' })
  subjectId!: string;
  @Column({ type: 'text' })
  action!: string;
  @Column({ type: 'jsonb' })
  fields!: FieldChanges;
  @Column({ name: 'undone_at', type: 'timestamptz', nullable: true })
  undoneAt!: Date | null;
}
