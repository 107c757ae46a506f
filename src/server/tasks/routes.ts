import { taskEndpoints, templateEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { invalid } from '../platform/refusal.ts';
import { daySheet, tideline } from './day-sheet.ts';
import { editTask, putIntoTemplate } from './edit.ts';
import { editSeries, impactOfSeriesEdit } from './edit-series.ts';
import { captureTask, startTemplate } from './hand-made.ts';
import { goOnWithTask, holdUpTask, nudge } from './held-up.ts';
import { oneTask } from './one-task.ts';
import { changeTasks, impactOfTasks, skipTask } from './several.ts';
import { together } from './together.ts';
import {
  answerDemand,
  claimTask,
  finishTask,
  giveBackTask,
  pinNote,
  sendBackTask,
  signTask,
  startTask,
  tickLine,
  writeNote,
} from './work.ts';

export function taskRoutes(routes: Routes): Routes {
  return (
    routes
      .add(taskEndpoints.daySheet, 'read', ({ scope, params, query }) => daySheet(scope, params.personId, query.date))
      .add(taskEndpoints.together, 'read', ({ scope, query: { date, ...of } }) => together(scope, of, date))
      .add(taskEndpoints.tideline, 'read', ({ scope, query }) => tideline(scope, query.person))
      .add(taskEndpoints.one, 'read', ({ scope, params }) => oneTask(scope, params.taskId))
      // Before those of one task, whose id stands in the same place.
      .add(taskEndpoints.changeSeveral, 'work', ({ scope, body }) => changeTasks(scope, body))
      .add(taskEndpoints.impactOfSeveral, 'work', ({ scope, body }) => impactOfTasks(scope, body))
      .add(taskEndpoints.nudge, 'nudge', ({ scope, body }) => nudge(scope, body))
      .add(taskEndpoints.start, 'work', ({ scope, params }) => startTask(scope, params.taskId))
      .add(taskEndpoints.claim, 'claim', ({ scope, params }) => claimTask(scope, params.taskId))
      .add(taskEndpoints.giveBack, 'work', ({ scope, params }) => giveBackTask(scope, params.taskId))
      .add(taskEndpoints.finish, 'work', ({ scope, params, body }) => finishTask(scope, params.taskId, body.nextOn))
      .add(taskEndpoints.skip, 'work', ({ scope, params, body }) => skipTask(scope, params.taskId, body.reason))
      .add(taskEndpoints.tick, 'work', ({ scope, params, body }) =>
        tickLine(scope, params.taskId, body.key, body.ticked),
      )
      .add(taskEndpoints.note, 'work', ({ scope, params, body }) =>
        writeNote(scope, params.taskId, body.note, body.was),
      )
      .add(taskEndpoints.pin, 'work', ({ scope, params, body }) => pinNote(scope, params.taskId, body.pinned))
      .add(taskEndpoints.answer, 'work', ({ scope, params, body }) => answerDemand(scope, params.taskId, body))
      .add(taskEndpoints.sign, 'sign', ({ scope, params, body }) => signTask(scope, params.taskId, body.nextOn))
      .add(taskEndpoints.sendBack, 'sign', ({ scope, params, body }) => sendBackTask(scope, params.taskId, body.reason))
      .add(taskEndpoints.holdUp, 'work', ({ scope, params, body }) => holdUpTask(scope, params.taskId, body))
      .add(taskEndpoints.goOn, 'work', ({ scope, params }) => goOnWithTask(scope, params.taskId))
      .add(taskEndpoints.edit, 'edit', ({ scope, params, body: { reach, ...edit } }) =>
        reach === 'one' ? editTask(scope, params.taskId, edit) : editSeries(scope, params.taskId, edit, reach),
      )
      .add(taskEndpoints.impactOfEdit, 'edit', ({ scope, params, body: { reach, ...edit } }) => {
        if (reach === 'one')
          throw invalid([{ path: 'reach', message: 'An edit of one task needs no look at others.' }]);
        return impactOfSeriesEdit(scope, params.taskId, edit, reach);
      })
      .add(taskEndpoints.intoTemplate, 'plan', ({ scope, params, body }) =>
        putIntoTemplate(scope, params.taskId, body.fields),
      )
      .add(taskEndpoints.capture, 'begin', ({ scope, body }) => captureTask(scope, body))
      .add(templateEndpoints.start, 'begin', ({ scope, params, body }) => startTemplate(scope, params.templateId, body))
  );
}
