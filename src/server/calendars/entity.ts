import { Check, Column, Entity, Index, PrimaryColumn, Unique } from 'typeorm';
import { CALENDAR_KINDS, type CalendarKind } from '../../contract/index.ts';
import { Names, OfWorkspace } from '../platform/db/keys.ts';

/** An address at which a program that shows calendars asks for somebody's. Of the key in it a digest is kept. */
@Entity({ name: 'calendar_address' })
@OfWorkspace('calendar_address')
@Names('calendar_address', 'Person', ['personId'], { onDelete: 'CASCADE' })
@Check('calendar_address_kind_check', `kind in (${CALENDAR_KINDS.map((kind) => `'${kind}'`).join(', ')})`)
@Unique('calendar_address_digest', ['digest'])
@Index('calendar_address_of_person', ['workspaceId', 'personId', 'id'])
export class CalendarAddressRecord {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** Whose address it is: it shows what they may see, as long as they may. */
  @Column({ type: 'uuid' })
  personId!: string;
  @Column({ type: 'text' })
  kind!: CalendarKind;
  /** What it is of; that may be gone since. */
  @Column({ type: 'uuid' })
  ofId!: string;
  @Column({ type: 'text' })
  digest!: string;
  /** Under which the pages of the workspace were open when it was made: entries lead there. */
  @Column({ type: 'text' })
  origin!: string;
  @Column({ type: 'timestamptz' })
  madeAt!: Date;
  @Column({ type: 'timestamptz', nullable: true })
  askedAt!: Date | null;
  @Column({ type: 'text' })
  askedBy!: string;
}
