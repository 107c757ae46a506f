import { scheduleEndpoints } from '../../contract/index.ts';
import { readCursor } from '../http/cursor.ts';
import type { Routes } from '../http/route.ts';
import {
  changeSchedule,
  createSchedule,
  listSchedules,
  oneSchedule,
  pauseSchedule,
  resumeSchedule,
} from './service.ts';

export function scheduleRoutes(routes: Routes): Routes {
  return routes
    .add(scheduleEndpoints.list, 'member', ({ scope, query }) => {
      const after = readCursor(query.after);
      return listSchedules(scope, {
        ...(after ? { after } : {}),
        ...(query.templateId ? { templateId: query.templateId } : {}),
      });
    })
    .add(scheduleEndpoints.one, 'member', ({ scope, params }) => oneSchedule(scope, params.scheduleId))
    .add(scheduleEndpoints.create, 'manager', ({ scope, body }) => createSchedule(scope, body))
    .add(scheduleEndpoints.change, 'manager', ({ scope, params, body }) =>
      changeSchedule(scope, params.scheduleId, body),
    )
    .add(scheduleEndpoints.pause, 'manager', ({ scope, params }) => pauseSchedule(scope, params.scheduleId))
    .add(scheduleEndpoints.resume, 'manager', ({ scope, params }) => resumeSchedule(scope, params.scheduleId));
}
