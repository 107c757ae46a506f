import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { HearChoices, QuietWish, SummaryWish } from '../../core/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** How somebody wishes to hear of things. */
@Entity({ name: 'message_wish' })
@OfWorkspace('message_wish')
@Names('message_wish', 'Person', ['personId'], { onDelete: 'CASCADE' })
export class MessageWishRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  personId!: string;
  /** The day's summary; null where it is as usual, like the others. */
  @Column({ type: 'jsonb', nullable: true })
  summary!: SummaryWish | null;
  /** What they chose of each kind of thing. */
  @Column({ type: 'jsonb', nullable: true })
  hears!: HearChoices | null;
  /** When mails of single things wait. */
  @Column({ type: 'jsonb', nullable: true })
  quiet!: QuietWish | null;
  /** The last day whose summary was sent, or had nothing to say. */
  @Column({ type: 'date', nullable: true })
  toldOn!: string | null;
}
