/** What a manager sets for the whole workspace, and what that does to its schedules. */
export { settingsChanges } from './changes.ts';
export { keyed } from './lists.ts';
export { countriesKnown, englandAndWales, publicHolidaysFrom } from './public-holidays.ts';
export { settingsRoutes } from './routes.ts';
export { type AddedDaysOff, addDaysOff, checkWeek, writeDaysOff } from './service.ts';
