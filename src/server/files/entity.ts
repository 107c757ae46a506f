import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A picture or PDF: of a template, of a task, or of nothing yet while a template is being written. */
@Entity({ name: 'file' })
export class StoredFile {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Made by the sender for each file, so that sending it again makes no second one. */
  @Column({ name: 'upload_key', type: 'uuid' })
  uploadKey!: string;
  @Column({ name: 'template_id', type: 'uuid', nullable: true })
  templateId!: string | null;
  @Column({ name: 'task_id', type: 'uuid', nullable: true })
  taskId!: string | null;
  /** The demand that it answers. */
  @Column({ name: 'demand_key', type: 'text', nullable: true })
  demandKey!: string | null;
  /** As the sender called it, without any path. */
  @Column({ type: 'text' })
  name!: string;
  /** As its bytes tell, not as its name does. */
  @Column({ name: 'media_type', type: 'text' })
  mediaType!: string;
  @Column({ type: 'integer' })
  bytes!: number;
  /** Random name of the bytes in the folder of files. */
  @Column({ type: 'text' })
  stored!: string;
  @Column({ name: 'is_picture', type: 'boolean' })
  isPicture!: boolean;
  /** Goes along to the later ones of its series. */
  @Column({ name: 'is_kept', type: 'boolean' })
  isKept!: boolean;
  @Column({ name: 'uploaded_at', type: 'timestamptz' })
  uploadedAt!: Date;
  @Column({ name: 'uploaded_by', type: 'uuid', nullable: true })
  uploadedBy!: string | null;
  @Column({ name: 'removed_at', type: 'timestamptz', nullable: true })
  removedAt!: Date | null;
}
