import { logbookEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { sendRows } from '../platform/http/rows-out.ts';
import { loggedChanges } from './changed.ts';
import { logDay, logDays } from './entries.ts';
import { logOut, nameOfLog } from './out.ts';
import { figuresBy, ratesOf } from './rates.ts';
import { readingsOverTime } from './readings.ts';

export function logbookRoutes(routes: Routes): Routes {
  return routes
    .add(logbookEndpoints.rates, 'read', ({ scope, query }) => ratesOf(scope, query))
    .add(logbookEndpoints.days, 'read', ({ scope, query }) => logDays(scope, query))
    .add(logbookEndpoints.day, 'read', ({ scope, query }) => logDay(scope, query))
    .add(logbookEndpoints.by, 'read', ({ scope, query }) => figuresBy(scope, query))
    .add(logbookEndpoints.readings, 'read', ({ scope, query }) => readingsOverTime(scope, query))
    .add(logbookEndpoints.changes, 'read', ({ scope, query }) => loggedChanges(scope, query))
    .sendTo(logbookEndpoints.csv, 'read', ({ scope, query: { as, ...filter } }, response) =>
      sendRows(response, nameOfLog(filter), logOut(scope, filter), as),
    );
}
