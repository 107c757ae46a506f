import { planEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { archivePlan, changePlan, createPlan, impactOfPlan, onePlan } from './changing.ts';
import { gatherSchedules } from './gathering.ts';
import { lookAtPuttingOn } from './joining-look.ts';
import { clientsOfPlan, listPlans } from './list.ts';
import { lookAtPlan } from './look.ts';
import { plansOfClient } from './of-client.ts';
import { putOn } from './putting-on.ts';
import { impactOfRollingOn, listRolling, rollOn } from './rolling.ts';
import { impactOfAsPlan, impactOfLeavingOut, impactOfTakingOff, leaveOut, putAsPlan, takeOff } from './taking-off.ts';

export function planRoutes(routes: Routes): Routes {
  return routes
    .add(planEndpoints.list, 'read', ({ scope }) => listPlans(scope))
    .add(planEndpoints.one, 'read', ({ scope, params }) => onePlan(scope, params.planId))
    .add(planEndpoints.create, 'plan', ({ scope, body }) => createPlan(scope, body))
    .add(planEndpoints.change, 'plan', ({ scope, params, body }) => changePlan(scope, params.planId, body))
    .add(planEndpoints.impact, 'plan', ({ scope, params, body }) => impactOfPlan(scope, params.planId, body))
    .add(planEndpoints.look, 'plan', ({ scope, body }) => lookAtPlan(scope, body))
    .add(planEndpoints.archive, 'plan', ({ scope, params, body }) => archivePlan(scope, params.planId, body))
    .add(planEndpoints.clients, 'read', ({ scope, params, query }) => clientsOfPlan(scope, params.planId, query))
    .add(planEndpoints.ofClient, 'read', ({ scope, params }) => plansOfClient(scope, params.clientId))
    .add(planEndpoints.putOn, 'plan', ({ scope, params, body }) => putOn(scope, params.planId, body))
    .add(planEndpoints.lookAtPuttingOn, 'plan', ({ scope, params, body }) =>
      lookAtPuttingOn(scope, params.planId, body),
    )
    .add(planEndpoints.rolling, 'read', ({ scope }) => listRolling(scope))
    .add(planEndpoints.rollOn, 'plan', ({ scope, body }) => rollOn(scope, body))
    .add(planEndpoints.impactOfRollingOn, 'plan', ({ scope, body }) => impactOfRollingOn(scope, body))
    .add(planEndpoints.gather, 'plan', ({ scope, params, body }) => gatherSchedules(scope, params.planId, body))
    .add(planEndpoints.takeOff, 'plan', ({ scope, body }) => takeOff(scope, body))
    .add(planEndpoints.impactOfTakingOff, 'plan', ({ scope, body }) => impactOfTakingOff(scope, body))
    .add(planEndpoints.leaveOut, 'plan', ({ scope, params, body }) => leaveOut(scope, params.onPlanId, body))
    .add(planEndpoints.impactOfLeavingOut, 'plan', ({ scope, params, body }) =>
      impactOfLeavingOut(scope, params.onPlanId, body),
    )
    .add(planEndpoints.asPlan, 'plan', ({ scope, params, body }) => putAsPlan(scope, params.planId, body))
    .add(planEndpoints.impactOfAsPlan, 'plan', ({ scope, params, body }) => impactOfAsPlan(scope, params.planId, body));
}
