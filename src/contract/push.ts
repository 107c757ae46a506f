import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, line } from './fields.ts';
import { pushPaths } from './paths-later.ts';

/** Devices of one person. */
export const MOST_PUSH_DEVICES = 10;

/** As a browser says where it is reached, and by which keys what is sent is for it alone: base64url, 65 and 16 bytes. */
const placeSchema = z.object({
  endpoint: z.string().min(10).max(1000),
  keys: z.object({
    p256dh: z.string().regex(/^[A-Za-z0-9_-]{87}=?$/, 'That is no key of a browser.'),
    auth: z.string().regex(/^[A-Za-z0-9_-]{22}={0,2}$/, 'That is no key of a browser.'),
  }),
  name: line('The name of the device', 60),
});
export type PushPlace = z.infer<typeof placeSchema>;

const devicesSchema = z.object({
  /** Ours, which a browser asks for. */
  key: z.string(),
  devices: z.array(
    z.object({
      id,
      name: z.string(),
      endpoint: z.string(),
      addedAt: civilMoment,
      toldAt: civilMoment.nullable(),
      trouble: z.string().nullable(),
    }),
  ),
});
export type PushDevices = z.infer<typeof devicesSchema>;

export const pushEndpoints = {
  mine: endpoint(pushPaths.mine, { answer: devicesSchema }),
  add: endpoint(pushPaths.add, { body: placeSchema, answer: devicesSchema }),
  drop: endpoint(pushPaths.drop, { answer: devicesSchema }),
};
