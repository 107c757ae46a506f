import { createHash } from 'node:crypto';
import type { Request, Response } from 'express';
import { type CalendarOf, calendarEndpoints, listEndpoints } from '../../contract/index.ts';
import { linkOrigin } from '../platform/http/addresses.ts';
import { sendPieces } from '../platform/http/pieces-out.ts';
import type { Routes } from '../platform/http/route.ts';
import type { Scope } from '../platform/scope.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import {
  byCalendarKey,
  makeCalendar,
  myCalendars,
  nameOfCalendar,
  renewCalendar,
  subscribedBy,
  withdrawCalendar,
} from './addresses.ts';
import { calendarText } from './calendar-file.ts';
import { entriesOf } from './entries.ts';
import { seriesPieces } from './series-file.ts';

/** How often a program should ask for a calendar again. */
const REFRESH_MINUTES = 60;

const CALENDAR_TYPE = 'text/calendar; charset=utf-8';

export function calendarRoutes(routes: Routes, { clock }: ServerParts): Routes {
  return routes
    .add(calendarEndpoints.mine, 'account', ({ scope }) => myCalendars(scope))
    .add(calendarEndpoints.make, 'account', ({ scope, body, request }) =>
      makeCalendar(scope, body, linkOrigin(request)),
    )
    .add(calendarEndpoints.renew, 'account', ({ scope, params, request }) =>
      renewCalendar(scope, params.calendarId, linkOrigin(request)),
    )
    .add(calendarEndpoints.withdraw, 'account', ({ scope, params }) => withdrawCalendar(scope, params.calendarId))
    .sendTo(calendarEndpoints.file, 'read', async ({ scope, query, request }, response) => {
      const name = await nameOfCalendar(scope, query);
      response.setHeader('Content-Disposition', `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.ics`)}`);
      await sendCalendar(request, response, await textOf(scope, query, { name, origin: null, refreshMinutes: null }));
    })
    .sendTo(listEndpoints.schedulesAsCalendar, 'plan', async ({ scope }, response) => {
      const name = `${scope.workspace.name} schedules ${scope.today}`;
      const pieces = await seriesPieces(scope);
      response.set({
        'Content-Type': CALENDAR_TYPE,
        'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.ics`)}`,
        'Cache-Control': 'no-store',
      });
      await sendPieces(response, pieces);
    })
    .sendTo(calendarEndpoints.subscribed, byCalendarKey(clock), async ({ scope, query, request }, response) => {
      const { kind, ofId, origin } = await subscribedBy(scope, query.key, request.header('user-agent') ?? '');
      const of = { kind, id: ofId };
      const name = await nameOfCalendar(scope, of);
      await sendCalendar(request, response, await textOf(scope, of, { name, origin, refreshMinutes: REFRESH_MINUTES }));
    });
}

interface Told {
  readonly name: string;
  readonly origin: string | null;
  readonly refreshMinutes: number | null;
}

const textOf = async (scope: Scope, of: CalendarOf, { name, origin, refreshMinutes }: Told): Promise<string> =>
  calendarText({ name: `${name}, ${scope.workspace.name}`, refreshMinutes, ...(await entriesOf(scope, of, origin)) });

/** Once more only where it says something else than whoever asks has already (RFC 9110, section 13.1.2). */
async function sendCalendar(request: Request, response: Response, text: string): Promise<void> {
  const mark = `"${createHash('sha256').update(text).digest('base64url')}"`;
  response.setHeader('ETag', mark);
  response.setHeader('Cache-Control', 'private, no-cache');
  response.setHeader('Content-Type', CALENDAR_TYPE);
  if (request.fresh) response.status(304).end();
  else response.send(text);
}
