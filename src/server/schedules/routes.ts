import { scheduleEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { changeSchedule, changeSchedules, createSchedule, impactOfSchedule, impactOfSchedules } from './changing.ts';
import { figuresOfSchedules, fittingSchedules, listSchedules } from './list.ts';
import { oneSchedule, wholeSchedules } from './service.ts';

export function scheduleRoutes(routes: Routes): Routes {
  return (
    routes
      .add(scheduleEndpoints.list, 'member', ({ scope, query }) => listSchedules(scope, query))
      // Before those of one schedule, whose id stands in the same place.
      .add(scheduleEndpoints.fitting, 'member', ({ scope, query }) => fittingSchedules(scope, query))
      .add(scheduleEndpoints.figures, 'member', ({ scope, query }) => figuresOfSchedules(scope, query))
      .add(scheduleEndpoints.whole, 'member', async ({ scope, body }) => ({
        schedules: await wholeSchedules(scope, body.ids),
      }))
      .add(scheduleEndpoints.one, 'member', ({ scope, params }) => oneSchedule(scope, params.scheduleId))
      .add(scheduleEndpoints.changeSeveral, 'manager', ({ scope, body }) => changeSchedules(scope, body))
      .add(scheduleEndpoints.impactOfSeveral, 'manager', ({ scope, body }) => impactOfSchedules(scope, body))
      .add(scheduleEndpoints.create, 'manager', ({ scope, body }) => createSchedule(scope, body))
      .add(scheduleEndpoints.change, 'manager', ({ scope, params, body }) =>
        changeSchedule(scope, params.scheduleId, body),
      )
      .add(scheduleEndpoints.impact, 'manager', ({ scope, params, body }) =>
        impactOfSchedule(scope, params.scheduleId, body),
      )
  );
}
