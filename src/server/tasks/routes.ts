import { taskEndpoints } from '../../contract/index.ts';
import { undoChange } from '../changes.ts';
import type { Routes } from '../http/route.ts';
import { claimTask, daySheet, finishTask, oneTask, startTask, tickStep, tideline, writeNote } from './service.ts';

export function taskRoutes(routes: Routes): Routes {
  return routes
    .add(taskEndpoints.daySheet, 'member', ({ scope, params, query }) => daySheet(scope, params.personId, query.date))
    .add(taskEndpoints.tideline, 'member', ({ scope, query }) => tideline(scope, query.person))
    .add(taskEndpoints.one, 'member', ({ scope, params }) => oneTask(scope, params.taskId))
    .add(taskEndpoints.start, 'member', ({ scope, params }) => startTask(scope, params.taskId))
    .add(taskEndpoints.claim, 'member', ({ scope, params }) => claimTask(scope, params.taskId))
    .add(taskEndpoints.finish, 'member', ({ scope, params }) => finishTask(scope, params.taskId))
    .add(taskEndpoints.tick, 'member', ({ scope, params, body }) =>
      tickStep(scope, params.taskId, body.key, body.ticked),
    )
    .add(taskEndpoints.note, 'member', ({ scope, params, body }) =>
      writeNote(scope, params.taskId, body.note, body.was),
    )
    .add(taskEndpoints.undo, 'member', ({ scope, params }) => undoChange(scope, params.changeId));
}
