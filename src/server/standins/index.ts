/** Small simulated services that ship with the product, for what stands outside. */
export { type StandIn, startMailServer } from './mail-server.ts';
