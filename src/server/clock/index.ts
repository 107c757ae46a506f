/** Who says to be at work: clocking on and off, oneself or by a manager. */
export { clockRoutes } from './routes.ts';
