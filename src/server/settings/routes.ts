import { settingsEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { changeLists, listsOf } from './lists.ts';
import { countriesKnown, publicHolidaysFrom } from './public-holidays.ts';
import { changeSettings, impactOfSettings, settingsOf } from './service.ts';

export function settingsRoutes(routes: Routes): Routes {
  return routes
    .add(settingsEndpoints.read, 'settings', ({ scope }) => settingsOf(scope))
    .add(settingsEndpoints.change, 'settings', ({ scope, body }) => changeSettings(scope, body))
    .add(settingsEndpoints.impact, 'settings', ({ scope, body }) => impactOfSettings(scope, body))
    .add(settingsEndpoints.lists, 'settings', ({ scope }) => listsOf(scope))
    .add(settingsEndpoints.changeLists, 'settings', ({ scope, body }) => changeLists(scope, body))
    .add(settingsEndpoints.countries, 'settings', async () => ({ countries: countriesKnown() }))
    .add(settingsEndpoints.publicHolidays, 'settings', async ({ scope, query }) => ({
      holidays: publicHolidaysFrom(query.country, query.region, scope.now.day),
    }));
}
