/** Signing in, and what an account may do about itself. */
export { hashPassword } from './password.ts';
export { sessionRoutes } from './routes.ts';
