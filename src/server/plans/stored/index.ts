/** What the database has of service plans: their items, who is on them since when, and what of it is a client's own. */
export { type LeftOut, OnPlan, PlanRecord } from './entity.ts';
export {
  type AssetOfClient,
  assetsOf,
  countsOfPlans,
  isOn,
  lockedMembers,
  type Member,
  membersAmong,
  membersOf,
  OWN_ASPECTS_SQL,
  ownCounts,
  SCHEDULES_OF_PLAN,
  timesOfClient,
} from './members.ts';
export { firstPlans, noPlans, planOfEach, plansOfEach } from './of-clients.ts';
