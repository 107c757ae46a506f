import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import { Names, OfWorkspace } from '../../platform/db/keys.ts';

/** A picture or PDF: of a template, of a task, or of nothing yet while a template is being written. */
@Entity({ name: 'file' })
@OfWorkspace('file')
@Names('file', 'Template', ['templateId'], { onDelete: 'CASCADE' })
@Names('file', 'TaskRecord', ['taskId'], { onDelete: 'CASCADE' })
@Names('file', 'Person', ['uploadedBy'])
@Check('file_bytes_check', 'bytes between 1 and 20971520')
@Check('file_check', 'template_id is null or task_id is null')
@Check('file_name_check', 'length(name) between 1 and 200')
@Unique('file_workspace_id_upload_key_key', ['workspaceId', 'uploadKey'])
@Index('file_by_name', ['stored'])
@Index('file_by_task', ['workspaceId', 'taskId'], { where: 'task_id is not null' })
@Index('file_by_template', ['workspaceId', 'templateId'], { where: 'template_id is not null' })
@Index('file_by_uploader', ['workspaceId', 'uploadedBy', 'uploadedAt'])
export class StoredFile {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Made by the sender for each file, so that sending it again makes no second one. */
  @Column({ type: 'uuid' })
  uploadKey!: string;
  @Column({ type: 'uuid', nullable: true })
  templateId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  taskId!: string | null;
  /** The demand that it answers. */
  @Column({ type: 'text', nullable: true })
  demandKey!: string | null;
  /** As the sender called it, without any path. */
  @Column({ type: 'text' })
  name!: string;
  /** As its bytes tell, not as its name does. */
  @Column({ type: 'text' })
  mediaType!: string;
  @Column({ type: 'integer' })
  bytes!: number;
  /** Random name of the bytes in the folder of files. */
  @Column({ type: 'text' })
  stored!: string;
  @Column({ type: 'boolean' })
  isPicture!: boolean;
  /** Goes along to the later ones of its series. */
  @Column({ type: 'boolean' })
  isKept!: boolean;
  @Column({ type: 'timestamptz' })
  uploadedAt!: Date;
  @Column({ type: 'uuid', nullable: true })
  uploadedBy!: string | null;
  /** A client's contact who sent it by a link. */
  @Column({ type: 'text', nullable: true })
  byContact!: string | null;
  @Column({ type: 'timestamptz', nullable: true })
  removedAt!: Date | null;
}
