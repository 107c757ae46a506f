import type { Priority } from '../../../contract/index.ts';
import type { Offer, Why } from '../../../core/index.ts';

/** A task as its schedule gives it; text, steps and proof are taken from its template when it is written. */
export interface MadeTask {
  readonly scheduleId: string;
  readonly templateId: string;
  readonly templateVersion: number;
  readonly nominalDate: string;
  readonly stepKey: string;
  /** Whose it is of those who have one each, by their id; empty where there is one for all. */
  readonly head: string;
  readonly setOn: string;
  readonly title: string;
  readonly workOn: string;
  readonly appearsOn: string;
  readonly startsOn: string;
  readonly dueOn: string;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  readonly zone: string | null;
  readonly assigneeId: string | null;
  readonly offeredTo: Offer | null;
  readonly why: Why | null;
  readonly estimateMinutes: number;
  /** Where its schedule has its own; null for what the template says. */
  readonly instructions: string | null;
  readonly priority: Priority | null;
}
