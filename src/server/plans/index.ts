/** Service plans: recurring work that clients are put on in one go, what each has of its own, and what a change of a plan reaches. */
export { onPlanChanges, planChanges } from './changes.ts';
export { changePlan, createPlan, impactOfPlan } from './changing.ts';
export { handOnPlans } from './handing-on.ts';
export { lookAtPuttingOn } from './joining-look.ts';
export { clientsOfPlan } from './list.ts';
export { lookAtPlan } from './look.ts';
export { putOn } from './putting-on.ts';
export { planRoutes } from './routes.ts';
