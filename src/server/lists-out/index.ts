/** Lists as they are taken out, to be read by a spreadsheet and brought in again. */
export { listRoutes } from './routes.ts';
