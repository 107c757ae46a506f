import { createHash } from 'node:crypto';
import { type RequestHandler, Router } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Logger } from 'pino';
import { workspaceEndpoints } from '../contract/index.ts';
import { answerRoutes, oneClickRouter } from './answers/index.ts';
import { availabilityRoutes } from './availability/index.ts';
import { backupRoutes } from './backup/index.ts';
import { bellRoutes } from './bell/index.ts';
import { bringInRoutes } from './bring-in/index.ts';
import { calendarRoutes } from './calendars/index.ts';
import { callRoutes } from './calls/index.ts';
import { byLinkRoutes, clientLinkRoutes } from './client-links/index.ts';
import { clientRoutes } from './clients/index.ts';
import { clockRoutes } from './clock/index.ts';
import { commentRoutes } from './comments/index.ts';
import { directoryRoutes } from './directory/index.ts';
import { erasingRoutes } from './erasing/index.ts';
import { fileRoutes } from './files/index.ts';
import type { FileStore } from './files/stored/index.ts';
import { findRoutes } from './find/index.ts';
import { handOverRoutes } from './hand-over/index.ts';
import { historyRoutes } from './history/index.ts';
import { labelRoutes } from './labels/index.ts';
import { listRoutes } from './lists-out/index.ts';
import { logbookRoutes } from './logbook/index.ts';
import { messageRoutes } from './messages/index.ts';
import { noticeRoutes } from './notices/index.ts';
import { overviewRoutes } from './overview/index.ts';
import { paperRoutes } from './papers/index.ts';
import { peopleRoutes, sessionRoutes } from './people/index.ts';
import { planRoutes } from './plans/index.ts';
import { isSecure, ownAddressOnly, ownNameOnly } from './platform/http/addresses.ts';
import { bearers } from './platform/http/bearer.ts';
import { readJson } from './platform/http/body.ts';
import type { KnownRoute } from './platform/http/known-routes.ts';
import { noSuchRoute } from './platform/http/problems.ts';
import { Routes, shares } from './platform/http/route.ts';
import { sessions } from './platform/http/session.ts';
import { Refusal } from './platform/refusal.ts';
import type { ServerParts } from './platform/server-parts.ts';
import { postRoutes } from './post/index.ts';
import { describedRoutes, programRoutes } from './programs/index.ts';
import { pushRoutes } from './push/index.ts';
import { recordRoutes } from './record/index.ts';
import { retentionRoutes } from './retention/index.ts';
import { runRoutes } from './runs/index.ts';
import { scheduleRoutes } from './schedules/index.ts';
import { settingsRoutes } from './settings/index.ts';
import { setupRoutes } from './setup/index.ts';
import { swapRoutes } from './swaps/index.ts';
import { taskListRoutes } from './task-list/index.ts';
import { taskRoutes } from './tasks/index.ts';
import { templateRoutes } from './templates/index.ts';
import { wallchartRoutes } from './wallchart/index.ts';
import { webhookRoutes } from './webhooks/index.ts';
import { workloadRoutes } from './workload/index.ts';
import { workspaceRoutes } from './workspace/index.ts';

/** What all routes together are made of. */
export interface ApiParts extends ServerParts {
  readonly files: FileStore;
}

/** Enough for a person at work, too little for a script that has run away. */
const REQUESTS_A_MINUTE = 1200;
/** Of one token. */
const TOKEN_REQUESTS_A_MINUTE = 600;
/** Of one address, for whoever is not signed in. */
const OPEN_REQUESTS_A_MINUTE = 300;
const SIGN_IN_WINDOW_MS = 15 * 60 * 1000;
/** Wrong passwords within that time: for one account from one address, for one account from anywhere, from one address for any. */
const WRONG = { pair: 10, account: 40, address: 200 } as const;

const WRONG_LINKS = 100;

/** Everything below /api. */
export function api(parts: ApiParts): Router {
  const { reads, clock, live } = parts;
  const router = Router();
  router.get('/health', async (_request, response) => {
    await reads.query('select 1');
    response.json({ ok: true });
  });
  router.use('/no-mails', ownNameOnly(parts.addresses), linkLimit(), oneClickRouter(parts));
  router.use(
    bearers(reads, parts.writes, clock),
    ownAddressOnly(parts.addresses),
    sessions(parts.sessionPool, parts.sessionSecret, isSecure(parts.addresses)),
    requestLimit(),
  );
  router.post('/session', async (request, response, next) => {
    await readJson(request, response, workspaceEndpoints.signIn.maxBytes);
    next();
  });
  for (const limit of signInLimits(parts.log)) router.post('/session', limit);
  router.use(['/link', '/no-mails'], linkLimit());
  // Apart from links: programs ask again and again for a calendar that was withdrawn.
  router.use('/calendar.ics', linkLimit());
  const fair = shares();
  const known: KnownRoute[] = [];
  const events = new Routes(parts, clock, fair);
  router.use(events.stream('/events', (...asked) => live.subscribe(...asked)).router);
  for (const routes of [
    sessionRoutes,
    peopleRoutes,
    availabilityRoutes,
    backupRoutes,
    erasingRoutes,
    bellRoutes,
    commentRoutes,
    answerRoutes,
    clockRoutes,
    swapRoutes,
    recordRoutes,
    logbookRoutes,
    labelRoutes,
    messageRoutes,
    noticeRoutes,
    planRoutes,
    callRoutes,
    calendarRoutes,
    wallchartRoutes,
    overviewRoutes,
    taskListRoutes,
    webhookRoutes,
    workloadRoutes,
    handOverRoutes,
    postRoutes,
    programRoutes,
    pushRoutes,
    paperRoutes,
    setupRoutes,
    workspaceRoutes,
    settingsRoutes,
    retentionRoutes,
    clientRoutes,
    directoryRoutes,
    bringInRoutes,
    listRoutes,
    findRoutes,
    // Before those of one template, whose id stands in the place of a word.
    historyRoutes,
    templateRoutes,
    scheduleRoutes,
    clientLinkRoutes,
    byLinkRoutes,
    taskRoutes,
    fileRoutes,
    runRoutes,
  ]) {
    router.use(routes(new Routes(parts, clock, fair, parts.lane, known), parts).router);
  }
  router.use(describedRoutes(known));
  router.use(noSuchRoute);
  return router;
}

/** Whoever is signed in has a limit of their own, wherever they sit; others share that of their address. */
function requestLimit(): RequestHandler {
  return rateLimit({
    windowMs: 60_000,
    limit: ({ program, session }) =>
      program ? TOKEN_REQUESTS_A_MINUTE : session.personId ? REQUESTS_A_MINUTE : OPEN_REQUESTS_A_MINUTE,
    keyGenerator: ({ program, session, ip = '' }) => program?.tokenId ?? session.personId ?? ipKeyGenerator(ip),
    // Said with each answer (RateLimit, RateLimit-Policy), so that a program can wait before it is refused.
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: tooMany('Too many requests. Wait a minute.'),
  });
}

/** Links that open nothing, codes that are wrong: of one address, within a quarter of an hour. */
function linkLimit(): RequestHandler {
  return rateLimit({
    windowMs: SIGN_IN_WINDOW_MS,
    limit: WRONG_LINKS,
    skipSuccessfulRequests: true,
    keyGenerator: ({ ip = '' }) => ipKeyGenerator(ip),
    handler: tooMany('Too many tries that opened nothing. Wait a quarter of an hour.'),
  });
}

/** Wrong passwords are counted by account as well as by address, and for the two of them together. */
function signInLimits(log: Logger): RequestHandler[] {
  const accountOf = (body: unknown): string => {
    const given: unknown = typeof body === 'object' && body !== null && 'email' in body ? body.email : '';
    const email = typeof given === 'string' ? given : '';
    return createHash('sha256').update(email.trim().toLowerCase()).digest('hex').slice(0, 32);
  };
  const keys = {
    pair: (account: string, address: string) => `${account} ${address}`,
    account: (account: string) => account,
    address: (_: string, address: string) => address,
  } as const;
  return (Object.keys(WRONG) as (keyof typeof WRONG)[]).map((kind) =>
    rateLimit({
      windowMs: SIGN_IN_WINDOW_MS,
      limit: WRONG[kind],
      skipSuccessfulRequests: true,
      keyGenerator: ({ body, ip = '' }) => keys[kind](accountOf(body), ipKeyGenerator(ip)),
      handler: (request, response, next) => {
        log.warn({ requestId: request.id, address: request.ip, limit: kind }, 'signing in is slowed down');
        tooMany('Too many tries with a wrong password. Wait a quarter of an hour, or ask a manager.')(
          request,
          response,
          next,
        );
      },
    }),
  );
}

function tooMany(detail: string): RequestHandler {
  return (_request, _response, next) => next(new Refusal('too-many', detail));
}
