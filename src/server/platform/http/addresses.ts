import type { Request, RequestHandler } from 'express';
import { notFound, Refusal } from '../refusal.ts';

/** Under which address people reach this server. */
export interface Addresses {
  /** Scheme and host as browsers send them, `https://rota.example`; null for loopback alone. */
  readonly publicOrigin: string | null;
  /** How many proxies stand in front, each adding the address it was asked from (X-Forwarded-For). */
  readonly proxies: number;
}

export const LOOPBACK_ONLY: Addresses = { publicOrigin: null, proxies: 0 };

/** @throws Error that says which setting is wrong */
export function addressesFrom(origin: string | undefined, proxies: string | undefined): Addresses {
  const count = Number(proxies ?? '0');
  if (!Number.isInteger(count) || count < 0 || count > 9)
    throw new Error(`JOLLY_PROXIES is “${proxies}”: it should be how many proxies stand in front, 0 to 9.`);
  if (origin === undefined || origin === '') return { publicOrigin: null, proxies: count };
  if (!/^https?:\/\//.test(origin) || !URL.canParse(origin) || new URL(origin).origin !== origin)
    throw new Error(`JOLLY_ORIGIN is “${origin}”: it should be scheme and host alone, like https://rota.example.`);
  return { publicOrigin: origin, proxies: count };
}

export const isSecure = ({ publicOrigin }: Addresses) => publicOrigin?.startsWith('https://') === true;

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d{1,5})?$/;
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Asked under a name of ours only, so that no other name can be made to lead here (DNS rebinding); and written to from our
 * own pages only: Origin must be the address itself, scheme and all, and where the browser says from where it was sent
 * (Fetch Metadata), it says from the same origin.
 */
export function ownAddressOnly(addresses: Addresses): RequestHandler {
  return (request, _response, next) => {
    const origin = originOf(addresses, request);
    if (origin === null)
      throw new Refusal(
        'wrong-address',
        'Jolly Rota does not answer under this name. Whoever runs it sets the name with JOLLY_ORIGIN.',
      );
    // What shows a token has no page; and no page of others can make a browser show one.
    if (READS.has(request.method) || request.program) return next();
    const site = request.headers['sec-fetch-site'];
    if (request.headers.origin !== origin || (site !== undefined && site !== 'same-origin'))
      throw new Refusal('not-allowed', 'This request did not come from a page of Jolly Rota, so it was refused.');
    next();
  };
}

/** The first half of it alone: for what mail programs send, who have no page. */
export function ownNameOnly(addresses: Addresses): RequestHandler {
  return (request, _response, next) => {
    if (originOf(addresses, request) === null) throw notFound('address');
    next();
  };
}

/** The origin that the asked host stands for; null for a host that is not ours. */
function originOf({ publicOrigin }: Addresses, { headers }: Request): string | null {
  const { host = '' } = headers;
  if (publicOrigin !== null && new URL(publicOrigin).host === host) return publicOrigin;
  return LOOPBACK.test(host) ? `http://${host}` : null;
}

/** Where the links of a mail lead: under the name by which whoever asks has reached us. */
export function linkOrigin({ headers: { origin, host }, protocol }: Request): string {
  // Of a write it was checked already to be our own, and so was the name of the host.
  return origin ?? `${protocol}://${host}`;
}
