import { Check, Column, Entity, Index, PrimaryColumn } from 'typeorm';
import type { AlikeChoice, SameBy } from '../../contract/index.ts';
import { BRING_KINDS, type BringKind, type CalendarAsked, type DayOrder } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';
import type { ReadRow } from './read-row.ts';

/** How a file is to be read. */
export interface Asked {
  /** What each column becomes; null for those that stay out. */
  readonly columns: readonly (string | null)[];
  readonly dayOrder: DayOrder;
  /** Who is meant by a name, by the name in plain words, where somebody has said so. */
  readonly people: Readonly<Record<string, string | null>>;
  readonly sameBy: SameBy;
  /** Whether names written "Roe, Mara" are "Mara Roe"; not in those of before it could be said. */
  readonly turnsNames?: boolean;
  /** Minutes of work of which the file does not say how long it takes; not in those of before it could be said. */
  readonly usualMinutes?: number;
  /** Of a calendar. */
  readonly calendar?: CalendarAsked;
  /** Of a calendar: the zone that is meant by a TZID, where somebody has said so. */
  readonly zones?: Readonly<Record<string, string>>;
  /** Fields that it has added, once it is brought in. */
  readonly added?: readonly Added[];
}

/** A field of the workspace's own that a file has added, and the column that became it. */
export interface Added {
  readonly of: 'client' | 'asset';
  readonly key: string;
  readonly column: number;
}

/** A file that is brought in, or was. */
@Entity({ name: 'bring_in' })
@OfWorkspace('bring_in')
@Names('bring_in', 'Person', ['byId'])
@Check('bring_in_kind_check', `kind in (${BRING_KINDS.map((kind) => `'${kind}'`).join(', ')})`)
@Check('bring_in_state_check', "state in ('open', 'done', 'undone')")
@Index('bring_in_by_shape', ['workspaceId', 'kind', 'shape', 'createdAt'])
export class BringIn {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  kind!: BringKind;
  @Column({ type: 'text' })
  state!: 'open' | 'done' | 'undone';
  @Column({ type: 'text' })
  fileName!: string;
  @Column({ type: 'text' })
  encoding!: string;
  @Column({ type: 'text' })
  separator!: string;
  @Column({ type: 'integer' })
  rowCount!: number;
  /** The names in its head. */
  @Column({ type: 'jsonb' })
  columns!: string[];
  /** The same for files that have the same head. */
  @Column({ type: 'text' })
  shape!: string;
  @Column({ type: 'jsonb' })
  asked!: Asked;
  /** Whether what is asked was taken from the last file of this shape. */
  @Column({ type: 'boolean' })
  isRemembered!: boolean;
  @Column({ type: 'uuid', nullable: true })
  byId!: string | null;
  @Column({ type: 'timestamptz' })
  createdAt!: Date;
  @Column({ type: 'timestamptz', nullable: true })
  doneAt!: Date | null;
  /** What takes it out again. */
  @Column({ type: 'uuid', nullable: true })
  changeId!: string | null;
  @Column({ type: 'integer' })
  version!: number;
}

/** A line of such a file. */
@Entity({ name: 'bring_in_row' })
@Names('bring_in_row', 'BringIn', ['bringInId'], { onDelete: 'CASCADE' })
@Index('bring_in_row_by_fate', ['workspaceId', 'bringInId', 'fate', 'number'])
export class BringInRow {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  bringInId!: string;
  @PrimaryColumn({ type: 'integer' })
  number!: number;
  @Column({ type: 'jsonb' })
  cells!: string[];
  /** As it was read: "alike" is like something here, of which one may choose what becomes of it. */
  @Column({ type: 'text' })
  fate!: 'unread' | 'new' | 'alike' | 'same' | 'left';
  @Column({ type: 'text', nullable: true })
  choice!: AlikeChoice | null;
  @Column({ type: 'jsonb' })
  read!: ReadRow;
  /** What stood in the place of what was written; null before that, and where nothing did. */
  @Column({ type: 'jsonb', nullable: true })
  before!: object | null;
}

/** By which entry of a calendar something came: the same calendar, read again, finds it. */
@Entity({ name: 'calendar_origin' })
@OfWorkspace('calendar_origin')
@Names('calendar_origin', 'Schedule', ['scheduleId'], { onDelete: 'CASCADE' })
@Names('calendar_origin', 'TaskRecord', ['taskId'], { onDelete: 'CASCADE' })
@Names('calendar_origin', 'Template', ['templateId'], { onDelete: 'CASCADE' })
@Check('calendar_origin_check', 'num_nonnulls(schedule_id, task_id, template_id) = 1')
@Index('calendar_origin_by_schedule', ['workspaceId', 'scheduleId'], { where: 'schedule_id is not null' })
@Index('calendar_origin_by_task', ['workspaceId', 'taskId'], { where: 'task_id is not null' })
@Index('calendar_origin_by_template', ['workspaceId', 'templateId'], { where: 'template_id is not null' })
export class CalendarOrigin {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'text' })
  uid!: string;
  /** Of what the calendar said of it. */
  @Column({ type: 'text' })
  hash!: string;
  @Column({ type: 'uuid', nullable: true })
  scheduleId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  taskId!: string | null;
  @Column({ type: 'uuid', nullable: true })
  templateId!: string | null;
}
