/** Small simulated services that ship with the product, for what stands outside. */
export { type StandIn, startMailServer } from './mail-server.ts';
export { type PushStandIn, startPushServer } from './push-server.ts';
