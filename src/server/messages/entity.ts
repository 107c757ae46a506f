import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { SummaryWish } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** How somebody wishes to have the day's summary. */
@Entity({ name: 'summary_wish' })
@OfWorkspace('summary_wish')
@Names('summary_wish', 'Person', ['personId'], { onDelete: 'CASCADE' })
export class SummaryWishRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  personId!: string;
  /** Null where it is as usual. */
  @Column({ type: 'jsonb', nullable: true })
  wish!: SummaryWish | null;
  /** The last day whose summary was sent, or had nothing to say. */
  @Column({ type: 'date', nullable: true })
  toldOn!: string | null;
}
