import { taskEndpoints, templateEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { invalid } from '../platform/refusal.ts';
import { daySheet, tideline } from './day-sheet.ts';
import { editTask, putIntoTemplate } from './edit.ts';
import { editSeries, impactOfSeriesEdit } from './edit-series.ts';
import { captureTask, startTemplate } from './hand-made.ts';
import { oneTask } from './one-task.ts';
import { changeTasks, impactOfTasks } from './several.ts';
import {
  answerDemand,
  claimTask,
  finishTask,
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
      .add(taskEndpoints.daySheet, 'member', ({ scope, params, query }) => daySheet(scope, params.personId, query.date))
      .add(taskEndpoints.tideline, 'member', ({ scope, query }) => tideline(scope, query.person))
      .add(taskEndpoints.one, 'member', ({ scope, params }) => oneTask(scope, params.taskId))
      // Before those of one task, whose id stands in the same place.
      .add(taskEndpoints.changeSeveral, 'member', ({ scope, body }) => changeTasks(scope, body))
      .add(taskEndpoints.impactOfSeveral, 'member', ({ scope, body }) => impactOfTasks(scope, body))
      .add(taskEndpoints.start, 'member', ({ scope, params }) => startTask(scope, params.taskId))
      .add(taskEndpoints.claim, 'member', ({ scope, params }) => claimTask(scope, params.taskId))
      .add(taskEndpoints.finish, 'member', ({ scope, params, body }) => finishTask(scope, params.taskId, body.nextOn))
      .add(taskEndpoints.tick, 'member', ({ scope, params, body }) =>
        tickLine(scope, params.taskId, body.key, body.ticked),
      )
      .add(taskEndpoints.note, 'member', ({ scope, params, body }) =>
        writeNote(scope, params.taskId, body.note, body.was),
      )
      .add(taskEndpoints.pin, 'member', ({ scope, params, body }) => pinNote(scope, params.taskId, body.pinned))
      .add(taskEndpoints.answer, 'member', ({ scope, params, body }) => answerDemand(scope, params.taskId, body))
      .add(taskEndpoints.sign, 'member', ({ scope, params, body }) => signTask(scope, params.taskId, body.nextOn))
      .add(taskEndpoints.sendBack, 'member', ({ scope, params, body }) =>
        sendBackTask(scope, params.taskId, body.reason),
      )
      .add(taskEndpoints.edit, 'member', ({ scope, params, body: { reach, ...edit } }) =>
        reach === 'one' ? editTask(scope, params.taskId, edit) : editSeries(scope, params.taskId, edit, reach),
      )
      .add(taskEndpoints.impactOfEdit, 'member', ({ scope, params, body: { reach, ...edit } }) => {
        if (reach === 'one')
          throw invalid([{ path: 'reach', message: 'An edit of one task needs no look at others.' }]);
        return impactOfSeriesEdit(scope, params.taskId, edit, reach);
      })
      .add(taskEndpoints.intoTemplate, 'manager', ({ scope, params, body }) =>
        putIntoTemplate(scope, params.taskId, body.fields),
      )
      .add(taskEndpoints.capture, 'member', ({ scope, body }) => captureTask(scope, body))
      .add(templateEndpoints.start, 'member', ({ scope, params, body }) =>
        startTemplate(scope, params.templateId, body),
      )
  );
}
