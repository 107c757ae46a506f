/** What was done and missed: by the day, as figures by the week and by what it was for, and as a file. */
export { entriesOf } from './asked.ts';
export { loggedById } from './entries.ts';
export { logbookRoutes } from './routes.ts';
