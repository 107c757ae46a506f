import { settingsEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { countriesKnown, publicHolidaysFrom } from './public-holidays.ts';
import { changeSettings, impactOfSettings, settingsOf } from './service.ts';

export function settingsRoutes(routes: Routes): Routes {
  return routes
    .add(settingsEndpoints.read, 'manager', ({ scope }) => settingsOf(scope))
    .add(settingsEndpoints.change, 'manager', ({ scope, body }) => changeSettings(scope, body))
    .add(settingsEndpoints.impact, 'manager', ({ scope, body }) => impactOfSettings(scope, body))
    .add(settingsEndpoints.countries, 'manager', async () => ({ countries: countriesKnown() }))
    .add(settingsEndpoints.publicHolidays, 'manager', async ({ scope, query }) => ({
      holidays: publicHolidaysFrom(query.country, query.region, scope.now.day),
    }));
}
