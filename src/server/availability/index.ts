/** Who is there when: leave, and what follows for who has which work when somebody is away, back, or works other hours. */

export { leaveChanges, peopleChanges } from './changes.ts';
export { followShown, type Span } from './following.ts';
export { availabilityRoutes } from './routes.ts';
export { gapsToTell } from './told.ts';
