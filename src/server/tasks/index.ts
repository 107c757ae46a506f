/** What is done with tasks: the day sheet, working, editing, removing, many at once. */
export { taskChanges } from './changes.ts';
export { daySheet } from './day-sheet.ts';
export { captureTask, plainTask, SEEN_BEFORE_DAYS, startTemplate } from './hand-made.ts';
export { oneTask } from './one-task.ts';
export { mayAddTo } from './permission.ts';
export { taskRoutes } from './routes.ts';
export { ACTIONS as TASK_ACTIONS, carryOutFates, changeTasks, fatesOfTasks, lockedAsSeen } from './several.ts';
export { impactOfFates, type TaskFate, watchTasks } from './task-impact.ts';
export { whyHere } from './why.ts';
export {
  answerDemand,
  begun,
  changeTask,
  finishedBy,
  finishTask,
  refuseUnread,
  tickedByProof,
  tickLine,
  workableTask,
  writeNote,
  writeTask,
} from './work.ts';
