import type { DataSource } from 'typeorm';
import webPush from 'web-push';
import { posted } from '../platform/http/posted.ts';

/** The keys by which a push service knows that it is us (RFC 8292). */
export interface PushKeys {
  readonly publicKey: string;
  readonly privateKey: string;
}

const SETTING = 'push_keys';

/** Made once for an installation, and kept: devices that were added know them. */
export async function pushKeys(source: Pick<DataSource, 'query'>): Promise<PushKeys> {
  await source.query('insert into setting (key, value) values ($1, $2) on conflict do nothing', [
    SETTING,
    JSON.stringify(webPush.generateVAPIDKeys()),
  ]);
  const [row] = (await source.query('select value from setting where key = $1', [SETTING])) as { value: string }[];
  if (!row) throw new Error('The keys for push could not be kept in the database.');
  return JSON.parse(row.value) as PushKeys;
}

export interface Reached {
  readonly endpoint: string;
  readonly p256dh: string;
  readonly auth: string;
}

export interface Sign {
  readonly title: string;
  readonly body: string;
  readonly path: string;
  /** The same for the same thing: shown again it takes the place of the first. */
  readonly tag: string;
}

/** How a push went: it was taken, the device is gone for good, or it may be tried again. */
export type Sent =
  | { readonly kind: 'taken' }
  | { readonly kind: 'gone' }
  | { readonly kind: 'trouble'; readonly says: string };

/** Of yesterday nobody wants to be told. */
const TTL_SECONDS = 24 * 60 * 60;

/**
 * Sends one sign to one device, encrypted for it alone (RFC 8291).
 * @param contact whom a push service can write to about us, a mailto: or https: address
 */
export async function sendPush(
  { endpoint, p256dh, auth }: Reached,
  sign: Sign,
  { keys, contact }: { readonly keys: PushKeys; readonly contact: string },
): Promise<Sent> {
  const details = webPush.generateRequestDetails({ endpoint, keys: { p256dh, auth } }, JSON.stringify(sign), {
    vapidDetails: { subject: contact, ...keys },
    TTL: TTL_SECONDS,
    urgency: 'normal',
    // At most 32 signs of base64url (RFC 8030, section 5.4): an id without its hyphens is just that.
    topic: sign.tag.replaceAll('-', ''),
  });
  // Over plain http the stand-in of tests is reached: no address of that kind is taken from anybody.
  const mayBeInside = endpoint.startsWith('http:');
  const headers = details.headers as Record<string, string>;
  const status = await posted(endpoint, { headers, body: details.body as Buffer, mayBeInside });
  if (typeof status === 'string') return { kind: 'trouble', says: status };
  if (status >= 200 && status < 300) return { kind: 'taken' };
  if (status === 404 || status === 410) return { kind: 'gone' };
  return { kind: 'trouble', says: `its push service answered ${status}` };
}
