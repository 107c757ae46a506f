/** Labels to stick on assets: their tags as text and as a code, on sheets of A4. */
export { labelRoutes } from './routes.ts';
