import { Column } from 'typeorm';
import type { Link, Priority } from '../contract/index.ts';
import type { Demand, SignOff } from '../core/index.ts';

/** What a template says and every task made from it carries along. */
export abstract class WorkContent {
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
  /** Proof of the task as a whole; of a template, of its main task. */
  @Column({ type: 'jsonb' })
  demands!: readonly Demand[];
  @Column({ name: 'estimate_minutes', type: 'integer' })
  estimateMinutes!: number;
}
