/** Schedules, what they plan and owe, and what a change of one does to its tasks. */
export { cellContext } from './cell-context.ts';
export { NEXT_CHOSEN, scheduleChanges } from './changes.ts';
export {
  changeSchedules,
  followSchedules,
  impactOfRewriting,
  impactOfSchedules,
  lockedSchedules,
  mustBeInUse,
  ownWrite,
  rewriteSchedules,
  rulesOf,
  type ScheduleWrite,
  saveRows,
  versioned,
} from './changing.ts';
export { createSchedules, impactOfCreating, newSchedule } from './creating.ts';
export { Schedule, TurnSwap } from './entity.ts';
export { FAR_DAYS, type FarDates, type FarWhose, farDates } from './far-dates.ts';
export { comparedYears, countedItems, impactOf, impactWords, plannedYear, TOLD_OF_EACH } from './impact.ts';
export { type KeptLine, keptLines } from './kept-lines.ts';
export {
  type ForeseenTask,
  firstDate,
  foreseenTasks,
  KEPT_DAYS,
  type KeptPlan,
  keptPlans,
  nextDateOf,
  unsettled,
} from './kept-plans.ts';
export { schedulesFound } from './list.ts';
export { madeTasks, type NominalTask, nominalKey } from './made-tasks.ts';
export { leftOutOf, type MakingSpan, owedTasks, planProblem } from './owed.ts';
export { isGroupHere, peopleById, problemsOfPeople } from './people-of-input.ts';
export {
  foreseenByPerson,
  foreseenFrom,
  foreseenMinutes,
  foreseenOf,
  foreseenOfNobody,
  type Projected,
  projectedOf,
  projectedWork,
} from './projection.ts';
export { scheduleRoutes } from './routes.ts';
export {
  lockedScheduleRows,
  partsOf,
  plannedSchedule,
  readableSchedule,
  type ScheduleRow,
  scheduleRows,
} from './schedule-row.ts';
export { foresee, phrasesOf, stateOf } from './service.ts';
export { type Fields, followOn, keyWanted, planAll, syncAll, UNSEEN_ONLY } from './sync.ts';
export {
  impactOfTogether,
  insertSchedules,
  type NewSchedule,
  saveInParts,
  saveTogether,
  type Together,
} from './together.ts';
export { sayTurn, turnsOfSchedule, turnWith } from './turns.ts';
export { type Making, makingFor } from './who-does.ts';
export { whoWords } from './who-words.ts';
