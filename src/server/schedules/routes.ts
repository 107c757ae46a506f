import { scheduleEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { changeSchedule, changeSchedules, impactOfSchedule, impactOfSchedules } from './changing.ts';
import { createSchedule } from './creating.ts';
import { figuresOfSchedules, fittingSchedules, listSchedules } from './list.ts';
import { oneSchedule, wholeSchedules } from './service.ts';
import { timedWork } from './timed.ts';

export function scheduleRoutes(routes: Routes): Routes {
  return (
    routes
      .add(scheduleEndpoints.list, 'read', ({ scope, query }) => listSchedules(scope, query))
      // Before those of one schedule, whose id stands in the same place.
      .add(scheduleEndpoints.fitting, 'read', ({ scope, query }) => fittingSchedules(scope, query))
      .add(scheduleEndpoints.timed, 'read', ({ scope, query }) => timedWork(scope, query))
      .add(scheduleEndpoints.figures, 'read', ({ scope, query }) => figuresOfSchedules(scope, query))
      .add(scheduleEndpoints.whole, 'read', async ({ scope, body }) => ({
        schedules: await wholeSchedules(scope, body.ids),
      }))
      .add(scheduleEndpoints.one, 'read', ({ scope, params }) => oneSchedule(scope, params.scheduleId))
      .add(scheduleEndpoints.changeSeveral, 'plan', ({ scope, body }) => changeSchedules(scope, body))
      .add(scheduleEndpoints.impactOfSeveral, 'plan', ({ scope, body }) => impactOfSchedules(scope, body))
      .add(scheduleEndpoints.create, 'plan', ({ scope, body }) => createSchedule(scope, body))
      .add(scheduleEndpoints.change, 'plan', ({ scope, params, body }) =>
        changeSchedule(scope, params.scheduleId, body),
      )
      .add(scheduleEndpoints.impact, 'plan', ({ scope, params, body }) =>
        impactOfSchedule(scope, params.scheduleId, body),
      )
  );
}
