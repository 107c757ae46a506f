import express, { type RequestHandler, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type pg from 'pg';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import type { Problem } from '../../contract/index.ts';
import type { Clock } from '../clock.ts';
import { fileRoutes } from '../files/routes.ts';
import type { FileStore } from '../files/store.ts';
import { sessionRoutes } from '../people/routes.ts';
import { runRoutes } from '../runs/routes.ts';
import { scheduleRoutes } from '../schedules/routes.ts';
import { taskRoutes } from '../tasks/routes.ts';
import { templateRoutes } from '../templates/routes.ts';
import { workspaceRoutes } from '../workspace/routes.ts';
import type { LiveStream } from './live.ts';
import { noSuchRoute } from './problems.ts';
import { Refusal } from './refusal.ts';
import { Routes } from './route.ts';
import { sameOriginWrites } from './same-origin.ts';
import { sessionPerson, sessions } from './session.ts';

export interface ServerParts {
  readonly source: DataSource;
  readonly pool: pg.Pool;
  readonly clock: Clock;
  readonly live: LiveStream;
  readonly files: FileStore;
  readonly log: Logger;
  readonly sessionSecret: string;
}

/** Enough for a person at work, too little for a script that has run away. */
const REQUESTS_A_MINUTE = 1200;
const FAILED_SIGN_INS = 10;
const SIGN_IN_WINDOW_MS = 15 * 60 * 1000;

/** Everything below /api. */
export function api(parts: ServerParts): Router {
  const { source, clock, live } = parts;
  const router = Router();
  router.get('/health', async (_request, response) => {
    await source.query('select 1');
    response.json({ ok: true });
  });
  router.use(
    rateLimit({ windowMs: 60_000, limit: REQUESTS_A_MINUTE, handler: tooMany('Too many requests. Wait a minute.') }),
  );
  // Thousands of schedules in one change, each with its rule, are more than anything else has to say.
  router.use('/schedules/changes', express.json({ limit: '8mb' }));
  router.use(express.json({ limit: '1mb' }), sessions(parts.pool, parts.sessionSecret), sameOriginWrites);
  router.post(
    '/session',
    rateLimit({
      windowMs: SIGN_IN_WINDOW_MS,
      limit: FAILED_SIGN_INS,
      skipSuccessfulRequests: true,
      handler: tooMany('Too many tries with a wrong password. Wait a quarter of an hour, or ask a manager.'),
    }),
  );
  router.get('/events', async (request, response) => {
    const signedIn = await sessionPerson(source, request);
    if (!signedIn) throw new Refusal(401, 'Signed out', 'You are signed out.');
    live.subscribe(request, response, signedIn.workspace.id);
  });
  for (const routes of [
    sessionRoutes,
    workspaceRoutes,
    templateRoutes,
    scheduleRoutes,
    taskRoutes,
    fileRoutes,
    runRoutes,
  ]) {
    router.use(routes(new Routes(source, clock), parts).router);
  }
  router.use(noSuchRoute);
  return router;
}

function tooMany(detail: string): RequestHandler {
  return (_request, response) => {
    const problem: Problem = { type: 'about:blank', title: 'Too many requests', status: 429, detail };
    response.status(429).type('application/problem+json').send(JSON.stringify(problem));
  };
}
