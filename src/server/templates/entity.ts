import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { CheckLine } from '../../contract/index.ts';

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
  instructions!: string;
  @Column({ name: 'check_lines', type: 'jsonb' })
  checkLines!: CheckLine[];
  @Column({ name: 'estimate_minutes', type: 'integer' })
  estimateMinutes!: number;
  @Column({ name: 'changed_at', type: 'timestamptz' })
  changedAt!: Date;
  @Column({ name: 'changed_by', type: 'uuid', nullable: true })
  changedBy!: string | null;
}
