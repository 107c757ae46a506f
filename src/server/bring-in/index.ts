/** Lists that are brought in from files: read, looked at, written in one go and taken out again. */
export { bringInChanges } from './changes.ts';
export { BringIn, BringInRow, CalendarOrigin } from './entity.ts';
export { LONGEST_CELL, readFile } from './read-file.ts';
export { bringInRoutes } from './routes.ts';
export { bringItIn, oneBringIn, startBringIn } from './service.ts';
