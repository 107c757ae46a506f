/** What was written of an entry. */
export interface WrittenEntry {
  readonly newScheduleId?: string;
  readonly scheduleId?: string;
  readonly newTaskId?: string;
  readonly taskId?: string;
  readonly newTemplateId?: string;
  readonly daysOff?: number;
  /** What was known of it before, to be known again. */
  readonly hashBefore?: string;
}
