/** Devices that show what happens though nobody looks (Web Push): kept, reached, forgotten when they are gone. */
export { PushDevice } from './entity.ts';
export { pushRoutes } from './routes.ts';
export { type PushKeys, pushKeys, type Reached, type Sent, type Sign, sendPush } from './sending.ts';
