import { runEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { rehearseFill, startFill } from './fill.ts';
import { describeRun, listRuns, oneRun, undoRun } from './log.ts';
import { lastRun, runMaking } from './making.ts';
import { rehearseOne, runOne } from './one.ts';

export function runRoutes(routes: Routes, { log, pool }: ServerParts): Routes {
  return routes
    .add(runEndpoints.last, 'read', async ({ scope }) => {
      const run = await lastRun(scope);
      return { run: run && (await describeRun(scope, run)) };
    })
    .add(runEndpoints.list, 'read', ({ scope }) => listRuns(scope))
    .add(runEndpoints.one, 'read', ({ scope, params }) => oneRun(scope, params.runId))
    .add(runEndpoints.runNow, 'plan', async ({ scope }) => ({
      run: await describeRun(scope, await runMaking(scope, 'byHand', log)),
    }))
    .add(runEndpoints.runOne, 'plan', async ({ scope, params, body: { asOf, isRehearsal } }) =>
      isRehearsal
        ? { ...(await rehearseOne(scope, params.scheduleId, asOf)), run: null }
        : runOne(scope, params.scheduleId, asOf),
    )
    .add(runEndpoints.rehearse, 'plan', ({ scope, body }) => rehearseFill(scope, body))
    .add(runEndpoints.fill, 'plan', async ({ scope, body }) => ({
      run: await describeRun(scope, await startFill(scope, pool, body)),
    }))
    .add(runEndpoints.undo, 'plan', ({ scope, params }) => undoRun(scope, params.runId));
}
