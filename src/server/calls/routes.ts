import { callEndpoints, callFigureEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { sendRows } from '../platform/http/rows-out.ts';
import { addCall, findContacts, swapCall, takeOff } from './altering.ts';
import { beforeCall } from './before.ts';
import { callsBehind, callsOut } from './behind.ts';
import { callDay } from './day.ts';
import { callFigures } from './figures.ts';
import { lookAtQuota } from './look.ts';
import { changeQuota, createQuota, listQuotas } from './quotas.ts';
import { putOffCall, saidOfCall } from './rung.ts';
import { changeSeveral, lookAtSeveral } from './several.ts';
import { lookAtSharing, shareOut } from './sharing.ts';

export function callRoutes(routes: Routes): Routes {
  return routes
    .add(callEndpoints.quotas, 'read', ({ scope }) => listQuotas(scope))
    .add(callEndpoints.createQuota, 'plan', ({ scope, body }) => createQuota(scope, body))
    .add(callEndpoints.severalLook, 'plan', ({ scope, body }) => lookAtSeveral(scope, body))
    .add(callEndpoints.several, 'plan', ({ scope, body }) => changeSeveral(scope, body))
    .add(callEndpoints.look, 'plan', ({ scope, body }) => lookAtQuota(scope, body))
    .add(callEndpoints.changeQuota, 'plan', ({ scope, params, body }) => changeQuota(scope, params.quotaId, body))
    .add(callEndpoints.day, 'read', ({ scope, query }) => callDay(scope, query))
    .add(callEndpoints.before, 'read', ({ scope, params, query }) => beforeCall(scope, params.callId, query.kind))
    .add(callEndpoints.rung, 'work', ({ scope, params, body }) => saidOfCall(scope, params.callId, body))
    .add(callEndpoints.later, 'work', ({ scope, params, body }) => putOffCall(scope, params.callId, body.version))
    .add(callEndpoints.contacts, 'read', ({ scope, query }) => findContacts(scope, query))
    .add(callEndpoints.more, 'work', ({ scope, body }) => addCall(scope, body))
    .add(callEndpoints.off, 'work', ({ scope, params, body }) => takeOff(scope, params.callId, body.version))
    .add(callEndpoints.swap, 'work', ({ scope, params, body }) => swapCall(scope, params.callId, body.version))
    .add(callEndpoints.shareLook, 'plan', ({ scope, body }) => lookAtSharing(scope, body))
    .add(callEndpoints.share, 'plan', ({ scope, body }) => shareOut(scope, body))
    .add(callFigureEndpoints.figures, 'read', ({ scope, query }) => callFigures(scope, query))
    .add(callFigureEndpoints.calls, 'read', ({ scope, query }) => callsBehind(scope, query))
    .sendTo(callFigureEndpoints.csv, 'read', ({ scope, query: { as, ...asked } }, response) =>
      sendRows(response, `calls ${asked.from} to ${asked.to}`, callsOut(scope, asked), as),
    );
}
