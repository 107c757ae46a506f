import { callEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { beforeCall, callDay } from './day.ts';
import { lookAtQuota } from './look.ts';
import { changeQuota, createQuota, listQuotas } from './quotas.ts';
import { putOffCall, saidOfCall } from './rung.ts';

export function callRoutes(routes: Routes): Routes {
  return routes
    .add(callEndpoints.quotas, 'read', ({ scope }) => listQuotas(scope))
    .add(callEndpoints.createQuota, 'plan', ({ scope, body }) => createQuota(scope, body))
    .add(callEndpoints.look, 'plan', ({ scope, body }) => lookAtQuota(scope, body))
    .add(callEndpoints.changeQuota, 'plan', ({ scope, params, body }) => changeQuota(scope, params.quotaId, body))
    .add(callEndpoints.day, 'read', ({ scope, query }) => callDay(scope, query))
    .add(callEndpoints.before, 'read', ({ scope, params }) => beforeCall(scope, params.callId))
    .add(callEndpoints.rung, 'work', ({ scope, params, body }) => saidOfCall(scope, params.callId, body))
    .add(callEndpoints.later, 'work', ({ scope, params, body }) => putOffCall(scope, params.callId, body.version));
}
