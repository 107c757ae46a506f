/**
 * The front door of the core. Functions named after dates (`occurrencesBetween`, `planBetween`, `rollDate` …) take and give
 * ISO strings; those named after days (`planDays`, `rollDay` …) take and give civil days, whole days since 1970-01-01.
 */
export * from './calendar/business-day.ts';
export * from './calendar/closed-season.ts';
export * from './calendar/iso-calendar.ts';
export * from './calendar/working-calendar.ts';
export * from './capture/capture.ts';
export * from './civil-date/civil-day.ts';
export * from './civil-date/instant.ts';
export * from './civil-date/iso-date.ts';
export * from './civil-date/month.ts';
export * from './doing/proof.ts';
export * from './doing/proof-words.ts';
export * from './doing/template-set.ts';
export * from './insight/day-bands.ts';
export * from './insight/day-load.ts';
export * from './insight/task-state.ts';
export * from './planning/horizon.ts';
export * from './planning/instants.ts';
export * from './planning/iso-plan.ts';
export * from './planning/next-dated.ts';
export * from './planning/numbers.ts';
export * from './planning/outlook.ts';
export * from './planning/overlap.ts';
export * from './planning/plan.ts';
export * from './planning/reconcile.ts';
export * from './planning/remarks.ts';
export * from './planning/rrule-writer.ts';
export * from './planning/schedule-plan.ts';
export * from './planning/timing.ts';
export { canonicalRecurrence, mayLackDay } from './recurrence/canonical.ts';
export { dayFollowing } from './recurrence/follows-dates.ts';
export * from './recurrence/occurrences.ts';
export { type PhraseProblem, rruleFault } from './recurrence/phrase/problem.ts';
export * from './recurrence/phrase/reader.ts';
export * from './recurrence/phrase/writer.ts';
export * from './recurrence/recurrence-problems.ts';
export * from './recurrence/rrule/parts.ts';
export * from './recurrence/rrule/reader.ts';
export * from './recurrence/rule.ts';
export { InvalidRuleError } from './recurrence/rule-dates.ts';
export * from './wording/date-words.ts';
export * from './wording/duration.ts';
export * from './wording/title.ts';
export * from './wording/zone-words.ts';
