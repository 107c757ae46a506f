export { lacksTicket, ticketsAskedBy, ticketsOfTasks } from './asked-tickets.ts';
export { callAsker } from './asker.ts';
/** Tasks as the database has them: rows, contents, lines; read, written, held and put back. */
export { type Content, contentsById, keepContents, WorkContent } from './content.ts';
export { farDay, refuseFarDays, seenFrom } from './dates.ts';
export { compactEndedCounts } from './ended-counts.ts';
export { type GivenAnswer, NOT_HELD, type SentBack, type Task, TaskRecord, type Tick } from './entity.ts';
export { lateCount, lateSchedules } from './late.ts';
export type { MadeTask } from './made-task.ts';
export { countsAsDue, WAS_ON_TIME } from './on-time.ts';
export { IS_TOUCHED, type ReachableTask, tasksOfSchedulesFrom } from './reachable-task.ts';
export { pastTasksOf, type SeriesTask, seriesUpTo } from './series.ts';
export { ENDED, TO_DO, UNFINISHED } from './states.ts';
export { restoreStored, type StoredTask, storedTasks } from './stored.ts';
export {
  datedTask,
  doingOf,
  isForClient,
  LOOK_FIELDS,
  type LookRow,
  linesOf,
  lookOfRow,
  MAILED_FIRST,
  nameOf,
  TASK_COLUMNS,
  TASK_JOINS,
  type TaskRow,
  taskLine,
  taskLines,
} from './task-row.ts';
export { contentOfParts, saidBy, type TaskContent } from './template-parts.ts';
export { butFor, putBackTasks, type Watch, watched } from './watched.ts';
export {
  type ChangedTask,
  findTasks,
  insertTasks,
  lockedTask,
  lockedTasks,
  type NewTask,
  ofSet,
  oneWhole,
  saveTask,
  saveTasks,
  tasksByIds,
} from './whole-task.ts';
export { insertMadeTasks, refreshMadeTasks, removeTasks } from './written-task.ts';
