import { setupEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { beginSession } from '../platform/http/session.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { countriesKnown, publicHolidaysFrom } from '../settings/index.ts';
import { describePerson } from '../workspace/index.ts';
import { beginWorkspace, requireOpen, setupState, todayIn } from './service.ts';

export function setupRoutes(routes: Routes, { reads, writes, clock, setupKey }: ServerParts): Routes {
  return routes
    .open(setupEndpoints.state, () => setupState(reads, clock, setupKey))
    .open(setupEndpoints.countries, async () => {
      await requireOpen(reads, setupKey);
      return { countries: countriesKnown() };
    })
    .open(setupEndpoints.publicHolidays, async ({ query }) => {
      await requireOpen(reads, setupKey);
      return { holidays: publicHolidaysFrom(query.country, query.region, todayIn(clock)) };
    })
    .open(setupEndpoints.begin, async ({ body, request }) => {
      const person = await beginWorkspace(writes, clock, setupKey, body);
      await beginSession(request, person, { isKept: true });
      return { person: describePerson(person) };
    });
}
